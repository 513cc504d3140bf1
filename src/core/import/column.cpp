// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/column.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <array>
#include <utility>

namespace inchpeg
{

namespace
{

struct WordMeaning {
    std::string_view word;
    ColumnQuantity quantity;
    bool isCrosshead = false;
};

/// Words in the headings of rig files (English, with the usual German ones); lower case.
constexpr std::array kWords = {
    WordMeaning{"force", ColumnQuantity::Force},
    WordMeaning{"load", ColumnQuantity::Force},
    WordMeaning{"kraft", ColumnQuantity::Force},
    WordMeaning{"f", ColumnQuantity::Force},
    WordMeaning{"extension", ColumnQuantity::Extension},
    WordMeaning{"ext", ColumnQuantity::Extension},
    WordMeaning{"elongation", ColumnQuantity::Extension},
    WordMeaning{"displacement", ColumnQuantity::Extension},
    WordMeaning{"disp", ColumnQuantity::Extension},
    WordMeaning{"deflection", ColumnQuantity::Extension},
    WordMeaning{"deformation", ColumnQuantity::Extension},
    WordMeaning{"weg", ColumnQuantity::Extension},
    WordMeaning{"travel", ColumnQuantity::Extension, true},
    WordMeaning{"position", ColumnQuantity::Extension, true},
    WordMeaning{"stroke", ColumnQuantity::Extension, true},
    WordMeaning{"crosshead", ColumnQuantity::Extension, true},
    WordMeaning{"traverse", ColumnQuantity::Extension, true},
    WordMeaning{"strain", ColumnQuantity::Strain},
    WordMeaning{"dehnung", ColumnQuantity::Strain},
    WordMeaning{"epsilon", ColumnQuantity::Strain},
    WordMeaning{"time", ColumnQuantity::Time},
    WordMeaning{"zeit", ColumnQuantity::Time},
    WordMeaning{"elapsed", ColumnQuantity::Time},
    WordMeaning{"t", ColumnQuantity::Time},
    WordMeaning{"temperature", ColumnQuantity::Temperature},
    WordMeaning{"temp", ColumnQuantity::Temperature},
    WordMeaning{"temperatur", ColumnQuantity::Temperature},
    WordMeaning{"torque", ColumnQuantity::Torque},
    WordMeaning{"moment", ColumnQuantity::Torque},
    WordMeaning{"drehmoment", ColumnQuantity::Torque},
    WordMeaning{"angle", ColumnQuantity::Angle},
    WordMeaning{"rotation", ColumnQuantity::Angle},
    WordMeaning{"twist", ColumnQuantity::Angle},
    WordMeaning{"winkel", ColumnQuantity::Angle},
    WordMeaning{"length", ColumnQuantity::Length},
    WordMeaning{"width", ColumnQuantity::Length},
    WordMeaning{"thickness", ColumnQuantity::Length},
    WordMeaning{"diameter", ColumnQuantity::Length},
};

constexpr std::array<std::pair<ColumnQuantity, std::string_view>, 8> kNames = {{
    {ColumnQuantity::Force, "force"},
    {ColumnQuantity::Extension, "extension"},
    {ColumnQuantity::Strain, "strain"},
    {ColumnQuantity::Time, "time"},
    {ColumnQuantity::Temperature, "temperature"},
    {ColumnQuantity::Torque, "torque"},
    {ColumnQuantity::Angle, "angle"},
    {ColumnQuantity::Length, "length"},
}};

bool isWordCharacter(char c)
{
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || static_cast<unsigned char>(c) >= 0x80;
}

std::string lowered(std::string_view text)
{
    std::string out(text);
    for (char &c : out) {
        if (c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
    }
    return out;
}

struct NameMeaning {
    std::optional<ColumnQuantity> quantity;
    bool isCrosshead = false;
};

/// The last telling word decides ("load cell temperature" is a temperature); a crosshead word anywhere
/// counts.
NameMeaning meaningOf(std::string_view name)
{
    const std::string text = lowered(name);
    NameMeaning meaning;
    for (std::size_t i = 0; i < text.size();) {
        if (!isWordCharacter(text[i])) {
            ++i;
            continue;
        }
        std::size_t end = i;
        while (end < text.size() && isWordCharacter(text[end]))
            ++end;
        const std::string_view word = std::string_view(text).substr(i, end - i);
        for (const WordMeaning &known : kWords) {
            if (known.word == word) {
                meaning.quantity = known.quantity;
                meaning.isCrosshead = meaning.isCrosshead || known.isCrosshead;
            }
        }
        i = end;
    }
    return meaning;
}

std::optional<ColumnQuantity> quantityOfUnit(Dimension dimension)
{
    switch (dimension) {
    case Dimension::Force:
        return ColumnQuantity::Force;
    case Dimension::Length:
        return ColumnQuantity::Extension;
    case Dimension::Ratio:
        return ColumnQuantity::Strain;
    case Dimension::Time:
        return ColumnQuantity::Time;
    case Dimension::Temperature:
        return ColumnQuantity::Temperature;
    case Dimension::Torque:
        return ColumnQuantity::Torque;
    case Dimension::Angle:
        return ColumnQuantity::Angle;
    case Dimension::Area:
    case Dimension::Stress:
    case Dimension::Mass:
    case Dimension::Energy:
    case Dimension::EnergyDensity:
    case Dimension::Percent:
    case Dimension::Number:
    case Dimension::Factor:
    case Dimension::TemperatureDifference:
    case Dimension::EnergyPerArea:
    case Dimension::EnergyPerLength:
    case Dimension::ForcePerLength:
    case Dimension::PerTime:
    case Dimension::HeatingRate:
    case Dimension::StressPerPercent:
        return std::nullopt;
    }
    throw ContractViolation("unknown dimension");
}

/// "strain [mm]" is an extension and "displacement [%]" a strain: the unit is the surer witness there.
bool unitMayOverrule(ColumnQuantity named, Dimension dimension)
{
    const bool deformation = named == ColumnQuantity::Extension || named == ColumnQuantity::Strain;
    return deformation &&
           (dimension == Dimension::Length || dimension == Dimension::Ratio || dimension == Dimension::Angle);
}

struct Heading {
    std::string_view name;
    std::string_view unit;
    bool bracketed = false;
};

/// Takes the unit off a heading: "Force [N]", "Force (N)", "force_N", "Force / N", "Force, N".
Heading splitHeading(std::string_view heading)
{
    const std::string_view text = trimmed(heading);
    for (const auto &[open, close] : {std::pair{'[', ']'}, std::pair{'(', ')'}}) {
        const std::size_t start = text.rfind(open);
        const std::size_t end = text.rfind(close);
        if (start != std::string_view::npos && end != std::string_view::npos && end > start + 1 && start > 0)
            return {trimmed(text.substr(0, start)), trimmed(text.substr(start + 1, end - start - 1)), true};
    }
    // The first separator behind which a unit stands, so that a unit may hold one itself ("strain_mm/mm").
    for (std::size_t at = text.find_first_of("/,_ "); at != std::string_view::npos;
         at = text.find_first_of("/,_ ", at + 1)) {
        const std::string_view unit = trimmed(text.substr(at + 1));
        if (at > 0 && unit != "-" && findUnit(unit))
            return {trimmed(text.substr(0, at)), unit, false};
    }
    return {text, {}, false};
}

void settleUnit(Column &column, std::string_view unitText, bool surelyUnit)
{
    const std::optional<Unit> unit = findUnit(unitText);
    if (unit && !column.quantity)
        column.quantity = quantityOfUnit(unit->dimension);
    if (!column.quantity)
        return;
    if (unit && unitMayOverrule(*column.quantity, unit->dimension))
        column.quantity = quantityOfUnit(unit->dimension);
    if (unit && unit->dimension == dimensionOf(*column.quantity)) {
        column.unit = unit;
        return;
    }
    if (!unitText.empty() && surelyUnit)
        column.unknownUnitText = unitText;
    column.unit = workingUnit(dimensionOf(*column.quantity));
    column.unitAssumed = true;
}

} // namespace

std::string_view quantityName(ColumnQuantity quantity)
{
    for (const auto &[known, name] : kNames) {
        if (known == quantity)
            return name;
    }
    throw ContractViolation("unknown column quantity");
}

std::optional<ColumnQuantity> quantityFromName(std::string_view name)
{
    for (const auto &[known, text] : kNames) {
        if (text == name)
            return known;
    }
    return std::nullopt;
}

Dimension dimensionOf(ColumnQuantity quantity)
{
    switch (quantity) {
    case ColumnQuantity::Force:
        return Dimension::Force;
    case ColumnQuantity::Extension:
    case ColumnQuantity::Length:
        return Dimension::Length;
    case ColumnQuantity::Strain:
        return Dimension::Ratio;
    case ColumnQuantity::Time:
        return Dimension::Time;
    case ColumnQuantity::Temperature:
        return Dimension::Temperature;
    case ColumnQuantity::Torque:
        return Dimension::Torque;
    case ColumnQuantity::Angle:
        return Dimension::Angle;
    }
    throw ContractViolation("unknown column quantity");
}

Column understandColumn(std::string_view heading, std::string_view unitCell)
{
    std::string_view unitText = trimmed(unitCell);
    for (const auto &[open, close] : {std::pair{'[', ']'}, std::pair{'(', ')'}}) {
        if (unitText.size() >= 2 && unitText.front() == open && unitText.back() == close)
            unitText = trimmed(unitText.substr(1, unitText.size() - 2));
    }
    bool surelyUnit = true;
    Heading split{trimmed(heading), {}, false};
    if (unitText.empty()) {
        split = splitHeading(heading);
        unitText = split.unit;
        surelyUnit = split.bracketed;
    }
    const NameMeaning meaning = meaningOf(split.name);
    Column column;
    column.name = split.name;
    column.quantity = meaning.quantity;
    settleUnit(column, unitText, surelyUnit);
    if (!column.quantity && !unitText.empty())
        column.name = trimmed(heading);
    column.isCrosshead = meaning.isCrosshead && column.quantity == ColumnQuantity::Extension;
    return column;
}

std::string unknownUnitMessage(const Column &column)
{
    require(column.quantity.has_value() && !column.unknownUnitText.empty(), "column without an unknown unit");
    const Dimension wanted = dimensionOf(*column.quantity);
    std::string known;
    for (const Unit &unit : allUnits()) {
        if (unit.dimension == wanted)
            known += (known.empty() ? "" : ", ") + std::string(unit.symbol);
    }
    const std::optional<Unit> other = findUnit(column.unknownUnitText);
    std::string hint;
    if (other && other->dimension == Dimension::Mass && wanted == Dimension::Force)
        hint = fmt::format("; a mass is no force: if {0} of force are meant, write {0}f", other->symbol);
    return fmt::format("unit \"{}\" of column \"{}\" is not a unit of {}; known are {}{}",
                       column.unknownUnitText, column.name, dimensionName(wanted), known, hint);
}

std::string unitAssumedMessage(const Column &column)
{
    require(column.unitAssumed && column.unit.has_value(), "column whose unit is known");
    return fmt::format("column \"{}\" names no unit: {} is taken", column.name, column.unit->symbol);
}

} // namespace inchpeg
