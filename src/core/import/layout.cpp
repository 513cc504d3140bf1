// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/layout.h"

#include "core/import/cell_forms.h"
#include "core/import/cells.h"
#include "core/import/heading_cells.h"
#include "core/import/layout_sample.h"
#include "core/import/summary_rows.h"
#include "core/import/table_parts.h"
#include "core/import/text.h"
#include "core/import/workbook.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// A column counts as numeric when this share of its cells in the sampled rows are numbers.
constexpr double kNumericShare = 0.5;
/// How far above the first whole row a heading is looked for when the rows between are damaged.
constexpr std::size_t kDamagedRowsAbove = 5;
/// Among the first lines.
constexpr std::size_t kLongestLine = std::size_t{1} << 20U;
/// More tables than any record has; what follows is not looked at.
constexpr std::size_t kMostTables = 200;

std::vector<bool> numericColumns(const SampleReading &reading)
{
    std::vector<std::size_t> numbers(reading.columnCount, 0);
    std::vector<std::size_t> filled(reading.columnCount, 0);
    for (std::size_t i = reading.firstRow; i < reading.kinds.size(); ++i) {
        const auto &kinds = reading.kinds[i];
        if (kinds.size() != reading.columnCount || numberLikeCells(kinds) == 0)
            continue;
        for (std::size_t c = 0; c < reading.columnCount; ++c) {
            numbers[c] += isNumberLike(kinds[c]) ? 1U : 0U;
            filled[c] += kinds[c] != CellKind::Empty ? 1U : 0U;
        }
    }
    std::vector<bool> numeric(reading.columnCount, false);
    for (std::size_t c = 0; c < reading.columnCount; ++c)
        numeric[c] = numbers[c] > 0 &&
                     static_cast<double>(numbers[c]) >= kNumericShare * static_cast<double>(filled[c]);
    return numeric;
}

/// Rows have numbers (or nothing) in every numeric column, and at least one number.
bool isDataRow(const std::vector<CellKind> &kinds, const std::vector<bool> &numeric)
{
    if (kinds.size() > numeric.size())
        return false;
    bool anyNumber = false;
    for (std::size_t c = 0; c < kinds.size(); ++c) {
        if (numeric[c] && kinds[c] == CellKind::Text)
            return false;
        anyNumber = anyNumber || (numeric[c] && isNumberLike(kinds[c]));
    }
    return anyNumber;
}

/// Index in the sample of the first data row. A heading further down that names quantities, where none above
/// does, restarts the search: what looked like rows before it was metadata made of numbers.
std::optional<std::size_t> firstDataRow(const SampleReading &reading, const std::vector<bool> &numeric)
{
    const auto nextRow = [&](std::size_t from) -> std::optional<std::size_t> {
        for (std::size_t i = from; i < reading.kinds.size(); ++i) {
            if (reading.kinds[i].size() == reading.columnCount && isDataRow(reading.kinds[i], numeric))
                return i;
        }
        return std::nullopt;
    };
    const std::optional<std::size_t> first = nextRow(0);
    if (!first)
        return std::nullopt;
    const auto namedHeading = [&](std::size_t i) {
        return reading.cells[i].size() == reading.columnCount && isHeadingLine(reading, i) &&
               namesAQuantity(reading.cells[i]);
    };
    for (std::size_t i = 0; i < *first; ++i) {
        if (namedHeading(i))
            return first;
    }
    for (std::size_t i = *first; i < reading.cells.size(); ++i) {
        if (namedHeading(i))
            return nextRow(i).value_or(*first);
    }
    return first;
}

/// A heading somewhat above the first whole row means that the rows between are damaged, not metadata;
/// starting right after the heading lets the reader of rows name the damage.
std::size_t rowAfterHeading(const SampleReading &reading, std::size_t first)
{
    for (std::size_t back = 1; back <= std::min(first, kDamagedRowsAbove); ++back) {
        const std::size_t i = first - back;
        if (isHeadingLine(reading, i) && reading.cells[i].size() == reading.columnCount)
            return back == 1 || namesAQuantity(reading.cells[i]) ? i + 1 : first;
        const bool isRowOfNumbers = numberLikeCells(reading.kinds[i]) > 0;
        if (reading.cells[i].size() != reading.columnCount && !isRowOfNumbers)
            return first;
    }
    return first;
}

