// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/column.h"

#include "core/import/heading_words.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <utility>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr std::array<std::pair<ColumnQuantity, std::string_view>, 9> kNames = {{
    {ColumnQuantity::Force, "force"},
    {ColumnQuantity::Extension, "extension"},
    {ColumnQuantity::Strain, "strain"},
    {ColumnQuantity::Time, "time"},
    {ColumnQuantity::Temperature, "temperature"},
    {ColumnQuantity::Torque, "torque"},
    {ColumnQuantity::Angle, "angle"},
    {ColumnQuantity::Length, "length"},
    {ColumnQuantity::Hardness, "hardness"},
}};

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
    case Dimension::StrainRate:
    case Dimension::HeatingRate:
    case Dimension::StressPerPercent:
    case Dimension::Density:
        return std::nullopt;
    }
    throw ContractViolation("unknown dimension");
}

/// What stands where a unit would, and says that there is none.
bool isNoUnit(std::string_view text)
{
    return text == "-" || text == "1" || text == "–";
}

/// A heading that is nothing but a unit ("kN", "mm"). A single letter may stand for anything, "min" for the
/// least value, "in" for what goes in, and a mere "%" for a share of anything; newtons are told by N.
bool isUnitAsName(std::string_view text)
{
    const std::optional<Unit> unit = findUnit(text);
    if (!unit || isNoUnit(text) || unit->dimension == Dimension::Ratio)
        return false;
    return text == "N" || (text.size() > 1 && text != "min" && text != "in");
}

/// "strain [mm]" is an extension and "displacement [%]" a strain: the unit is the surer witness there.
bool unitMayOverrule(ColumnQuantity named, Dimension dimension)
{
    const bool deformation = named == ColumnQuantity::Extension || named == ColumnQuantity::Strain;
    return deformation &&
           (dimension == Dimension::Length || dimension == Dimension::Ratio || dimension == Dimension::Angle);
}

struct Heading {
    std::string name;
    std::string_view unit;
    bool bracketed = false;
};

struct Bracket {
    std::size_t open = 0;
    std::size_t close = 0;
};

/// The pairs of brackets in a heading, the last one first. One that opens the heading is part of the name.
std::vector<Bracket> bracketsIn(std::string_view text)
{
    constexpr std::string_view kOpen = "([<{";
    constexpr std::string_view kClose = ")]>}";
    std::vector<Bracket> found;
    std::size_t before = text.size();
    while (before > 0) {
        const std::size_t close = text.find_last_of(kClose, before - 1);
        if (close == std::string_view::npos)
            break;
        const std::size_t open = text.rfind(kOpen[kClose.find(text[close])], close);
        if (open == std::string_view::npos || open == 0)
            break;
        if (close > open + 1)
            found.push_back({open, close});
        before = open;
    }
    return found;
}

constexpr std::string_view kMarks = " ._-:;/,|<>{}()[]=\t";

/// "in" and "min" are words as well as units: units only where marks, not blanks, set them apart.
bool isSetApart(std::string_view heading, std::size_t at, std::size_t end)
{
    constexpr std::string_view kApart = "._:/|<>{}()[]";
    const auto isApart = [&](std::size_t i) { return kApart.find(heading[i]) != std::string_view::npos; };
    return at > 0 && isApart(at - 1) && (end == heading.size() || isApart(end));
}

bool isUnitAndWord(std::string_view word)
{
    return word == "in" || word == "min";
}

struct UnitWord {
    std::string_view text;
    bool isCertain = true; ///< not a word of a sentence, "Extension in total"
};

/// A unit somewhere among the words of a heading that names a quantity, and of that quantity: "Force..kN.",
/// "Force_kN_filtered", "Load:kN", "kN Load". The first that is certain; else the first that may be one.
UnitWord unitAmongWords(std::string_view heading)
{
    const std::vector<HeadingMeaning> told = meaningsIn(heading);
    UnitWord perhaps;
    for (std::size_t at = heading.find_first_not_of(kMarks); at != std::string_view::npos;) {
        const std::size_t end = std::min(heading.find_first_of(kMarks, at), heading.size());
        const std::string_view word = heading.substr(at, end - at);
        const std::optional<Unit> unit = word.size() == heading.size() ? std::nullopt : findUnit(word);
        const bool fits = unit && std::any_of(told.begin(), told.end(), [&](const HeadingMeaning &one) {
                              return one.quantity && dimensionOf(*one.quantity) == unit->dimension;
                          });
        // A single letter may be the name itself: "F" is a force, and 1 °F.
        if (fits && (word.size() > 1 || meaningsIn(word).empty())) {
            if (!isUnitAndWord(word) || isSetApart(heading, at, end))
                return {word, true};
            perhaps = {word, false};
        }
        at = heading.find_first_not_of(kMarks, end);
    }
    return perhaps;
}

