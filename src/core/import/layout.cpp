// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/layout.h"

#include "core/import/cells.h"
#include "core/import/layout_sample.h"
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
        if (reading.cells[i].size() != reading.columnCount)
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

/// The names in a heading that blanks have split too often, as many as there are columns: parted where two
/// blanks stand, or with a unit in brackets taken to the word before it. Nothing where neither helps.
std::vector<std::string> regroupedHeading(std::string_view line, std::size_t columnCount)
{
    std::vector<std::string> names;
    std::string_view rest = trimmed(line);
    while (!rest.empty()) {
        const std::size_t end = std::min(rest.find("  "), rest.find('\t'));
        names.emplace_back(trimmed(rest.substr(0, end)));
        rest = end == std::string_view::npos ? std::string_view() : trimmed(rest.substr(end));
    }
    if (names.size() == columnCount)
        return names;
    names.clear();
    std::vector<std::string_view> words;
    splitCells(line, ' ', words);
    bool isOpen = false;
    for (std::string_view word : words) {
        const bool starts = word.front() == '(' || word.front() == '[';
        if ((starts || isOpen) && !names.empty())
            names.back().append(" ").append(word);
        else
            names.emplace_back(word);
        isOpen = (isOpen || starts) && word.back() != ')' && word.back() != ']';
    }
    return names.size() == columnCount ? names : std::vector<std::string>();
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
    if (isHeadingLine(reading, i))
        return true;
    if (reading.delimiter != ' ' || reading.cells[i].size() <= reading.columnCount)
        return false;
    const std::vector<std::string> names = regroupedHeading(lines[i].text, reading.columnCount);
    return std::any_of(names.begin(), names.end(), [](const std::string &name) {
        return understandColumn(name, {}).quantity.has_value();
    });
}

/// A unit in each cell.
bool holdsUnitsOnly(const std::vector<std::string_view> &cells)
{
    return std::all_of(cells.begin(), cells.end(), [](std::string_view cell) {
        return findUnit(withoutBrackets(trimmed(unquoted(trimmed(cell))))).has_value();
    });
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
    std::size_t above = firstRow;
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

std::vector<Column> understandColumns(const SampleReading &reading, const std::vector<SampleLine> &lines,
                                      const TableLines &table)
{
    std::vector<std::string> headings;
    if (table.heading) {
        for (std::string_view cell : reading.cells[*table.heading])
            headings.push_back(unquoted(trimmed(cell)));
        if (reading.delimiter == ' ' && headings.size() != table.columnCount) {
            const std::vector<std::string> regrouped =
                regroupedHeading(lines[*table.heading].text, table.columnCount);
            if (!regrouped.empty())
                headings = regrouped;
        }
    }
    std::vector<Column> columns;
    for (std::size_t c = 0; c < table.columnCount; ++c) {
        const bool named = c < headings.size() && !headings[c].empty();
        const bool hasUnit = table.units && c < reading.cells[*table.units].size();
        Column column = understandColumn(named ? headings[c] : std::string(),
                                         hasUnit ? reading.cells[*table.units][c] : std::string_view());
        if (!named)
            column.name = fmt::format("column {}", c + 1);
        columns.push_back(std::move(column));
    }
    return columns;
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
    layout.columns = understandColumns(reading, lines, table);
    return layout;
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
    for (std::size_t c = 0; c < layout.columns.size(); ++c)
        layout.columns[c].isNumeric = numeric[c];
    tables.push_back(std::move(layout));
    return tables;
}

} // namespace

bool beginsAnotherTable(const std::vector<std::string_view> &cells, const Layout &layout)
{
    std::size_t filled = 0;
    for (std::string_view cell : cells) {
        const CellKind kind = readCell(cell, layout.numbers).kind;
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
        tables.insert(tables.end(), found->begin(), found->end());
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

Status checkUnits(const Layout &layout)
{
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        const Column &column = layout.columns[c];
        if (column.unknownUnitText.empty())
            continue;
        const std::optional<std::size_t> line = layout.unitsLine ? layout.unitsLine : layout.headingLine;
        return badInput(unknownUnitMessage(column), TextPosition{line.value_or(1), c + 1});
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