/// A row whose numeric columns are all empty.
bool lacksItsValues(const std::vector<CellKind> &kinds, const std::vector<bool> &numeric)
{
    if (kinds.size() != numeric.size())
        return false;
    bool anyEmpty = false;
    for (std::size_t c = 0; c < kinds.size(); ++c) {
        if (numeric[c] && kinds[c] != CellKind::Empty)
            return false;
        anyEmpty = anyEmpty || numeric[c];
    }
    return anyEmpty;
}

/// Rows without their values stand above the first whole one, under a heading that names every column: they
/// are rows, and none of them is the heading.
std::size_t firstOfRowsWithoutValues(const SampleReading &reading, const std::vector<bool> &numeric,
                                     std::size_t first)
{
    std::size_t row = first;
    while (row > 0 && lacksItsValues(reading.kinds[row - 1], numeric))
        --row;
    const bool isUnderHeading = row > 0 && row < first &&
                                reading.kinds[row - 1].size() == reading.columnCount &&
                                std::all_of(reading.kinds[row - 1].begin(), reading.kinds[row - 1].end(),
                                            [](CellKind kind) { return kind == CellKind::Text; });
    return isUnderHeading ? row : first;
}

/// The lines of a sample that make one table.
struct TableLines {
    std::optional<std::size_t> heading;
    std::optional<std::size_t> units;
    std::size_t firstRow = 0;
    std::size_t columnCount = 0;
};

bool mayNameColumns(const SampleReading &reading, const std::vector<SampleLine> &lines, std::size_t i)
{
    return isHeadingLine(reading, i) || otherwiseNamesColumns(reading, lines, i);
}

/// A unit in each cell.
bool holdsUnitsOnly(const std::vector<std::string_view> &cells)
{
    return std::all_of(cells.begin(), cells.end(), [](std::string_view cell) {
        return findUnit(withoutBrackets(trimmed(unquoted(trimmed(cell))))).has_value();
    });
}

/// Over remarks that stand between the heading and the rows ("# begin"): fewer cells than a row, without a
/// number, under a line that names every column. row: the first one, or the units above it.
std::size_t overRemarks(const SampleReading &reading, const std::vector<SampleLine> &lines, std::size_t row)
{
    constexpr std::size_t kMost = 3;
    std::size_t at = row;
    const auto isRemark = [&](std::size_t i) {
        const bool isPlain = reading.cells[i].size() + 1 < reading.columnCount &&
                             std::all_of(reading.kinds[i].begin(), reading.kinds[i].end(),
                                         [](CellKind kind) { return kind == CellKind::Text; });
        return (isPlain || isMarkedRemark(reading, i, reading.columnCount)) &&
               !otherwiseNamesColumns(reading, lines, i);
    };
    while (at > 0 && row - at < kMost && isRemark(at - 1))
        --at;
    return at > 0 && at < row && reading.cells[at - 1].size() == reading.columnCount &&
                   mayNameColumns(reading, lines, at - 1)
               ? at
               : row;
}

/// Heading and units above the first row.
TableLines linesAbove(const SampleReading &reading, const std::vector<SampleLine> &lines,
                      std::size_t firstRow)
{
    TableLines table{{}, {}, firstRow, reading.columnCount};
    const auto isUnitsUnderHeading = [&](std::size_t i) {
        return i > 0 && reading.cells[i].size() <= reading.columnCount + 1 && isUnitsLine(reading.cells[i]) &&
               mayNameColumns(reading, lines, i - 1);
    };
    std::size_t above = overRemarks(reading, lines, firstRow);
    if (above > 0 && isUnitsUnderHeading(above - 1)) {
        --above;
        table.units = above;
    }
    if (above > 0 && mayNameColumns(reading, lines, above - 1))
        table.heading = above - 1;
    if (table.heading && !table.units && holdsUnitsOnly(reading.cells[*table.heading]))
        table.units = table.heading; // "mm;N" over the rows, and no names
    return table;
}

