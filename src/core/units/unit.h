// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// What a unit measures. Torque and energy, strain and friction, a temperature and a difference of
/// temperatures are told apart although their SI dimensions agree, because people do not mean the same by
/// them.
// g++ 12 takes scoped enumerators for shadows of the quantity types of the same names.
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wshadow"
enum class Dimension {
    Force,
    Length,
    Area,
    Ratio,   ///< a share that is shown in percent: strain, recovered share
    Percent, ///< a number that counts percent already: shrinkage
    Number,  ///< a plain number: friction
    Factor,  ///< so many times: growth under load
    Time,
    Temperature,
    TemperatureDifference,
    Torque,
    Angle,
    Stress,
    Mass,
    Energy,
    EnergyDensity,
    EnergyPerArea,
    EnergyPerLength,
    ForcePerLength,
    PerTime,
    StrainRate,
    HeatingRate,
    StressPerPercent,
    Density,
};
inline constexpr Dimension kLastDimension = Dimension::Density;
#pragma GCC diagnostic pop

/// A unit of measure. value_in_working_unit = (value + offset) * factor, where the working units are
/// N, mm, mm², 1, s, °C, K, N·m, deg, MPa, kg, J, MJ/m³, kJ/m², J/m, N/mm, 1/h, %/min, K/h, MPa/% and g/cm³:
/// the units of all arrays in the core.
struct Unit {
    std::string_view symbol;
    Dimension dimension = Dimension::Force;
    double factor = 1.0;
    double offset = 0.0;

    [[nodiscard]] double toWorking(double value) const { return (value + offset) * factor; }
    [[nodiscard]] double fromWorking(double value) const { return value / factor - offset; }
    bool operator==(const Unit &other) const
    {
        return symbol == other.symbol && dimension == other.dimension;
    }
};

/// All known units; the first of a dimension is its working unit. Two dimensions may share a symbol.
std::span<const Unit> allUnits();

/// The unit with this symbol or one of its usual other spellings ("um" for µm, "Nm", "degC", "lbs"),
/// blanks trimmed; nothing for an unknown one. Of dimensions that share a symbol the one that files mean: "%"
/// is a ratio, "K" a temperature. Case counts ("mN" is not "MN") except where the table lists another
/// spelling.
std::optional<Unit> findUnit(std::string_view text);

/// The working unit of a dimension.
Unit workingUnit(Dimension dimension);

/// The working unit's symbol as files name it; "" where a number stands without one.
std::string_view symbolInFiles(Dimension dimension);

/// What a difference of two values measures: of temperatures one without an offset.
Dimension differenceOf(Dimension dimension);

/// A number with its unit as people write it: "12.3 N", "0.35" for a plain number, "× 1.20" for a factor.
std::string withUnit(std::string_view number, const Unit &unit);
/// The heading of values in this unit: "Strength in MPa"; the label alone for plain numbers and factors.
std::string headingIn(std::string_view label, const Unit &unit);

/// "force", "length" … for messages.
std::string_view dimensionName(Dimension dimension);

/// A typed value such as "10 mm", "0,4in" or "1.25kgf", in the working unit of the wanted dimension.
/// Without a unit the number is taken in fallback. Decimal point and comma both work.
/// Errors: InvalidArgument when there is no number, the unit is unknown or measures something else.
Result<double> parseQuantity(std::string_view text, const Unit &fallback);

} // namespace inchpeg
