// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/heading_cells.h"

#include "core/import/cells.h"
#include "core/import/column.h"
#include "core/import/heading_words.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

/// A heading that a program wrote as a comment, without its mark.
std::string_view withoutCommentMark(std::string_view line)
{
    std::string_view text = trimmed(line);
    if (text.empty() || std::string_view("#%!").find(text.front()) == std::string_view::npos || text == "%")
        return text.starts_with("//") ? trimmed(text.substr(2)) : line;
    // "% strain" may be a name; "%strain" or "% time force" is a comment. A lone share stays as it is.
    text.remove_prefix(std::min(text.find_first_not_of("#%!"), text.size()));
    return trimmed(text);
}

std::vector<std::string> split(std::string_view line, char delimiter)
{
    std::vector<std::string_view> cells;
    splitCells(line, delimiter, cells);
    std::vector<std::string> names;
    for (const std::string_view cell : cells)
        names.push_back(unquoted(trimmed(cell)));
    return names;
}

std::vector<std::string> withoutEmptyEnd(std::vector<std::string> names, std::size_t columns)
{
    while (names.size() > columns && names.back().empty())
        names.pop_back();
    return names;
}

/// The names in a heading that blanks have split too often, as many as there are columns: parted where two
/// blanks stand, or with a unit, in brackets or not, taken to the word before it. Nothing where none of it
/// helps.
std::vector<std::string> regrouped(std::string_view line, std::size_t columnCount)
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
    if (names.size() == columnCount)
        return names;
    names.clear(); // "Time s Force N": a unit behind each name
    for (std::size_t i = 0; i + 1 < words.size() && words.size() == 2 * columnCount; i += 2) {
        if (!findUnit(words[i + 1]))
            return {};
        names.push_back(fmt::format("{} {}", words[i], words[i + 1]));
    }
    return names;
}

/// The first cells of the rows are text, or count them: what a program writes in front of rows.
bool firstCellsNameRows(const SampleReading &reading, std::size_t firstRow, std::size_t columnCount)
{
    std::optional<double> last;
    std::size_t rows = 0;
    for (std::size_t i = firstRow; i < reading.cells.size(); ++i) {
        if (reading.cells[i].size() != columnCount || numberLikeCells(reading.kinds[i]) == 0)
            continue;
        const Cell first = readCell(reading.cells[i].front(), reading.numbers);
        if (first.kind == CellKind::Number) {
            const bool counts = std::floor(first.value) == first.value &&
                                (!last || first.value == *last + 1.0) &&
                                (last || first.value == 0.0 || first.value == 1.0);
            if (!counts)
                return false;
            last = first.value;
        } else if (first.kind == CellKind::Empty) {
            return false;
        }
        ++rows;
    }
    return rows > 0;
}

/// A heading that names the counting column itself, so that another one lacks its name.
bool countsRows(std::string_view name)
{
    const std::string word = lowered(trimmed(name));
    constexpr std::array<std::string_view, 14> kCounting = {
        "no", "no.", "nr", "nr.", "#", "id", "index", "n", "row", "i", "pos", "number", "num", "sample"};
    return std::find(kCounting.begin(), kCounting.end(), word) != kCounting.end();
}

/// A first name that is a time, over first cells that count: seconds or rows, nobody can tell.
bool countsTime(std::string_view name, const SampleReading &reading, std::size_t firstRow)
{
    return understandColumn(name, {}).quantity == ColumnQuantity::Time &&
           readCell(reading.cells[firstRow].front(), reading.numbers).kind == CellKind::Number;
}

bool anyQuantity(const std::vector<std::string> &names)
{
    return std::any_of(names.begin(), names.end(), [](const std::string &name) {
        return understandColumn(name, {}).quantity.has_value();
    });
}

bool anyNumber(const std::vector<std::string> &names, const NumberFormat &numbers)
{
    return std::any_of(names.begin(), names.end(),
                       [&](const std::string &name) { return isNumberLike(readCell(name, numbers).kind); });
}