/// The sampled rows of a table that do not sum up others; indices into the sample.
std::vector<std::size_t> sampledRows(const SampleReading &reading, const TableLines &table)
{
    std::vector<std::size_t> rows;
    for (std::size_t i = table.firstRow; i < reading.cells.size(); ++i) {
        if (reading.cells[i].size() == table.columnCount &&
            summaryWordOf(reading.cells[i], reading.numbers) == SummaryWord::None)
            rows.push_back(i);
    }
    return rows;
}

std::vector<std::string_view> sampledCells(const SampleReading &reading, const std::vector<std::size_t> &rows,
                                           std::size_t column)
{
    std::vector<std::string_view> cells;
    for (const std::size_t row : rows)
        cells.push_back(reading.cells[row][column]);
    return cells;
}

/// A column that holds the same unit in each row, "kN", gives it to the column before it that names none,
/// else to the only one that it fits.
void takeUnitColumns(Layout &layout, const SampleReading &reading, const std::vector<std::size_t> &rows)
{
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        if (layout.columns[c].quantity)
            continue;
        const std::vector<std::string_view> cells = sampledCells(reading, rows, c);
        const std::optional<Unit> unit = cells.empty() ? std::nullopt : findUnit(cells.front());
        if (!unit || std::any_of(cells.begin(), cells.end(), [&](std::string_view cell) {
                return trimmed(cell) != trimmed(cells.front());
            }))
            continue;
        const auto fits = [&](const Column &column) {
            return column.quantity && column.unitAssumed && dimensionOf(*column.quantity) == unit->dimension;
        };
        const auto count = std::count_if(layout.columns.begin(), layout.columns.end(), fits);
        const auto only = c > 0 && fits(layout.columns[c - 1])
                              ? layout.columns.begin() + static_cast<std::ptrdiff_t>(c - 1)
                              : std::find_if(layout.columns.begin(), layout.columns.end(), fits);
        if (count == 0 || (count > 1 && !(c > 0 && fits(layout.columns[c - 1]))))
            continue;
        only->unit = unit;
        only->unitAssumed = false;
    }
}

void nameColumns(Layout &layout, const SampleReading &reading, const std::vector<SampleLine> &lines,
                 const TableLines &table)
{
    HeadingCells heading;
    if (table.heading)
        heading = headingCells(reading, lines, *table.heading, table.firstRow, table.columnCount);
    layout.hasRowNames = heading.hasRowNames;
    const bool fits = heading.fits(table.columnCount) || heading.names.empty();
    const bool isParted = reading.delimiter != ' ' && heading.names.size() > 1;
    const bool isHeading =
        isParted || std::any_of(heading.names.begin(), heading.names.end(), [](const std::string &name) {
            return understandColumn(name, {}).quantity.has_value();
        });
    if (!fits && isHeading)
        layout.question = fmt::format("the heading in line {} has {} names, but the rows have {} cells (line "
                                      "{}); look for a comma too many or "
                                      "too few, or name each column",
                                      lines[*table.heading].number, heading.names.size(), table.columnCount,
                                      lines[table.firstRow].number);
    for (std::size_t c = 0; c < table.columnCount; ++c) {
        const bool named = c < heading.names.size() && !heading.names[c].empty();
        const bool hasUnit = table.units && c < reading.cells[*table.units].size();
        Column column = understandColumn(named ? heading.names[c] : std::string(),
                                         hasUnit ? reading.cells[*table.units][c] : std::string_view());
        column.heading = named ? heading.names[c] : std::string();
        if (!named)
            column.name = c == 0 && heading.hasRowNames ? "row names" : fmt::format("column {}", c + 1);
        layout.columns.push_back(std::move(column));
    }
    // A heading that is wider than its rows: what it names beyond them is empty.
    for (std::size_t c = table.columnCount; c < heading.names.size() && !fits; ++c) {
        layout.emptyColumns.push_back(heading.names[c]);
    }
}

Layout layoutOf(const SampleReading &reading, const std::vector<SampleLine> &lines, const TableLines &table)
{
    Layout layout;
    layout.delimiter = reading.delimiter;
    layout.numbers = reading.numbers;
    layout.trailingDelimiter = reading.trailingDelimiter;
    layout.headerLines = lines[table.firstRow].number - 1;
    if (table.heading)
        layout.headingLine = lines[*table.heading].number;
    if (table.units)
        layout.unitsLine = lines[*table.units].number;
    nameColumns(layout, reading, lines, table);
    return layout;
}