/// Takes the unit off a heading: "Force [N]", "Extension (gauge) (mm)", "force_N", "Force / N", "Force, N".
/// Of several brackets the last that holds a unit gives it; where none does, the last is told as an unknown
/// unit.
Heading splitHeading(std::string_view heading)
{
    const std::string_view text = trimmed(heading);
    const std::vector<Bracket> brackets = bracketsIn(text);
    for (const Bracket &bracket : brackets) {
        const std::string_view inside =
            trimmed(text.substr(bracket.open + 1, bracket.close - bracket.open - 1));
        if (!findUnit(inside) && !isNoUnit(inside))
            continue;
        std::string name(trimmed(text.substr(0, bracket.open)));
        if (const std::string_view behind = trimmed(text.substr(bracket.close + 1)); !behind.empty())
            name.append(" ").append(behind);
        return {std::move(name), inside, true};
    }
    // The first separator behind which a unit stands, so that a unit may hold one itself ("strain_mm/mm").
    for (std::size_t at = text.find_first_of("/,_ "); at != std::string_view::npos;
         at = text.find_first_of("/,_ ", at + 1)) {
        const std::string_view unit = trimmed(text.substr(at + 1));
        if (at > 0 && !isNoUnit(unit) && findUnit(unit))
            return {std::string(trimmed(text.substr(0, at))), unit, false};
    }
    if (!brackets.empty()) {
        const Bracket &last = brackets.front();
        return {std::string(trimmed(text.substr(0, last.open))),
                trimmed(text.substr(last.open + 1, last.close - last.open - 1)), true};
    }
    if (const UnitWord unit = unitAmongWords(text); !unit.text.empty() && unit.isCertain)
        return {std::string(text), unit.text, false};
    return {std::string(text), {}, false};
}

/// The first of a heading's brackets with a unit of the same dimension as this one, and another size.
std::optional<Unit> contradicting(std::string_view heading, const Unit &unit)
{
    const std::string_view text = trimmed(heading);
    for (const Bracket &bracket : bracketsIn(text)) {
        const std::optional<Unit> other =
            findUnit(trimmed(text.substr(bracket.open + 1, bracket.close - bracket.open - 1)));
        if (other && other->dimension == unit.dimension && !(*other == unit))
            return other;
    }
    return std::nullopt;
}

/// which: "N in its heading and kN in the row of units".
std::string twoUnitsQuestion(std::string_view name, std::string_view which)
{
    return fmt::format("column \"{}\" names two units, {}; which of them holds? Choose it, or mend the file",
                       name, which);
}

/// R writes "Strain...." for "Strain (%)": marks that are no letters are lost there, and a unit with them.
bool hasLostItsUnit(std::string_view heading)
{
    const std::string_view text = trimmed(heading);
    return text.size() > 2 && text.ends_with("..") && text.find('(') == std::string_view::npos;
}

/// Words of a heading that count time from somewhere else than the record's start.
bool saysOtherStart(std::string_view name)
{
    const std::string text = lowered(name);
    constexpr std::array<std::string_view, 6> kOtherStarts = {"timestamp", "unix",   "epoch",
                                                              "millis",    "micros", "uptime"};
    return std::any_of(kOtherStarts.begin(), kOtherStarts.end(),
                       [&](std::string_view word) { return text.find(word) != std::string::npos; });
}

/// Of the meanings that a name tells, the last that fits the unit; the last of all where none does.
HeadingMeaning meaningFor(const std::vector<HeadingMeaning> &told, const std::optional<Unit> &unit)
{
    const auto fits = std::find_if(told.rbegin(), told.rend(), [&](const HeadingMeaning &meaning) {
        return unit && meaning.quantity && dimensionOf(*meaning.quantity) == unit->dimension;
    });
    return fits != told.rend() ? *fits : told.empty() ? HeadingMeaning{} : told.back();
}

void settleUnit(Column &column, bool nameTells, std::string_view unitText, bool surelyUnit)
{
    const bool none = isNoUnit(unitText);
    const std::optional<Unit> unit = none ? std::nullopt : findUnit(unitText);
    if (unit && !nameTells)
        column.quantity = quantityOfUnit(unit->dimension);
    if (!column.quantity)
        return;
    if (unit && unitMayOverrule(*column.quantity, unit->dimension))
        column.quantity = quantityOfUnit(unit->dimension);
    if (unit && unit->dimension == dimensionOf(*column.quantity)) {
        column.unit = unit;
        return;
    }
    column.unit = workingUnit(dimensionOf(*column.quantity));
    if (none && *column.quantity == ColumnQuantity::Strain)
        return; // "-" is how a strain says that it is a fraction
    // "load_kg" is a weight: taken for newtons it would be wrong by a factor of ten without a word.
    const bool isMassOfLoad =
        unit && unit->dimension == Dimension::Mass && *column.quantity == ColumnQuantity::Force;
    if (!unitText.empty() && !none && (surelyUnit || isMassOfLoad))
        column.unknownUnitText = unitText;
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
    case ColumnQuantity::Hardness:
        return Dimension::Number;
    }
    throw ContractViolation("unknown column quantity");
}

