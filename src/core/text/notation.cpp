// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/notation.h"

#include "core/text/number_text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace inchpeg
{

namespace
{

using namespace std::string_view_literals;

constexpr std::array kForces = {"N"sv, "kN"sv, "kgf"sv, "lbf"sv};
constexpr std::array kStresses = {"MPa"sv, "N/mm²"sv, "psi"sv};
constexpr std::array kEnergies = {"J"sv, "mJ"sv, "ft·lbf"sv};
constexpr std::array kLengths = {"mm"sv, "in"sv};
constexpr std::array kTorques = {"N·m"sv, "N·cm"sv, "lbf·ft"sv, "lbf·in"sv};
constexpr std::array kTemperatures = {"°C"sv, "°F"sv, "K"sv};

// A marked quantity stands between two control characters that no text of ours holds otherwise.
constexpr char kMarkStart = '\x02';
constexpr char kMarkEnd = '\x03';

Unit knownUnit(Dimension dimension, std::string_view symbol)
{
    for (const Unit &unit : allUnits()) {
        if (unit.dimension == dimension && unit.symbol == symbol)
            return unit;
    }
    throw ContractViolation("a unit of the program is not in its own table");
}

std::optional<int> wholeNumber(std::string_view text)
{
    int number = 0;
    const auto parsed = std::from_chars(text.data(), text.data() + text.size(), number);
    return parsed.ec == std::errc() && parsed.ptr == text.data() + text.size() ? std::optional(number)
                                                                               : std::nullopt;
}

/// "450.25 0 4" (value, number of the dimension, digits) as written by marked(); nothing where it is anything
/// else.
std::optional<std::string> writtenOut(std::string_view mark, const Notation &notation)
{
    const std::size_t first = mark.find(' ');
    const std::size_t last = mark.rfind(' ');
    if (first == std::string_view::npos || last <= first)
        return std::nullopt;
    const std::optional<double> value = parseTypedNumber(mark.substr(0, first));
    const std::optional<int> dimension = wholeNumber(mark.substr(first + 1, last - first - 1));
    const std::optional<int> digits = wholeNumber(mark.substr(last + 1));
    const bool isKnown = dimension && *dimension >= 0 && *dimension <= static_cast<int>(kLastDimension);
    if (!value || !isKnown || !digits || *digits < 1 || *digits > 17)
        return std::nullopt;
    return notation.quantity(*value, static_cast<Dimension>(*dimension), *digits);
}

} // namespace

std::span<const std::string_view> choosableUnits(Dimension dimension)
{
    switch (dimension) {
    case Dimension::Force:
        return kForces;
    case Dimension::Stress:
        return kStresses;
    case Dimension::Energy:
        return kEnergies;
    case Dimension::Length:
        return kLengths;
    case Dimension::Torque:
        return kTorques;
    case Dimension::Temperature:
        return kTemperatures;
    default:
        return {};
    }
}

std::string marked(double value, Dimension dimension, int digits)
{
    return fmt::format("{}{} {} {}{}", kMarkStart, value, static_cast<int>(dimension), digits, kMarkEnd);
}

Status Notation::choose(std::string_view symbol)
{
    const std::optional<Unit> unit = findUnit(symbol);
    if (!unit)
        return invalidArgument(fmt::format("the unit \"{}\" is not known", symbol));
    const std::span<const std::string_view> choice = choosableUnits(unit->dimension);
    if (std::find(choice.begin(), choice.end(), unit->symbol) == choice.end())
        return invalidArgument(fmt::format("values are not shown in {}", unit->symbol));
    std::string &chosen = unit->dimension == Dimension::Force    ? m_force
                          : unit->dimension == Dimension::Stress ? m_stress
                          : unit->dimension == Dimension::Energy ? m_energy
                          : unit->dimension == Dimension::Length ? m_length
                          : unit->dimension == Dimension::Torque ? m_torque
                                                                 : m_temperature;
    chosen = unit->symbol;
    return ok();
}

Unit Notation::unitOf(Dimension dimension) const
{
    switch (dimension) {
    case Dimension::Force:
        return knownUnit(dimension, m_force);
    case Dimension::Stress:
        return knownUnit(dimension, m_stress);
    case Dimension::Energy:
        return knownUnit(dimension, m_energy);
    case Dimension::Length:
        return knownUnit(dimension, m_length);
    case Dimension::Torque:
        return knownUnit(dimension, m_torque);
    case Dimension::Temperature:
        return knownUnit(dimension, m_temperature);
    case Dimension::TemperatureDifference:
        return knownUnit(dimension, m_temperature == "°F" ? "°F" : "K");
    case Dimension::HeatingRate:
        return knownUnit(dimension, m_temperature == "°F" ? "°F/h" : "K/h");
    case Dimension::Area:
        return knownUnit(dimension, m_length == "in" ? "in²" : "mm²");
    case Dimension::EnergyDensity:
        return knownUnit(dimension, m_stress == "psi" ? "in·lbf/in³" : "MJ/m³");
    case Dimension::StressPerPercent:
        return knownUnit(dimension, m_stress == "psi" ? "psi/%" : "MPa/%");
    case Dimension::EnergyPerArea:
        return knownUnit(dimension, m_energy == "ft·lbf" ? "ft·lbf/in²" : "kJ/m²");
    case Dimension::EnergyPerLength:
        return knownUnit(dimension, m_energy == "ft·lbf" ? "ft·lbf/in" : "J/m");
    case Dimension::ForcePerLength:
        return knownUnit(dimension, m_force == "lbf" ? "lbf/in" : "N/mm");
    case Dimension::Ratio:
        return knownUnit(dimension, "%");
    default:
        return workingUnit(dimension);
    }
}

std::string Notation::withMark(std::string text) const
{
    if (m_decimalMark != '.')
        std::replace(text.begin(), text.end(), '.', m_decimalMark);
    return text;
}

std::string Notation::fixed(double value, int decimals) const
{
    return withMark(fixedText(value, decimals));
}

std::string Notation::significant(double value, int digits) const
{
    return withMark(significantText(value, digits));
}

std::string Notation::plain(double value, int digits) const
{
    return withMark(plainText(value, digits));
}

std::string Notation::percent(double fraction) const
{
    const double percent = 100.0 * std::abs(fraction);
    return fixed(percent, percent < 9.95 ? 1 : 0) + " %";
}

std::string Notation::signedPercent(double fraction) const
{
    return withMark(signedPercentText(fraction));
}

std::string Notation::percentRange(const Interval &fractions) const
{
    return withMark(percentRangeText(fractions));
}

std::string Notation::quantity(double value, Dimension dimension, int digits) const
{
    const Unit unit = unitOf(dimension);
    return withUnit(significant(unit.fromWorking(value), digits), unit);
}

std::string Notation::measuredLength(double value_mm) const
{
    if (m_length == "mm")
        return withMark(measuredText(value_mm));
    const double value_in = unitOf(Dimension::Length).fromWorking(value_mm);
    const bool tenths = std::abs(std::round(value_in * 1e4) - 10.0 * std::round(value_in * 1e3)) > 0.5;
    return fixed(value_in, tenths ? 4 : 3);
}

std::string Notation::expand(std::string_view text) const
{
    std::string out;
    while (!text.empty()) {
        const std::size_t start = text.find(kMarkStart);
        const std::size_t end = start == std::string_view::npos ? start : text.find(kMarkEnd, start);
        out += text.substr(0, std::min(start, text.size()));
        if (end == std::string_view::npos) {
            if (start != std::string_view::npos)
                out += text.substr(start);
            return out;
        }
        const std::string_view mark = text.substr(start + 1, end - start - 1);
        out += writtenOut(mark, *this).value_or(std::string(mark));
        text.remove_prefix(end + 1);
    }
    return out;
}

} // namespace inchpeg