/// A column without a quantity that holds text between its numbers: a remark that is sometimes a number.
bool isMixed(const std::vector<std::string_view> &cells, const NumberFormat &numbers)
{
    bool hasText = false;
    for (const std::string_view cell : cells) {
        const CellKind kind = readCell(cell, numbers).kind;
        if (hasText && kind == CellKind::Number)
            return true;
        hasText = hasText || kind == CellKind::Text;
    }
    return false;
}

/// What the cells of the main table's columns tell beyond their names.
void takeCells(Layout &layout, const SampleReading &reading, const TableLines &table,
               const std::vector<bool> &numeric)
{
    const std::vector<std::size_t> rows = sampledRows(reading, table);
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        Column &column = layout.columns[c];
        const std::vector<std::string_view> cells = sampledCells(reading, rows, c);
        column.isNumeric = numeric[c] && (column.quantity || !isMixed(cells, layout.numbers));
        const bool isPlain = std::any_of(cells.begin(), cells.end(), [&](std::string_view cell) {
            return isNumberLike(readCell(cell, layout.numbers).kind);
        });
        if (!isPlain)
            column.isNumeric = takeCellForm(column, cells, layout.numbers, layout.columns);
    }
    takeUnitColumns(layout, reading, rows);
}

/// A small table above the main one that begins at line i: a heading whose every cell has a name and one a
/// quantity, and below it, at once or after its units, a row with a number under each quantity.
std::optional<TableLines> smallTableAt(const SampleReading &reading, std::size_t i, std::size_t end)
{
    const auto &heading = reading.cells[i];
    const bool allNamed = std::all_of(reading.kinds[i].begin(), reading.kinds[i].end(),
                                      [](CellKind kind) { return kind == CellKind::Text; });
    if (heading.size() < 2 || !allNamed || !namesAQuantity(heading))
        return std::nullopt;
    TableLines table{i, {}, i + 1, heading.size()};
    if (table.firstRow < end && isUnitsLine(reading.cells[table.firstRow])) {
        table.units = table.firstRow;
        ++table.firstRow;
    }
    if (table.firstRow >= end || reading.kinds[table.firstRow].size() != heading.size())
        return std::nullopt;
    for (std::size_t c = 0; c < heading.size(); ++c) {
        const bool isReading = understandColumn(heading[c], {}).quantity.has_value();
        if (isReading && reading.kinds[table.firstRow][c] != CellKind::Number)
            return std::nullopt;
    }
    return table;
}

/// The tables of a sample in their order; the last is its main one.
Result<std::vector<Layout>> tablesOf(const std::vector<SampleLine> &lines)
{
    // A line is split in many ways until its table is understood; a table is long, not wide.
    for (const SampleLine &line : lines) {
        if (line.text.size() > kLongestLine)
            return badInput(
                fmt::format("the line holds {} characters, {} are read at most; a table with one row a "
                            "reading is wanted. Are the line ends missing?",
                            line.text.size(), kLongestLine),
                TextPosition{line.number, std::nullopt});
    }
    const SampleReading reading = bestReading(lines);
    const std::vector<bool> numeric = numericColumns(reading);
    const std::optional<std::size_t> wholeRow = firstDataRow(reading, numeric);
    if (reading.columnCount == 0 || !wholeRow) {
        return badInput(fmt::format("no data row: none of the first {} lines holds a row of numbers; "
                                    "a table with one row a reading is wanted",
                                    lines.size()));
    }
    const std::size_t firstRow = firstOfRowsWithoutValues(reading, numeric, *wholeRow);
    const TableLines main =
        linesAbove(reading, lines, firstRow == *wholeRow ? rowAfterHeading(reading, *wholeRow) : firstRow);
    std::vector<Layout> tables;
    const std::size_t end = main.heading.value_or(main.firstRow);
    for (std::size_t i = 0; i < end; ++i) {
        if (const std::optional<TableLines> small = smallTableAt(reading, i, end)) {
            tables.push_back(layoutOf(reading, lines, *small));
            i = small->firstRow;
        }
    }
    Layout layout = layoutOf(reading, lines, main);
    takeCells(layout, reading, main, numeric);
    tables.push_back(std::move(layout));
    return tables;
}

} // namespace