std::string_view withoutBrackets(std::string_view text)
{
    const bool isBracketed = text.size() >= 2 && ((text.front() == '[' && text.back() == ']') ||
                                                  (text.front() == '(' && text.back() == ')'));
    return isBracketed ? trimmed(text.substr(1, text.size() - 2)) : text;
}

Column understandColumn(std::string_view heading, std::string_view unitCell)
{
    std::string_view unitText = withoutBrackets(trimmed(unitCell));
    bool surelyUnit = true;
    Heading split{std::string(trimmed(heading)), {}, false};
    if (unitText.empty()) {
        split = splitHeading(heading);
        unitText = split.unit;
        surelyUnit = split.bracketed;
    }
    std::vector<HeadingMeaning> told = meaningsIn(split.name);
    if (unitText.empty() && told.empty() && isUnitAsName(split.name))
        unitText = trimmed(heading);
    if (unitText.empty() && told.empty() && saysOtherStart(split.name))
        told.push_back({ColumnQuantity::Time});
    const HeadingMeaning meaning = meaningFor(told, findUnit(unitText));
    Column column;
    column.name = split.name;
    column.quantity = meaning.quantity;
    settleUnit(column, !told.empty(), unitText, surelyUnit);
    if (!column.quantity && !unitText.empty() && trimmed(unitCell).empty())
        column.name = trimmed(heading);
    const bool anyCrosshead =
        std::any_of(told.begin(), told.end(), [](const HeadingMeaning &one) { return one.isCrosshead; });
    column.isCrosshead = anyCrosshead && column.quantity == ColumnQuantity::Extension;
    column.isTransverse = column.quantity == ColumnQuantity::Strain && saysTransverse(split.name);
    column.isFromFirstRow = column.quantity == ColumnQuantity::Time && saysOtherStart(split.name);
    if (column.unit && !column.unitAssumed) {
        if (const std::optional<Unit> other = contradicting(heading, *column.unit))
            column.question = twoUnitsQuestion(
                column.name, trimmed(unitCell).empty()
                                 ? fmt::format("{} and {}", other->symbol, column.unit->symbol)
                                 : fmt::format("{} in brackets and {} in the row of units", other->symbol,
                                               column.unit->symbol));
    } else if (const UnitWord unit = unitAmongWords(heading);
               column.unitAssumed && column.unknownUnitText.empty() && !unit.text.empty() &&
               unit.text != "1") { // "hardness [1]", "reading 1": it is no unit that anybody mistakes
        column.question =
            fmt::format("\"{}\" in the name of column \"{}\" may be its unit or a word; choose the unit, or "
                        "write it in brackets",
                        unit.text, trimmed(heading));
    } else if (column.unitAssumed && column.unknownUnitText.empty() && hasLostItsUnit(heading)) {
        column.question =
            fmt::format("the unit of column \"{}\" was lost when its name was written (R puts dots "
                        "for brackets and %); choose it, or name it in the file",
                        trimmed(heading));
    }
    return column;
}

void takeCellUnit(Column &column, std::string_view cellUnit, std::span<const Column> others)
{
    column.cellUnit = cellUnit;
    const std::optional<Unit> unit = findUnit(cellUnit);
    if (!unit)
        return;
    const std::optional<ColumnQuantity> ofUnit = quantityOfUnit(unit->dimension);
    const bool isThere = std::any_of(others.begin(), others.end(),
                                     [&](const Column &other) { return other.quantity == ofUnit; });
    if (!column.quantity && !isThere && meaningsIn(column.name).empty())
        column.quantity = ofUnit;
    if (!column.quantity)
        return;
    if (unitMayOverrule(*column.quantity, unit->dimension) && column.unitAssumed)
        column.quantity = quantityOfUnit(unit->dimension);
    if (unit->dimension != dimensionOf(*column.quantity)) {
        column.unknownUnitText = cellUnit;
    } else if (!column.unit || column.unitAssumed || unit->dimension == Dimension::Ratio) {
        column.unit = unit;
        column.unitAssumed = false;
        column.unknownUnitText.clear();
        column.question.clear();
    } else if (!(*column.unit == *unit)) {
        column.question =
            twoUnitsQuestion(column.name, fmt::format("{} in its heading and {} behind its numbers",
                                                      column.unit->symbol, unit->symbol));
    }
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
