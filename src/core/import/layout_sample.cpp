// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/layout_sample.h"

#include "core/import/cell_forms.h"
#include "core/import/cells.h"
#include "core/import/column.h"
#include "core/import/text.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>

namespace inchpeg
{

namespace
{

constexpr std::size_t kSampledLines = 400;
/// A reading with one column only wins where no delimiter explains the rows.
constexpr double kSingleColumnWeight = 0.5;
/// Rows below a line of another number of cells are less likely to be split at the right mark …
constexpr double kNoHeadingWeight = 0.45;
/// … and rows below a line that names their quantities, cell by cell, are likelier.
constexpr double kNamedHeadingWeight = 2.0;
/// So many lines that are no rows do not end a run: damaged ones, a remark.
constexpr std::size_t kLongestGap = 3;

/// Rows of one number of cells that follow each other.
struct Run {
    std::size_t first = 0;
    std::size_t last = 0;
    double weight = 0.0; ///< the share of numbers in each row, added up
};

/// Takes one empty cell off the end of every line that has one, while all rows have one.
void dropTrailingDelimiter(SampleReading &reading)
{
    std::map<std::size_t, std::size_t> rowsOfCount;
    bool allEnd = true;
    for (const auto &kinds : reading.kinds) {
        if (numberLikeCells(kinds) < 1 || kinds.size() < 2)
            continue;
        ++rowsOfCount[kinds.size()];
    }
    const auto commonest = std::max_element(rowsOfCount.begin(), rowsOfCount.end(),
                                            [](auto a, auto b) { return a.second < b.second; });
    if (commonest == rowsOfCount.end() || reading.delimiter == ' ')
        return;
    for (const auto &kinds : reading.kinds) {
        if (kinds.size() == commonest->first && numberLikeCells(kinds) > 0)
            allEnd = allEnd && kinds.back() == CellKind::Empty;
    }
    // A column that is empty throughout, but has a name, is a column.
    for (std::size_t i = 0; i < reading.kinds.size() && allEnd; ++i) {
        if (reading.kinds[i].size() == commonest->first && numberLikeCells(reading.kinds[i]) == 0)
            allEnd = reading.kinds[i].back() == CellKind::Empty;
    }
    if (!allEnd)
        return;
    reading.trailingDelimiter = true;
    for (std::size_t i = 0; i < reading.kinds.size(); ++i) {
        if (reading.kinds[i].size() > 1 && reading.kinds[i].back() == CellKind::Empty) {
            reading.kinds[i].pop_back();
            reading.cells[i].pop_back();
        }
    }
}

/// The heaviest run of rows with so many cells.
Run longestRun(const SampleReading &reading, std::size_t count)
{
    Run best;
    std::optional<Run> run;
    const auto close = [&] {
        if (run && run->weight > best.weight)
            best = *run;
        run.reset();
    };
    for (std::size_t i = 0; i < reading.kinds.size(); ++i) {
        const auto &kinds = reading.kinds[i];
        const std::size_t numbers = numberLikeCells(kinds);
        const bool isHeading = numbers == 0 && kinds.size() == count && namesAQuantity(reading.cells[i]);
        if (run && (i - run->last > kLongestGap || isHeading))
            close();
        if (kinds.size() != count || numbers == 0)
            continue;
        const auto filled = static_cast<std::size_t>(
            std::count_if(kinds.begin(), kinds.end(), [](CellKind kind) { return kind != CellKind::Empty; }));
        if (!run)
            run = Run{i, i, 0.0};
        run->last = i;
        run->weight += static_cast<double>(numbers) / static_cast<double>(filled);
    }
    close();
    return best;
}

/// "Force, N": one column's name and its unit, which a comma parts as it would part two columns.
bool isNameAndUnit(const std::vector<std::string_view> &cells)
{
    if (cells.size() != 2)
        return false;
    const Column named = understandColumn(cells[0], cells[1]);
    return named.unit && !named.unitAssumed && understandColumn(cells[0], {}).quantity == named.quantity;
}

/// How well the lines above a run fit it, over remarks ("# begin").
double headingWeight(const SampleReading &reading, const Run &run, std::size_t count)
{
    if (run.first == 0)
        return 1.0;
    std::size_t above = run.first - 1;
    while (above > 0 && isMarkedRemark(reading, above, count))
        --above;
    if (above > 0 && reading.cells[above].size() == count && isUnitsLine(reading.cells[above]))
        --above;
    if (reading.cells[above].size() != count ||
        (reading.delimiter == ',' && isNameAndUnit(reading.cells[above])))
        return kNoHeadingWeight;
    return numberLikeCells(reading.kinds[above]) == 0 && namesAQuantity(reading.cells[above])
               ? kNamedHeadingWeight
               : 1.0;
}

void scoreReading(SampleReading &reading)
{
    std::set<std::size_t> counts;
    for (const auto &kinds : reading.kinds) {
        if (numberLikeCells(kinds) > 0)
            counts.insert(kinds.size());
    }
    for (const std::size_t count : counts) {
        const Run run = longestRun(reading, count);
        const double score = run.weight * headingWeight(reading, run, count);
        if (score >= reading.score) {
            reading.score = score;
            reading.columnCount = count;
            reading.firstRow = run.first;
        }
    }
    if (reading.columnCount == 1)
        reading.score *= kSingleColumnWeight;
}

/// Counts numbers that are read by grouping their digits ("1,234" as 1234), and those of three digits in the
/// same columns, which speak for grouping: a fixed number of decimals would show the mark there too.
void countGrouping(SampleReading &reading)
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

/// withForms: numbers with a unit behind them and times of day are numbers too.
SampleReading readSample(const std::vector<SampleLine> &lines, char delimiter, char decimal, bool withForms)
{
    SampleReading reading;
    reading.delimiter = delimiter;
    reading.numbers = {decimal, true, delimiter != ' ' && delimiter != ','};
    for (const SampleLine &line : lines) {
        std::vector<std::string_view> cells;
        splitCells(line.text, delimiter, cells);
        std::vector<CellKind> kinds;
        kinds.reserve(cells.size());
        for (std::string_view cell : cells) {
            const CellKind kind = readCell(cell, reading.numbers).kind;
            const bool isNumber =
                withForms && kind == CellKind::Text && isNumberInOtherForm(cell, reading.numbers);
            kinds.push_back(isNumber ? CellKind::Number : kind);
        }
        reading.cells.push_back(std::move(cells));
        reading.kinds.push_back(std::move(kinds));
    }
    dropTrailingDelimiter(reading);
    scoreReading(reading);
    countGrouping(reading);
    return reading;
}

/// On equal scores the reading that needs less digit grouping is the likelier one, unless numbers of three
/// digits without a mark stand in the same column.
bool isBetter(const SampleReading &candidate, const SampleReading &best)
{
    // Blanks split a tab file's rows as its tabs do; it is a tab file then, whatever its headings hold.
    const bool tabsDoTheSame = candidate.delimiter == ' ' && best.delimiter == '\t' && best.columnCount > 1 &&
                               candidate.columnCount == best.columnCount &&
                               candidate.numbers.decimal == best.numbers.decimal;
    if (tabsDoTheSame)
        return false;
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

/// A line drawn under a heading: "-----", "|---|---|", "=====  =====".
bool isRuler(std::string_view line)
{
    constexpr std::ptrdiff_t kFewest = 3;
    return line.find_first_not_of("-=+|: \t\r") == std::string_view::npos &&
           std::count_if(line.begin(), line.end(), [](char c) { return c == '-' || c == '='; }) >= kFewest;
}

} // namespace

std::vector<SampleLine> sampleLines(std::string_view text, std::size_t fromLine)
{
    std::vector<SampleLine> lines;
    std::size_t number = 0;
    while (!text.empty() && lines.size() < kSampledLines) {
        ++number;
        const std::string_view line = takeLine(text);
        if (number >= fromLine && !trimmedIsEmpty(line) && !isRuler(line))
            lines.push_back({number, line});
    }
    return lines;
}

namespace
{

SampleReading bestReading(const std::vector<SampleLine> &lines, bool withForms)
{
    const auto occurs = [&](char delimiter) {
        const std::string_view splits = delimiter == ' ' ? " \t" : std::string_view(&delimiter, 1);
        return std::any_of(lines.begin(), lines.end(), [splits](const SampleLine &line) {
            return line.text.find_first_of(splits) != std::string_view::npos;
        });
    };
    SampleReading best;
    bool isAbsentTried = false;
    for (char delimiter : {'\t', ';', ',', '|', ' ', kNoDelimiter}) {
        if (delimiter != kNoDelimiter && !occurs(delimiter)) {
            if (isAbsentTried)
                continue; // what splits no line reads as any other that splits none
            isAbsentTried = true;
        }
        for (char decimal : {'.', ','}) {
            SampleReading reading = readSample(lines, delimiter, decimal, withForms);
            if (isBetter(reading, best))
                best = std::move(reading);
        }
    }
    return best;
}

} // namespace

SampleReading bestReading(const std::vector<SampleLine> &lines)
{
    /// Plain numbers explain so large a share of the lines: nothing else is looked for.
    constexpr double kExplained = 0.7;
    /// Other forms must explain clearly more than a few numbers in what may be a head.
    constexpr double kMore = 1.5;
    SampleReading plain = bestReading(lines, false);
    if (plain.score >= kExplained * static_cast<double>(lines.size()))
        return plain;
    SampleReading other = bestReading(lines, true);
    return other.score > kMore * plain.score ? other : plain;
}

bool isNumberLike(CellKind kind)
{
    return kind == CellKind::Number || kind == CellKind::NotFinite;
}

std::size_t numberLikeCells(const std::vector<CellKind> &kinds)
{
    return static_cast<std::size_t>(std::count_if(kinds.begin(), kinds.end(), isNumberLike));
}

bool isMarkedRemark(const SampleReading &reading, std::size_t i, std::size_t count)
{
    const auto &cells = reading.cells[i];
    return !cells.empty() && cells.size() < count && numberLikeCells(reading.kinds[i]) == 0 &&
           !cells.front().empty() &&
           std::string_view("#%!/;").find(cells.front().front()) != std::string_view::npos;
}

bool isHeadingLine(const SampleReading &reading, std::size_t i)
{
    const auto &kinds = reading.kinds[i];
    const bool anyText = std::find(kinds.begin(), kinds.end(), CellKind::Text) != kinds.end();
    return anyText && numberLikeCells(kinds) == 0 && kinds.size() <= reading.columnCount + 1 &&
           kinds.size() * 2 > reading.columnCount;
}

bool namesAQuantity(const std::vector<std::string_view> &cells)
{
    return std::any_of(cells.begin(), cells.end(),
                       [](std::string_view cell) { return understandColumn(cell, {}).quantity.has_value(); });
}

bool isUnitsLine(const std::vector<std::string_view> &cells)
{
    bool any = false;
    for (std::string_view cell : cells) {
        const std::string_view text = trimmed(cell);
        const std::string_view inside = withoutBrackets(text);
        const bool isUnit = inside.size() != text.size() || findUnit(inside).has_value();
        if (!isUnit && !text.empty() && text != "-" && text != "1" && text != "–")
            return false;
        any = any || isUnit;
    }
    return any;
}

} // namespace inchpeg
