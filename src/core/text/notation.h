// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"
#include "core/units/unit.h"

#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// How a person wants to see values: the unit of each dimension and the decimal mark. Computation, files and
/// the command line know nothing of it.
class Notation
{
public:
    /// SI-like working units and a decimal point.
    Notation() = default;

    /// Chooses the unit of its dimension. A length brings its area along, a stress its energy per volume, an
    /// energy that per area and per length, a force its stiffness, a temperature differences and heating
    /// rates. Errors: InvalidArgument for a symbol that is not known or not among choosableUnits().
    Status choose(std::string_view symbol);
    void setDecimalMark(char mark) { m_decimalMark = mark; }
    [[nodiscard]] char decimalMark() const { return m_decimalMark; }

    /// The unit in which this dimension is shown; a ratio is shown in percent.
    [[nodiscard]] Unit unitOf(Dimension dimension) const;

    [[nodiscard]] std::string fixed(double value, int decimals) const;
    [[nodiscard]] std::string significant(double value, int digits) const;
    /// As typed: up to so many significant digits, no trailing zeros.
    [[nodiscard]] std::string plain(double value, int digits = 6) const;
    /// The size of a fraction, without a sign: "6.1 %", "18 %".
    [[nodiscard]] std::string percent(double fraction) const;
    [[nodiscard]] std::string signedPercent(double fraction) const;
    [[nodiscard]] std::string percentRange(const Interval &fractions) const;
    /// A value in its working unit, with the shown unit behind it: "12.3 kgf".
    [[nodiscard]] std::string quantity(double value, Dimension dimension, int digits) const;
    /// A calliper reading, without its unit: hundredths of a millimetre or tenths of a mil, one more digit
    /// where it was given.
    [[nodiscard]] std::string measuredLength(double value_mm) const;
    /// A text in which quantities were marked by marked(), with the quantities written out.
    [[nodiscard]] std::string expand(std::string_view text) const;

    bool operator==(const Notation &) const = default;

private:
    [[nodiscard]] std::string withMark(std::string text) const;

    // One symbol a dimension; those that follow another are derived.
    std::string m_force{"N"};
    std::string m_stress{"MPa"};
    std::string m_energy{"J"};
    std::string m_length{"mm"};
    std::string m_torque{"N·m"};
    std::string m_temperature{"°C"};
    char m_decimalMark = '.';
};

/// What may be chosen for a dimension, the usual one first; empty where there is no choice.
std::span<const std::string_view> choosableUnits(Dimension dimension);

/// A quantity inside a text of the core, to be written out later in the person's units: value in the working
/// unit of its dimension, to so many significant digits.
std::string marked(double value, Dimension dimension, int digits = 4);

} // namespace inchpeg
