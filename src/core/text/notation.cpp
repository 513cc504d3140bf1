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

Unit knownUnit(std::string_view symbol)
{
    const std::optional<Unit> unit = findUnit(symbol);
    require(unit.has_value(), "a unit of the program is not in its own table");
    return *unit;
}

/// "450.25 N 4" as written by marked(); nothing where it is anything else.
std::optional<std::string> writtenOut(std::string_view mark, const Notation &notation)
{
    const std::size_t first = mark.find(' ');
    const std::size_t last = mark.rfind(' ');
    if (first == std::string_view::npos || last <= first)
        return std::nullopt;
    const std::optional<double> value = parseTypedNumber(mark.substr(0, first));
    const std::optional<Unit> unit = findUnit(mark.substr(first + 1, last - first - 1));
    int digits = 0;
    const std::string_view digitText = mark.substr(last + 1);
    const auto parsed = std::from_chars(digitText.data(), digitText.data() + digitText.size(), digits);
    if (!value || !unit || parsed.ec != std::errc() || digits < 1 || digits > 17)
        return std::nullopt;
    return notation.quantity(*value, unit->dimension, digits);
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
    return fmt::format("{}{} {} {}{}", kMarkStart, value, workingUnit(dimension).symbol, digits, kMarkEnd);
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
        return knownUnit(m_force);
    case Dimension::Stress:
        return knownUnit(m_stress);
    case Dimension::Energy:
        return knownUnit(m_energy);
    case Dimension::Length:
        return knownUnit(m_length);
    case Dimension::Torque:
        return knownUnit(m_torque);
    case Dimension::Temperature:
        return knownUnit(m_temperature);
    case Dimension::Area:
        return knownUnit(m_length == "in" ? "in²" : "mm²");
    case Dimension::EnergyDensity:
        return knownUnit(m_stress == "psi" ? "in·lbf/in³" : "MJ/m³");
    case Dimension::Ratio:
        return knownUnit("%");
    default:
        return workingUnit(dimension);
    }
}

Unit Notation::unitFor(std::string_view workingSymbol) const
{
    return unitOf(workingSymbol.empty() ? Dimension::Ratio : knownUnit(workingSymbol).dimension);
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
    return fmt::format("{} {}", significant(unit.fromWorking(value), digits), unit.symbol);
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
