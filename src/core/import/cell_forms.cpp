// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/cell_forms.h"

#include "core/import/heading_words.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <string>

namespace inchpeg
{

namespace
{

/// A heading that names no quantity, and may stand over times of day.
bool mayNameClock(std::string_view heading)
{
    const std::string name = lowered(heading);
    constexpr std::array<std::string_view, 6> kClockWords = {"date",  "datum", "clock",
                                                             "stamp", "uhr",   "fecha"};
    return name.empty() || std::any_of(kClockWords.begin(), kClockWords.end(), [&](std::string_view word) {
               return name.find(word) != std::string::npos;
           });
}

} // namespace

std::optional<NumberWithUnit> numberWithUnit(std::string_view cell, const NumberFormat &numbers)
{
    const std::string_view text = trimmed(cell);
    const std::size_t lastDigit = text.find_last_of("0123456789");
    if (lastDigit == std::string_view::npos || lastDigit + 1 == text.size())
        return std::nullopt;
    // A unit may hold digits itself ("mm2"), so the first place behind which one stands counts.
    for (std::size_t at = text.find_first_of("0123456789"); at < text.size(); ++at) {
        const std::string_view unit = trimmed(text.substr(at + 1));
        if (at + 1 < text.size() && isDigit(text[at]) && !isDigit(text[at + 1]) &&
            text[at + 1] != numbers.decimal && findUnit(unit)) {
            const Cell number = readCell(text.substr(0, at + 1), numbers);
            if (number.kind == CellKind::Number)
                return NumberWithUnit{number.value, unit};
        }
    }
    return std::nullopt;
}

bool isNumberInOtherForm(std::string_view cell, const NumberFormat &numbers)
{
    const std::string_view text = trimmed(cell);
    if (text.empty() || !(isDigit(text.front()) || text.front() == '-' || text.front() == '+'))
        return false;
    return clockFormOf(std::span(&text, 1)).has_value() || numberWithUnit(text, numbers).has_value();
}

bool takeCellForm(Column &column, std::span<const std::string_view> cells, const NumberFormat &numbers,
                  std::span<const Column> others)
{
    if (const std::optional<ClockForm> clock = clockFormOf(cells)) {
        if (column.quantity ? *column.quantity != ColumnQuantity::Time : !mayNameClock(column.heading))
            return false;
        column.quantity = ColumnQuantity::Time;
        column.unit = workingUnit(Dimension::Time);
        column.unitAssumed = false;
        column.unknownUnitText.clear(); // "[hh:mm:ss]"
        column.question.clear();
        column.clock = clock;
        column.isFromFirstRow = true;
        const auto shown =
            std::find_if(cells.begin(), cells.end(), [](std::string_view c) { return !trimmed(c).empty(); });
        if (clock->orderMatters)
            column.question =
                fmt::format("\"{}\" in column \"{}\" may be day and month or month and day; write the "
                            "days as 2026-12-31",
                            trimmed(*shown), column.name);
        else if (clock->isTwoParts && column.name.find("mm:ss") != std::string::npos)
            column.clock->isMinutes = true;
        else if (clock->isTwoParts && column.name.find("hh:mm") == std::string::npos)
            column.question =
                fmt::format("\"{}\" in column \"{}\" may be hours and minutes or minutes and seconds; "
                            "write three parts (00:02:30), or name the column \"{} (mm:ss)\"",
                            trimmed(*shown), column.name, column.name);
        return true;
    }
    std::string_view unit;
    for (const std::string_view cell : cells) {
        if (trimmed(cell).empty())
            continue;
        const std::optional<NumberWithUnit> number = numberWithUnit(cell, numbers);
        if (!number)
            return false;
        if (unit.empty())
            unit = number->unit;
    }
    if (unit.empty())
        return false;
    takeCellUnit(column, unit, others);
    return true;
}

Cell readCellOf(const Column &column, std::string_view text, const NumberFormat &numbers)
{
    const Cell plain = readCell(text, numbers);
    if (plain.kind == CellKind::Empty || (!column.clock && column.cellUnit.empty()))
        return plain;
    if (column.clock) {
        const std::optional<double> seconds = clockSeconds(text, *column.clock);
        return seconds ? Cell{CellKind::Number, *seconds} : Cell{CellKind::Text};
    }
    const std::optional<NumberWithUnit> number = numberWithUnit(text, numbers);
    if (number && number->unit == column.cellUnit)
        return {CellKind::Number, number->value};
    return plain.kind == CellKind::Number && plain.value == 0.0 ? plain : Cell{CellKind::Text};
}

std::string otherFormMessage(const Column &column, std::string_view text, const NumberFormat &numbers)
{
    if (trimmed(text).starts_with('='))
        return fmt::format(
            "\"{}\" is a formula whose result the workbook does not hold; open it in a spreadsheet, let "
            "it be calculated, and save it",
            trimmed(text));
    if (column.clock)
        return fmt::format("\"{}\" is not a time as the other cells of the column are", trimmed(text));
    if (!column.cellUnit.empty() &&
        (numberWithUnit(text, numbers) || readCell(text, numbers).kind == CellKind::Number))
        return fmt::format("\"{}\" is not in {} as the cells above it are; use one unit in a column",
                           trimmed(text), column.cellUnit);
    if (const std::optional<NumberWithUnit> number = numberWithUnit(text, numbers))
        return fmt::format("\"{}\" has its unit in the cell where others have none; use one unit in a column",
                           trimmed(text));
    return {};
}

} // namespace inchpeg
