// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/import/table.h"
#include "core/stats/summary.h"

#include <cstddef>
#include <optional>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The values of a table with one row a specimen, by group.
struct GroupedValues {
    std::vector<Group> groups; ///< in order of first appearance; a group may be empty
    std::size_t dropped = 0;   ///< rows without a value or without a group
};

/// Groups the numbers of one column by the texts of another; without a group column all are one group.
/// Errors: as findColumn() and numbersOf(); BadInput where no row holds a value.
Result<GroupedValues> groupValues(const TextTable &table, std::string_view valueColumn,
                                  std::optional<std::string_view> groupColumn);

} // namespace inchpeg
