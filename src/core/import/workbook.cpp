// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/workbook.h"

#include "core/import/spreadsheet/sheet.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::string_view kLocalHeader = "PK\x03\x04";
constexpr std::size_t kMostText = std::size_t{512} << 20U;

/// Columns that follow each other with a cell in each.
struct ColumnBlock {
    std::size_t first = 0;
    std::size_t last = 0;
    std::size_t numberRows = 0; ///< rows with a number in it
};

bool isNumber(std::string_view text)
{
    return readCell(text, {}).kind == CellKind::Number;
}

std::vector<ColumnBlock> blocksOf(const Sheet &sheet)
{
    std::vector<bool> filled;
    for (const auto &row : sheet.rows) {
        for (const SheetCell &cell : row) {
            if (cell.column >= filled.size())
                filled.resize(cell.column + 1, false);
            filled[cell.column] = true;
        }
    }
    std::vector<ColumnBlock> blocks;
    for (std::size_t c = 0; c < filled.size(); ++c) {
        if (filled[c] && (c == 0 || !filled[c - 1]))
            blocks.push_back({c, c, 0});
        if (filled[c])
            blocks.back().last = c;
    }
    for (ColumnBlock &block : blocks) {
        for (const auto &row : sheet.rows)
            block.numberRows += std::any_of(row.begin(), row.end(), [&](const SheetCell &cell) {
                return cell.column >= block.first && cell.column <= block.last && isNumber(cell.text);
            });
    }
    return blocks;
}

/// Notes beside a table: columns that an empty one parts from it, with far fewer rows of numbers.
void leaveNotesOut(Sheet &sheet)
{
    constexpr std::size_t kFewer = 4;
    const std::vector<ColumnBlock> blocks = blocksOf(sheet);
    const auto main =
        std::max_element(blocks.begin(), blocks.end(), [](const ColumnBlock &a, const ColumnBlock &b) {
            return a.numberRows < b.numberRows;
        });
    for (const ColumnBlock &block : blocks) {
        if (block.numberRows * kFewer > main->numberRows || block.first == main->first)
            continue;
        for (auto &row : sheet.rows)
            std::erase_if(row, [&](const SheetCell &cell) {
                return cell.column >= block.first && cell.column <= block.last;
            });
    }
}

void fillMerged(Sheet &sheet)
{
    for (const MergedCells &merged : sheet.merged) {
        const std::string text(textAt(sheet, merged.row, merged.column));
        for (std::size_t row = 1; row < merged.rows && merged.row + row < sheet.rows.size(); ++row) {
            if (textAt(sheet, merged.row + row, merged.column).empty())
                putCell(sheet, merged.row + row, merged.column, text);
        }
    }
}

/// False where the text would grow beyond the limit.
bool appendSheet(std::string &text, const Sheet &sheet)
{
    std::size_t firstColumn = kMostSheetColumns;
    for (const auto &row : sheet.rows) {
        if (!row.empty())
            firstColumn = std::min(firstColumn, row.front().column);
    }
    for (const auto &row : sheet.rows) {
        std::size_t column = firstColumn;
        for (const SheetCell &cell : row) {
            text.append(cell.column - column, '\t');
            column = cell.column;
            text += cell.text;
        }
        text += '\n';
        if (text.size() > kMostText)
            return false;
    }
    return true;
}

} // namespace

bool isWorkbook(std::string_view bytes)
{
    return bytes.starts_with(kLocalHeader);
}

std::optional<std::string> whatCannotBeRead(std::string_view bytes)
{
    if (bytes.starts_with("\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1"))
        return "the file is an old Excel workbook (.xls) or one with a password, which are not read; open it "
               "in "
               "a spreadsheet and save it as .xlsx, .ods or text (CSV)";
    if (bytes.starts_with("\x1F\x8B"))
        return "the file is compressed (gzip); unpack it, or save the sheet as .xlsx, .ods or text (CSV)";
    if (bytes.starts_with("%PDF"))
        return "the file is a PDF; export the readings as text (CSV) or as a workbook instead";
    return std::nullopt;
}

Result<WorkbookText> workbookText(std::string_view bytes)
{
    const Result<Archive> archive = Archive::open(bytes);
    if (!archive)
        return archive.error();
    if (archive->has("xl/workbook.bin"))
        return badInput(
            "the file is a binary Excel workbook (.xlsb), which is not read; open it in a spreadsheet "
            "and save it as .xlsx, .ods or text (CSV)");
    WorkbookText text;
    text.isOpenDocument = !archive->has("[Content_Types].xml") && archive->has("content.xml");
    if (!text.isOpenDocument && !archive->has("[Content_Types].xml") && !archive->has("xl/workbook.xml"))
        return badInput(
            "the file is an archive (ZIP) but no workbook (.xlsx, .ods); unpack it and take the files "
            "in it, or save the sheet as text (CSV)");
    Result<std::vector<Sheet>> sheets =
        text.isOpenDocument ? readOpenDocument(*archive) : readExcelWorkbook(*archive);
    if (!sheets)
        return badInput(
            fmt::format("the workbook cannot be read ({}); open it in a spreadsheet and save it anew, "
                        "or as text (CSV)",
                        sheets.error().message));
    if (sheets->empty())
        return badInput(
            "the workbook holds no sheet with cells; save the sheet with the record as text (CSV)");
    std::stable_partition(sheets->begin(), sheets->end(), [](const Sheet &sheet) { return !sheet.isHidden; });
    std::size_t line = 1;
    for (Sheet &sheet : *sheets) {
        fillMerged(sheet);
        leaveNotesOut(sheet);
        if (!text.sheets.empty()) {
            text.utf8 += kSheetMark;
            text.utf8 += '\n';
            ++line;
        }
        text.sheets.push_back({sheet.name, line});
        if (!appendSheet(text.utf8, sheet))
            return badInput(
                "the workbook is wider than 512 MB of text; save the sheet with the record as text (CSV)");
        line += sheet.rows.size();
    }
    return text;
}

} // namespace inchpeg
