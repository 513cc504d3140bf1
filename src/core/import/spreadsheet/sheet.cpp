// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/sheet.h"

#include "core/units/number.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

void putCell(Sheet &sheet, std::size_t row, std::size_t column, std::string text)
{
    if (text.empty() || row >= kMostSheetRows || column >= kMostSheetColumns)
        return;
    for (char &c : text) { // a cell is one part of one line
        if (c == '\t' || c == '\n' || c == '\r' || c == '\f')
            c = ' ';
    }
    if (sheet.rows.size() <= row)
        sheet.rows.resize(row + 1);
    std::vector<SheetCell> &cells = sheet.rows[row];
    const auto place = std::partition_point(cells.begin(), cells.end(),
                                            [column](const SheetCell &cell) { return cell.column < column; });
    if (place != cells.end() && place->column == column)
        place->text = std::move(text);
    else
        cells.insert(place, {column, std::move(text)});
}

std::string_view textAt(const Sheet &sheet, std::size_t row, std::size_t column)
{
    if (row >= sheet.rows.size())
        return {};
    const std::vector<SheetCell> &cells = sheet.rows[row];
    const auto place = std::partition_point(cells.begin(), cells.end(),
                                            [column](const SheetCell &cell) { return cell.column < column; });
    return place != cells.end() && place->column == column ? std::string_view(place->text)
                                                           : std::string_view();
}

std::string percentText(std::string_view text)
{
    const Cell cell = readCell(text, {});
    // 15 digits are what a spreadsheet keeps: 0.1235 is shown as 12.35, not as 12.350000000000001
    return cell.kind == CellKind::Number ? fmt::format("{:.15g} %", 100.0 * cell.value) : std::string(text);
}

std::string_view unitBehindNumber(std::string_view shown)
{
    const std::string_view text = trimmed(shown);
    const std::size_t lastDigit = text.find_last_of("0123456789");
    if (lastDigit == std::string_view::npos)
        return {};
    const std::string_view unit = trimmed(text.substr(lastDigit + 1));
    return !unit.empty() && findUnit(unit) ? unit : std::string_view();
}

} // namespace inchpeg
