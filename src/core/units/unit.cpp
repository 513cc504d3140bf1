// SPDX-License-Identifier: GPL-3.0-or-later
// Exact factors: NIST SP 811 (2008), appendix B.8: 1 in = 25.4 mm, 1 lb = 0.45359237 kg and
// standard gravity 9.80665 m/s² are exact, so kgf, lbf and psi are products of exact numbers.
#include "core/units/unit.h"

#include "core/base/article.h"
#include "core/units/gravity.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <array>
#include <numbers>
#include <string>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr double kPound_kg = 0.45359237;
constexpr double kInch_mm = 25.4;
constexpr double kPoundForce_N = kPound_kg * kStandardGravity_m_per_s2;

constexpr std::array kUnits = {
    Unit{"N", Dimension::Force, 1.0},
    Unit{"kN", Dimension::Force, 1e3},
    Unit{"mN", Dimension::Force, 1e-3},
    Unit{"lbf", Dimension::Force, kPoundForce_N},
    Unit{"kgf", Dimension::Force, kStandardGravity_m_per_s2},
    Unit{"gf", Dimension::Force, kStandardGravity_m_per_s2 * 1e-3},
    Unit{"daN", Dimension::Force, 10.0},
    Unit{"ozf", Dimension::Force, kPoundForce_N / 16.0},
    Unit{"mm", Dimension::Length, 1.0},
    Unit{"cm", Dimension::Length, 10.0},
    Unit{"m", Dimension::Length, 1e3},
    Unit{"in", Dimension::Length, kInch_mm},
    Unit{"µm", Dimension::Length, 1e-3},
    Unit{"mm²", Dimension::Area, 1.0},
    Unit{"cm²", Dimension::Area, 100.0},
    Unit{"in²", Dimension::Area, kInch_mm *kInch_mm},
    Unit{"mm/mm", Dimension::Ratio, 1.0},
    Unit{"%", Dimension::Ratio, 1e-2},
    Unit{"µm/m", Dimension::Ratio, 1e-6},
    Unit{"%", Dimension::Percent, 1.0},
    Unit{"1", Dimension::Number, 1.0},
    Unit{"×", Dimension::Factor, 1.0},
    Unit{"s", Dimension::Time, 1.0},
    Unit{"ms", Dimension::Time, 1e-3},
    Unit{"µs", Dimension::Time, 1e-6},
    Unit{"min", Dimension::Time, 60.0},
    Unit{"h", Dimension::Time, 3600.0},
    Unit{"°C", Dimension::Temperature, 1.0},
    Unit{"°F", Dimension::Temperature, 5.0 / 9.0, -32.0},
    Unit{"K", Dimension::Temperature, 1.0, -273.15},
    Unit{"K", Dimension::TemperatureDifference, 1.0},
    Unit{"°F", Dimension::TemperatureDifference, 5.0 / 9.0},
    Unit{"N·m", Dimension::Torque, 1.0},
    Unit{"N·cm", Dimension::Torque, 1e-2},
    Unit{"N·mm", Dimension::Torque, 1e-3},
    Unit{"lbf·ft", Dimension::Torque, kPoundForce_N * 0.3048},
    Unit{"lbf·in", Dimension::Torque, kPoundForce_N * 0.0254},
    Unit{"deg", Dimension::Angle, 1.0},
    Unit{"rad", Dimension::Angle, 180.0 / std::numbers::pi},
    Unit{"MPa", Dimension::Stress, 1.0},
    Unit{"kPa", Dimension::Stress, 1e-3},
    Unit{"GPa", Dimension::Stress, 1e3},
    Unit{"N/mm²", Dimension::Stress, 1.0},
    Unit{"psi", Dimension::Stress, kPoundForce_N / (kInch_mm * kInch_mm)},
    Unit{"kg", Dimension::Mass, 1.0},
    Unit{"g", Dimension::Mass, 1e-3},
    Unit{"mg", Dimension::Mass, 1e-6},
    Unit{"lb", Dimension::Mass, kPound_kg},
    Unit{"J", Dimension::Energy, 1.0},
    Unit{"mJ", Dimension::Energy, 1e-3},
    Unit{"ft·lbf", Dimension::Energy, kPoundForce_N * 0.3048},
    Unit{"MJ/m³", Dimension::EnergyDensity, 1.0},
    Unit{"in·lbf/in³", Dimension::EnergyDensity, kPoundForce_N / (kInch_mm * kInch_mm)},
    Unit{"kJ/m²", Dimension::EnergyPerArea, 1.0},
    Unit{"ft·lbf/in²", Dimension::EnergyPerArea, kPoundForce_N * 304.8 / (kInch_mm * kInch_mm)},
    Unit{"J/m", Dimension::EnergyPerLength, 1.0},
    Unit{"ft·lbf/in", Dimension::EnergyPerLength, kPoundForce_N * 12.0},
    Unit{"N/mm", Dimension::ForcePerLength, 1.0},
    Unit{"lbf/in", Dimension::ForcePerLength, kPoundForce_N / kInch_mm},
    Unit{"1/h", Dimension::PerTime, 1.0},
    Unit{"%/min", Dimension::StrainRate, 1.0},
    Unit{"1/s", Dimension::StrainRate, 6000.0},
    Unit{"K/h", Dimension::HeatingRate, 1.0},
    Unit{"°F/h", Dimension::HeatingRate, 5.0 / 9.0},
    Unit{"MPa/%", Dimension::StressPerPercent, 1.0},
    Unit{"psi/%", Dimension::StressPerPercent, kPoundForce_N / (kInch_mm * kInch_mm)},
    Unit{"g/cm³", Dimension::Density, 1.0},
    Unit{"kg/m³", Dimension::Density, 1e-3},
    Unit{"lb/in³", Dimension::Density, kPound_kg * 1e6 / (kInch_mm * kInch_mm * kInch_mm)},
};

