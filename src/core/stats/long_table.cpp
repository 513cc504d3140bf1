// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/long_table.h"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// Where the group of that name stands; it is added where there is none yet.
std::size_t placeOfGroup(GroupedValues &values, const std::string &name)
{
    const auto found = std::find_if(values.groups.begin(), values.groups.end(),
                                    [&](const Group &group) { return group.name == name; });
    if (found != values.groups.end())
        return static_cast<std::size_t>(found - values.groups.begin());
    values.groups.push_back({name, {}});
    values.rows.emplace_back();
    return values.groups.size() - 1;
}

Error noValueIn(std::string_view column)
{
    return badInput(fmt::format("no row holds a value in column \"{}\"", column));
}

} // namespace

Result<GroupedValues> groupValues(const TextTable &table, std::string_view valueColumn,
                                  std::optional<std::string_view> groupColumn)
{
    const Result<std::size_t> valueAt = findColumn(table, valueColumn);
    if (!valueAt)
        return valueAt.error();
    std::optional<std::size_t> groupAt;
    if (groupColumn) {
        const Result<std::size_t> found = findColumn(table, *groupColumn);
        if (!found)
            return found.error();
        groupAt = *found;
    }
    const Result<std::vector<std::optional<double>>> numbers = numbersOf(table, *valueAt);
    if (!numbers)
        return numbers.error();

    GroupedValues out;
    std::size_t used = 0;
    for (std::size_t r = 0; r < numbers->size(); ++r) {
        const std::string name = groupAt ? table.rows[r][*groupAt] : std::string();
        if (groupAt && name.empty()) {
            ++out.dropped;
            continue;
        }
        const std::size_t place = placeOfGroup(out, name);
        if ((*numbers)[r]) {
            out.groups[place].values.push_back(*(*numbers)[r]);
            out.rows[place].push_back(r);
            ++used;
        } else {
            ++out.dropped;
        }
    }
    if (used == 0)
        return noValueIn(valueColumn);
    return out;
}

Result<GroupedBounds> groupBounds(const TextTable &table, std::string_view valueColumn,
                                  std::optional<std::string_view> boundColumn,
                                  std::optional<std::string_view> groupColumn)
{
    const Result<GroupedValues> values = groupValues(table, valueColumn, groupColumn);
    if (!values)
        return values.error();
    std::vector<std::optional<double>> flags(table.rows.size(), 0.0);
    if (boundColumn) {
        const Result<std::size_t> boundAt = findColumn(table, *boundColumn);
        if (!boundAt)
            return boundAt.error();
        Result<std::vector<std::optional<double>>> numbers = numbersOf(table, *boundAt);
        if (!numbers)
            return numbers.error();
        flags = std::move(*numbers);
    }
    GroupedBounds out;
    out.dropped = values->dropped;
    bool anyValue = false;
    for (std::size_t g = 0; g < values->groups.size(); ++g) {
        BoundedGroup group{values->groups[g].name, {}};
        std::vector<std::size_t> lines;
        for (std::size_t i = 0; i < values->rows[g].size(); ++i) {
            const std::optional<double> &flag = flags[values->rows[g][i]];
            if (!flag) {
                ++out.dropped;
                continue;
            }
            const std::size_t line = table.lines[values->rows[g][i]];
            const Result<bool> isBound = flagOf(*flag, boundColumn.value_or(""), line);
            if (!isBound)
                return isBound.error();
            group.values.push_back({values->groups[g].values[i], *isBound});
            lines.push_back(line);
            anyValue = true;
        }
        out.groups.push_back(std::move(group));
        out.lines.push_back(std::move(lines));
    }
    if (!anyValue)
        return noValueIn(valueColumn);
    return out;
}

Result<CompleteRows> completeRows(const TextTable &table, std::span<const std::string> numberColumns,
                                  std::span<const std::string> textColumns)
{
    std::vector<std::vector<std::optional<double>>> numbers;
    for (const std::string &column : numberColumns) {
        const Result<std::size_t> at = findColumn(table, column);
        if (!at)
            return at.error();
        Result<std::vector<std::optional<double>>> read = numbersOf(table, *at);
        if (!read)
            return read.error();
        numbers.push_back(std::move(*read));
    }
    std::vector<std::size_t> textAt;
    for (const std::string &column : textColumns) {
        const Result<std::size_t> at = findColumn(table, column);
        if (!at)
            return at.error();
        textAt.push_back(*at);
    }
    CompleteRows out;
    out.numbers.resize(numbers.size());
    out.texts.resize(textAt.size());
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const bool complete = std::all_of(numbers.begin(), numbers.end(),
                                          [r](const auto &column) { return column[r].has_value(); }) &&
                              std::none_of(textAt.begin(), textAt.end(),
                                           [&](std::size_t column) { return table.rows[r][column].empty(); });
        if (!complete) {
            ++out.dropped;
            continue;
        }
        out.lines.push_back(table.lines[r]);
        for (std::size_t c = 0; c < numbers.size(); ++c)
            out.numbers[c].push_back(*numbers[c][r]);
        for (std::size_t c = 0; c < textAt.size(); ++c)
            out.texts[c].push_back(table.rows[r][textAt[c]]);
    }
    if (out.lines.empty()) {
        std::vector<std::string> columns(numberColumns.begin(), numberColumns.end());
        columns.insert(columns.end(), textColumns.begin(), textColumns.end());
        return badInput(
            fmt::format("no row holds a value in each of the wanted columns, {}", fmt::join(columns, ", ")));
    }
    return out;
}

Result<bool> flagOf(double value, std::string_view column, std::size_t line)
{
    if (value != 0.0 && value != 1.0)
        return badInput(fmt::format("column \"{}\" holds {:g}; 0 or 1 is wanted", column, value),
                        TextPosition{line, std::nullopt});
    return value == 1.0;
}

} // namespace inchpeg