constexpr std::string_view kOtherDelimiters = "\t;,|";

} // namespace

HeadingCells headingCells(const SampleReading &reading, const std::vector<SampleLine> &lines,
                          std::size_t heading, std::size_t firstRow, std::size_t columnCount)
{
    const std::string_view line = lines[heading].text;
    // The sample's own split first: an empty last column has been dropped there.
    std::vector<std::string> asSplit;
    for (std::string_view cell : reading.cells[heading])
        asSplit.push_back(unquoted(trimmed(cell)));
    const std::string_view unmarked = withoutCommentMark(line);
    const bool isMarked = unmarked.data() != line.data() || unmarked.size() != line.size();
    const bool marked = isMarked && trimmed(line).size() != unmarked.size();
    std::vector<std::string> names =
        withoutEmptyEnd(marked ? split(unmarked, reading.delimiter) : std::move(asSplit), columnCount);
    if (names.size() == columnCount)
        return {std::move(names), false};
    if (marked) { // "%" may be a column's whole name, and "#" that of a column that counts
        std::vector<std::string> plain = withoutEmptyEnd(split(line, reading.delimiter), columnCount);
        if (plain.size() == columnCount)
            return {std::move(plain), false};
    }
    const auto named = [&](std::size_t count) -> std::vector<std::string> {
        if (names.size() == count)
            return names;
        if (reading.delimiter == ' ') {
            if (std::vector<std::string> joined = regrouped(unmarked, count); !joined.empty())
                return joined;
        }
        if (names.size() > 1)
            return {}; // it is parted as the rows are
        for (const char other : kOtherDelimiters) {
            std::vector<std::string> parts = withoutEmptyEnd(split(unmarked, other), count);
            if (other != reading.delimiter && parts.size() == count && count > 1)
                return parts;
        }
        std::vector<std::string> parts = split(unmarked, ' ');
        if (parts.size() != count)
            parts = regrouped(unmarked, count);
        return parts.size() == count && count > 1 && anyQuantity(parts) ? parts : std::vector<std::string>();
    };
    if (std::vector<std::string> whole = named(columnCount); !whole.empty())
        return {std::move(whole), false};
    const bool isQuoted = trimmed(lines[firstRow].text).starts_with('"');
    const bool mayHaveRowNames =
        columnCount > 1 && !names.empty() && !countsRows(names.front()) &&
        (isQuoted || reading.delimiter == ' ' || !countsTime(names.front(), reading, firstRow)) &&
        firstCellsNameRows(reading, firstRow, columnCount);
    if (mayHaveRowNames) {
        if (std::vector<std::string> fewer = named(columnCount - 1); !fewer.empty()) {
            fewer.insert(fewer.begin(), std::string());
            return {std::move(fewer), true};
        }
    }
    return {std::move(names), false};
}

bool otherwiseNamesColumns(const SampleReading &reading, const std::vector<SampleLine> &lines, std::size_t i)
{
    const std::string_view line = withoutCommentMark(lines[i].text);
    if (reading.delimiter != ' ' && split(line, reading.delimiter).size() > 1)
        return false;
    for (const char delimiter : kOtherDelimiters) {
        const std::vector<std::string> parts = split(line, delimiter);
        if (parts.size() > 1 && parts.size() <= reading.columnCount + 1 && anyQuantity(parts) &&
            !anyNumber(parts, reading.numbers))
            return true;
    }
    const std::vector<std::string> words = split(line, ' ');
    if (reading.delimiter != ' ')
        return words.size() == reading.columnCount && words.size() > 1 && anyQuantity(words) &&
               !anyNumber(words, reading.numbers);
    return anyQuantity(regrouped(line, reading.columnCount)) ||
           (reading.columnCount > 2 && anyQuantity(regrouped(line, reading.columnCount - 1)));
}

} // namespace inchpeg