/// Other spellings seen in files and typed by hand.
constexpr std::array<std::pair<std::string_view, std::string_view>, 80> kSpellings = {{
    {"KN", "kN"},         {"lb-f", "lbf"},
    {"gF", "gf"},         {"\"", "in"},
    {"um", "µm"},         {"\xCE\xBCm", "µm"},
    {"micron", "µm"},     {"g/cm3", "g/cm³"},
    {"g/cm^3", "g/cm³"},  {"mm^2", "mm²"},
    {"mm2", "mm²"},       {"cm^2", "cm²"},
    {"cm2", "cm²"},       {"in^2", "in²"},
    {"in2", "in²"},       {"kJ/m^2", "kJ/m²"},
    {"kJ/m2", "kJ/m²"},   {"m/m", "mm/mm"},
    {"in/in", "mm/mm"},   {"um/m", "µm/m"},
    {"µε", "µm/m"},       {"\xCE\xBC\xCE\xB5", "µm/m"},
    {"ue", "µm/m"},       {"microstrain", "µm/m"},
    {"mm / mm", "mm/mm"}, {"pct", "%"},
    {"msec", "ms"},       {"hr", "h"},
    {"degC", "°C"},       {"deg C", "°C"},
    {"C", "°C"},          {"\xE2\x84\x83", "°C"},
    {"degF", "°F"},       {"F", "°F"},
    {"Nm", "N·m"},        {"N*m", "N·m"},
    {"N.m", "N·m"},       {"N m", "N·m"},
    {"Ncm", "N·cm"},      {"N*cm", "N·cm"},
    {"N.cm", "N·cm"},     {"N cm", "N·cm"},
    {"Nmm", "N·mm"},      {"lbf*ft", "lbf·ft"},
    {"lbf.ft", "lbf·ft"}, {"lbf ft", "lbf·ft"},
    {"lbf-ft", "lbf·ft"}, {"lbf*in", "lbf·in"},
    {"lbf in", "lbf·in"}, {"lbf-in", "lbf·in"},
    {"°", "deg"},         {"degrees", "deg"},
    {"N/mm^2", "N/mm²"},  {"ft*lbf", "ft·lbf"},
    {"ft lbf", "ft·lbf"}, {"ft-lbf", "ft·lbf"},
    {"N/mm2", "N/mm²"},   {"oz", "ozf"}, // of a force gauge; no mass is read from a file in ounces
    {"us", "µs"},         {"usec", "µs"},
    {"\xCE\xBCs", "µs"},  {"micros", "µs"},
    {"millis", "ms"},     {"Н", "N"},
    {"кН", "kN"},         {"даН", "daN"},
    {"кгс", "kgf"},       {"мм", "mm"},
    {"см", "cm"},         {"мкм", "µm"},
    {"с", "s"},           {"сек", "s"},
    {"мс", "ms"},         {"мин", "min"},
    {"ч", "h"},           {"МПа", "MPa"},
    {"кПа", "kPa"},       {"ГПа", "GPa"},
    {"кг", "kg"},         {"град", "deg"},
}};

/// Words and symbols whose case does not count: no other unit differs from them by it alone.
constexpr std::array<std::pair<std::string_view, std::string_view>, 43> kInAnyCase = {{
    {"newton", "N"},        {"newtons", "N"},       {"kilonewton", "kN"},  {"kilonewtons", "kN"},
    {"dan", "daN"},         {"decanewton", "daN"},  {"kgf", "kgf"},        {"kp", "kgf"},
    {"kilopond", "kgf"},    {"lbf", "lbf"},         {"lbs", "lbf"},        {"pound-force", "lbf"},
    {"ounce-force", "ozf"}, {"ozf", "ozf"},         {"mm", "mm"},          {"millimeter", "mm"},
    {"millimeters", "mm"},  {"millimetre", "mm"},   {"millimetres", "mm"}, {"millimètre", "mm"},
    {"cm", "cm"},           {"centimeter", "cm"},   {"centimetre", "cm"},  {"in", "in"},
    {"inch", "in"},         {"inches", "in"},       {"micrometer", "µm"},  {"micrometre", "µm"},
    {"percent", "%"},       {"prozent", "%"},       {"sec", "s"},          {"secs", "s"},
    {"second", "s"},        {"seconds", "s"},       {"sekunden", "s"},     {"secondes", "s"},
    {"milliseconds", "ms"}, {"microseconds", "µs"}, {"minutes", "min"},    {"minuten", "min"},
    {"hours", "h"},         {"stunden", "h"},       {"heures", "h"},
}};

