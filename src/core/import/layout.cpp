// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/layout.h"

#include "core/import/cells.h"
#include "core/import/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace inchpeg
{

namespace
{

constexpr std::size_t kSampledLines = 400;
/// A column counts as numeric when this share of its cells in the sampled rows are numbers.
constexpr double kNumericShare = 0.5;
/// A reading with one column only wins where no delimiter explains the rows.
constexpr double kSingleColumnWeight = 0.5;
/// Rows without a line of equally many cells above them are less likely to be split at the right mark.
constexpr double kNoHeadingWeight = 0.45;
/// How far above the first whole row a heading is looked for when the rows between are damaged.
constexpr std::size_t kDamagedRowsAbove = 5;

struct Line {
    std::size_t number = 0; ///< from 1
    std::string_view text;
};

std::vector<Line> sampleLines(std::string_view text)
{
    std::vector<Line> lines;
    std::size_t number = 0;
    while (!text.empty() && lines.size() < kSampledLines) {
        ++number;
        const std::string_view line = takeLine(text);
        if (!trimmedIsEmpty(line))
            lines.push_back({number, line});
    }
    return lines;
}

bool isNumberLike(CellKind kind)
{
    return kind == CellKind::Number || kind == CellKind::NotFinite;
}

/// One way to read the sample: a delimiter, a decimal mark, and what they make of each line.
struct Reading {
    char delimiter = ',';
    NumberFormat numbers;
    std::vector<std::vector<std::string_view>> cells;
    std::vector<std::vector<CellKind>> kinds;
    std::size_t columnCount = 0;
    double score = 0.0;
    std::size_t groupedCells = 0; ///< numbers that only digit grouping explains
    std::size_t plainNumbersWhereGrouped = 0;
};

std::size_t numberLikeCells(const std::vector<CellKind> &kinds)
{
    return static_cast<std::size_t>(std::count_if(kinds.begin(), kinds.end(), isNumberLike));
}

/// Whether the first row of so many cells is the first line, or follows a line of as many cells.
bool standsUnderItsHeading(const Reading &reading, std::size_t count)
{
    const auto firstRow = std::find_if(reading.kinds.begin(), reading.kinds.end(), [&](const auto &kinds) {
        return kinds.size() == count && numberLikeCells(kinds) > 0;
    });
    return firstRow == reading.kinds.begin() || firstRow == reading.kinds.end() ||
           std::prev(firstRow)->size() == count;
}

/// The commonest row length among lines with numbers, weighted by the share of their cells that are numbers.
void scoreReading(Reading &reading)
{
    std::map<std::size_t, double> weightOfCount;
    for (const auto &kinds : reading.kinds) {
        const std::size_t numbers = numberLikeCells(kinds);
        const auto filled = static_cast<std::size_t>(
            std::count_if(kinds.begin(), kinds.end(), [](CellKind kind) { return kind != CellKind::Empty; }));
        if (numbers > 0)
            weightOfCount[kinds.size()] += static_cast<double>(numbers) / static_cast<double>(filled);
    }
    for (const auto &[count, rows] : weightOfCount) {
        const double weight = rows * (standsUnderItsHeading(reading, count) ? 1.0 : kNoHeadingWeight);
        if (weight >= reading.score) {
            reading.score = weight;
            reading.columnCount = count;
        }
    }
    if (reading.columnCount == 1)
        reading.score *= kSingleColumnWeight;
}

/// Counts numbers that are read by grouping their digits ("1,234" as 1234), and those of three digits in the
/// same columns, which speak for grouping: a fixed number of decimals would show the mark there too.
void countGrouping(Reading &reading)
{
    const NumberFormat plain{reading.numbers.decimal, false, false};
    std::vector<bool> groupedColumn(reading.columnCount, false);
    for (std::size_t i = 0; i < reading.cells.size(); ++i) {
        if (reading.cells[i].size() != reading.columnCount)
            continue;
        for (std::size_t c = 0; c < reading.columnCount; ++c) {
            if (reading.kinds[i][c] == CellKind::Number &&
                readCell(reading.cells[i][c], plain).kind == CellKind::Text) {
                ++reading.groupedCells;
                groupedColumn[c] = true;
            }
        }
    }
    for (const auto &cells : reading.cells) {
        for (std::size_t c = 0; cells.size() == reading.columnCount && c < reading.columnCount; ++c) {
            const bool wholeNumber = cells[c].find_first_not_of("-0123456789") == std::string_view::npos;
            if (groupedColumn[c] && wholeNumber && cells[c].size() >= 3)
                ++reading.plainNumbersWhereGrouped;
        }
    }
}

Reading readSample(const std::vector<Line> &lines, char delimiter, char decimal)
{
    Reading reading;
    reading.delimiter = delimiter;
    reading.numbers = {decimal, true, delimiter != ' ' && delimiter != ','};
    for (const Line &line : lines) {
        std::vector<std::string_view> cells;
        splitCells(line.text, delimiter, cells);
        std::vector<CellKind> kinds;
        kinds.reserve(cells.size());
        for (std::string_view cell : cells)
            kinds.push_back(readCell(cell, reading.numbers).kind);
        reading.cells.push_back(std::move(cells));
        reading.kinds.push_back(std::move(kinds));
    }
    scoreReading(reading);
    countGrouping(reading);
    return reading;
}

/// On equal scores the reading that needs less digit grouping is the likelier one, unless numbers of three
/// digits without a mark stand in the same column.
bool isBetter(const Reading &candidate, const Reading &best)
{
    if (candidate.score != best.score)
        return candidate.score > best.score;
    if (candidate.delimiter != best.delimiter)
        return false;
    const bool candidateGroups = candidate.groupedCells > 0;
    const bool bestGroups = best.groupedCells > 0;
    if (candidateGroups && !bestGroups)
        return candidate.plainNumbersWhereGrouped > 0;
    if (!candidateGroups && bestGroups)
        return best.plainNumbersWhereGrouped == 0;
    return candidate.groupedCells < best.groupedCells;
}

Reading bestReading(const std::vector<Line> &lines)
{
    Reading best;
    for (char delimiter : {'\t', ';', ',', ' ', kNoDelimiter}) {
        for (char decimal : {'.', ','}) {
            Reading reading = readSample(lines, delimiter, decimal);
            if (isBetter(reading, best))
                best = std::move(reading);
        }
    }
    return best;
}

std::vector<bool> numericColumns(const Reading &reading)
{
    std::vector<std::size_t> numbers(reading.columnCount, 0);
    std::vector<std::size_t> filled(reading.columnCount, 0);
    for (const auto &kinds : reading.kinds) {
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

bool isHeadingLine(const Reading &reading, std::size_t i)
{
    const auto &kinds = reading.kinds[i];
    const bool anyText = std::find(kinds.begin(), kinds.end(), CellKind::Text) != kinds.end();
    return anyText && numberLikeCells(kinds) == 0 && kinds.size() <= reading.columnCount + 1 &&
           kinds.size() * 2 > reading.columnCount;
}

bool namesAQuantity(const Reading &reading, std::size_t i)
{
    return std::any_of(reading.cells[i].begin(), reading.cells[i].end(),
                       [](std::string_view cell) { return understandColumn(cell, {}).quantity.has_value(); });
}

bool isUnitsLine(const Reading &reading, std::size_t i)
{
    bool any = false;
    for (std::string_view cell : reading.cells[i]) {
        const std::string_view text = trimmed(cell);
        if (text.empty())
            continue;
        const bool bracketed = text.size() > 2 && (text.front() == '[' || text.front() == '(') &&
                               (text.back() == ']' || text.back() == ')');
        if (!bracketed && !findUnit(text))
            return false;
        any = true;
    }
    return any;
}

/// Index in the sample of the first data row. A heading further down that names quantities, where none above
/// does, restarts the search: what looked like rows before it was metadata made of numbers.
std::optional<std::size_t> firstDataRow(const Reading &reading)
{
    const std::vector<bool> numeric = numericColumns(reading);
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
               namesAQuantity(reading, i);
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
std::size_t rowAfterHeading(const Reading &reading, std::size_t first)
{
    for (std::size_t back = 1; back <= std::min(first, kDamagedRowsAbove); ++back) {
        const std::size_t i = first - back;
        if (isHeadingLine(reading, i) && reading.cells[i].size() == reading.columnCount)
            return back == 1 || namesAQuantity(reading, i) ? i + 1 : first;
        if (reading.cells[i].size() != reading.columnCount)
            return first;
    }
    return first;
}

std::vector<Column> understandColumns(const Reading &reading, const std::vector<std::string_view> *headings,
                                      const std::vector<std::string_view> *units)
{
    std::vector<Column> columns;
    for (std::size_t c = 0; c < reading.columnCount; ++c) {
        const bool named = headings != nullptr && c < headings->size() && !trimmed((*headings)[c]).empty();
        const std::string heading = named ? unquoted((*headings)[c]) : std::string();
        const std::string_view unit =
            units != nullptr && c < units->size() ? (*units)[c] : std::string_view();
        Column column = understandColumn(heading, unit);
        if (!named)
            column.name = fmt::format("column {}", c + 1);
        columns.push_back(std::move(column));
    }
    return columns;
}

} // namespace

Result<Layout> findLayout(std::string_view text)
{
    const std::vector<Line> lines = sampleLines(text);
    const Reading reading = bestReading(lines);
    const std::optional<std::size_t> wholeRow = firstDataRow(reading);
    if (reading.columnCount == 0 || !wholeRow) {
        return badInput(fmt::format("no data row: none of the first {} lines holds a row of numbers; "
                                    "a table with one row a reading is wanted",
                                    lines.size()));
    }
    const std::size_t first = rowAfterHeading(reading, *wholeRow);

    Layout layout;
    layout.delimiter = reading.delimiter;
    layout.numbers = reading.numbers;
    layout.headerLines = lines[first].number - 1;
    const std::vector<std::string_view> *headings = nullptr;
    const std::vector<std::string_view> *units = nullptr;
    std::size_t above = first;
    if (above > 0 && isHeadingLine(reading, above - 1) && isUnitsLine(reading, above - 1) && above > 1 &&
        isHeadingLine(reading, above - 2)) {
        --above;
        units = &reading.cells[above];
        layout.unitsLine = lines[above].number;
    }
    if (above > 0 && isHeadingLine(reading, above - 1)) {
        headings = &reading.cells[above - 1];
        layout.headingLine = lines[above - 1].number;
    }
    layout.columns = understandColumns(reading, headings, units);
    return layout;
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
