// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/long_table.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

Group &groupNamed(std::vector<Group> &groups, const std::string &name)
{
    const auto found =
        std::find_if(groups.begin(), groups.end(), [&](const Group &group) { return group.name == name; });
    return found != groups.end() ? *found : groups.emplace_back(Group{name, {}});
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
        Group &group = groupNamed(out.groups, name);
        if ((*numbers)[r]) {
            group.values.push_back(*(*numbers)[r]);
            ++used;
        } else {
            ++out.dropped;
        }
    }
    if (used == 0)
        return badInput(fmt::format("no row holds a value in column \"{}\"", valueColumn));
    return out;
}

} // namespace inchpeg