const Unit *findSymbol(std::string_view symbol)
{
    for (const Unit &unit : kUnits) {
        if (unit.symbol == symbol)
            return &unit;
    }
    return nullptr;
}

} // namespace

std::span<const Unit> allUnits()
{
    return kUnits;
}

std::optional<Unit> findUnit(std::string_view text)
{
    const std::string_view wanted = trimmed(text);
    if (const Unit *unit = findSymbol(wanted))
        return *unit;
    for (const auto &[spelling, symbol] : kSpellings) {
        if (spelling == wanted)
            return *findSymbol(symbol);
    }
    std::string lower(wanted);
    for (char &c : lower)
        c = c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
    for (const auto &[spelling, symbol] : kInAnyCase) {
        if (spelling == lower)
            return *findSymbol(symbol);
    }
    return std::nullopt;
}

Unit workingUnit(Dimension dimension)
{
    for (const Unit &unit : kUnits) {
        if (unit.dimension == dimension)
            return unit;
    }
    throw ContractViolation("dimension without a working unit");
}

std::string_view symbolInFiles(Dimension dimension)
{
    const bool isPlain =
        dimension == Dimension::Ratio || dimension == Dimension::Number || dimension == Dimension::Factor;
    return isPlain ? std::string_view() : workingUnit(dimension).symbol;
}

Dimension differenceOf(Dimension dimension)
{
    return dimension == Dimension::Temperature ? Dimension::TemperatureDifference : dimension;
}

std::string withUnit(std::string_view number, const Unit &unit)
{
    if (unit.dimension == Dimension::Number)
        return std::string(number);
    if (unit.dimension == Dimension::Factor)
        return fmt::format("× {}", number);
    return fmt::format("{} {}", number, unit.symbol);
}

std::string headingIn(std::string_view label, const Unit &unit)
{
    const bool isPlain = unit.dimension == Dimension::Number || unit.dimension == Dimension::Factor;
    return isPlain ? std::string(label) : fmt::format("{} in {}", label, unit.symbol);
}

std::string_view dimensionName(Dimension dimension)
{
    switch (dimension) {
    case Dimension::Force:
        return "force";
    case Dimension::Length:
        return "length";
    case Dimension::Area:
        return "area";
    case Dimension::Ratio:
        return "ratio";
    case Dimension::Time:
        return "time";
    case Dimension::Temperature:
        return "temperature";
    case Dimension::Torque:
        return "torque";
    case Dimension::Angle:
        return "angle";
    case Dimension::Stress:
        return "stress";
    case Dimension::Mass:
        return "mass";
    case Dimension::Energy:
        return "energy";
    case Dimension::EnergyDensity:
        return "energy per volume";
    case Dimension::Percent:
        return "percentage";
    case Dimension::Number:
        return "plain number";
    case Dimension::Factor:
        return "factor";
    case Dimension::TemperatureDifference:
        return "difference of temperatures";
    case Dimension::EnergyPerArea:
        return "energy per area";
    case Dimension::EnergyPerLength:
        return "energy per length";
    case Dimension::ForcePerLength:
        return "stiffness";
    case Dimension::PerTime:
        return "rate";
    case Dimension::StrainRate:
        return "strain rate";
    case Dimension::HeatingRate:
        return "heating rate";
    case Dimension::StressPerPercent:
        return "stress per percent";
    case Dimension::Density:
        return "density";
    }
    throw ContractViolation("unknown dimension");
}

Result<double> parseQuantity(std::string_view text, const Unit &fallback)
{
    const std::string_view whole = trimmed(text);
    const std::size_t numberEnd = numberPrefixLength(whole);
    const std::optional<double> number = parseTypedNumber(whole.substr(0, numberEnd));
    if (!number) {
        return invalidArgument(fmt::format("\"{}\" is not a number; write for example 10 {} or 10,5 {}",
                                           whole, fallback.symbol, fallback.symbol));
    }
    const std::string_view unitText = trimmed(whole.substr(numberEnd));
    if (unitText.empty())
        return fallback.toWorking(*number);
    const std::optional<Unit> unit = findUnit(unitText);
    if (!unit)
        return invalidArgument(
            fmt::format("unit \"{}\" in \"{}\" is not known; {} is wanted, for example in {}", unitText,
                        whole, withArticle(dimensionName(fallback.dimension)), fallback.symbol));
    if (unit->dimension != fallback.dimension) {
        for (const Unit &sameSymbol : kUnits) {
            if (sameSymbol.symbol == unit->symbol && sameSymbol.dimension == fallback.dimension)
                return sameSymbol.toWorking(*number);
        }
        return invalidArgument(fmt::format("\"{}\" is {}, but {} is wanted, for example in {}", whole,
                                           withArticle(dimensionName(unit->dimension)),
                                           withArticle(dimensionName(fallback.dimension)), fallback.symbol));
    }
    return unit->toWorking(*number);
}

} // namespace inchpeg