bool beginsAnotherTable(const std::vector<std::string_view> &cells, const Layout &layout)
{
    std::size_t filled = 0;
    for (std::size_t c = 0; c < cells.size(); ++c) {
        const CellKind kind = c < layout.columns.size()
                                  ? readCellOf(layout.columns[c], cells[c], layout.numbers).kind
                                  : readCell(cells[c], layout.numbers).kind;
        if (isNumberLike(kind))
            return false;
        filled += kind == CellKind::Text ? 1U : 0U;
    }
    if (filled < std::min<std::size_t>(2, layout.columns.size()))
        return false;
    const bool fillsAll =
        layout.delimiter != ' ' && filled == layout.columns.size() && cells.size() == filled;
    return (fillsAll && filled > 2) || namesAQuantity(cells);
}

std::optional<std::size_t> lineOfNextTable(std::string_view text, const Layout &layout)
{
    std::vector<std::string_view> cells;
    std::optional<std::size_t> heading;
    std::size_t line = 0;
    while (!text.empty()) {
        const std::string_view current = takeLine(text);
        if (++line <= layout.headerLines + 1 || trimmedIsEmpty(current))
            continue;
        if (!heading && current.front() == kSheetMark)
            heading = line;
        splitCells(current, layout.delimiter, cells);
        std::size_t numbers = 0;
        std::size_t filled = 0;
        for (std::string_view cell : cells) {
            const CellKind kind = readCell(cell, layout.numbers).kind;
            numbers += isNumberLike(kind) ? 1U : 0U;
            filled += kind != CellKind::Empty ? 1U : 0U;
        }
        if (heading && (numbers > 1 || (numbers > 0 && numbers == filled)))
            return heading;
        if (!heading && numbers == 0 && beginsAnotherTable(cells, layout))
            heading = line;
    }
    return std::nullopt;
}

Result<std::vector<Layout>> findTables(std::string_view text)
{
    std::vector<Layout> tables;
    std::size_t from = 0;
    while (tables.size() < kMostTables) {
        std::vector<SampleLine> lines = sampleLines(text, from);
        Result<std::vector<Layout>> found = tablesOf(lines);
        if (!found && tables.empty())
            return found.error();
        if (!found)
            break;
        std::optional<std::size_t> next = lineOfNextTable(text, found->back());
        // The sample may have held the head of the next table too: what lies before it is looked at alone.
        if (next && lines.back().number >= *next) {
            std::erase_if(lines, [&](const SampleLine &line) { return line.number >= *next; });
            if (Result<std::vector<Layout>> alone = lines.empty() ? found : tablesOf(lines)) {
                found = std::move(alone);
                next = lineOfNextTable(text, found->back());
            }
        }
        for (const Layout &table : *found) {
            for (Layout &part : specimensOf(text, table))
                tables.push_back(std::move(part));
        }
        if (!next || *next <= from)
            break;
        from = *next;
    }
    return tables;
}

Result<std::vector<Layout>> findFirstTables(std::string_view text)
{
    return tablesOf(sampleLines(text));
}

Result<Layout> findLayout(std::string_view text)
{
    Result<std::vector<Layout>> tables = findFirstTables(text);
    if (!tables)
        return tables.error();
    return std::move(tables->back());
}

Status checkColumns(const Layout &layout)
{
    if (!layout.question.empty())
        return badInput(layout.question, TextPosition{layout.headingLine.value_or(1), std::nullopt});
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        const Column &column = layout.columns[c];
        if (column.unknownUnitText.empty() && column.question.empty())
            continue;
        const std::optional<std::size_t> line = layout.unitsLine ? layout.unitsLine : layout.headingLine;
        return badInput(column.question.empty() ? unknownUnitMessage(column) : column.question,
                        TextPosition{line.value_or(1), c + 1});
    }
    return ok();
}

std::string layoutSignature(const Layout &layout)
{
    std::string signature = fmt::format("{}|{}", static_cast<int>(layout.delimiter), layout.numbers.decimal);
    for (const Column &column : layout.columns)
        signature += fmt::format("|{}[{}]", column.name,
                                 column.unit && !column.unitAssumed ? column.unit->symbol : "");
    return signature;
}

} // namespace inchpeg
