// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/import/table.h"
#include "core/stats/summary.h"
#include "core/stats/survival.h"

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The values of a table with one row a specimen, by group.
struct GroupedValues {
    std::vector<Group> groups;                  ///< in order of first appearance; a group may be empty
    std::vector<std::vector<std::size_t>> rows; ///< of each group's values: data rows of the table, from 0
    std::size_t dropped = 0;                    ///< rows without a value or without a group
};

/// Groups the numbers of one column by the texts of another; without a group column all are one group.
/// Errors: as findColumn() and numbersOf(); BadInput where no row holds a value.
Result<GroupedValues> groupValues(const TextTable &table, std::string_view valueColumn,
                                  std::optional<std::string_view> groupColumn);

/// The same with a column that says which values are lower bounds.
struct GroupedBounds {
    std::vector<BoundedGroup> groups;
    std::vector<std::vector<std::size_t>> lines; ///< of each group's values in the file, from 1
    std::size_t dropped = 0;
};

/// boundColumn: 1 for a lower bound, else 0; without it no value is one.
/// Errors: as groupValues(); BadInput for another number in the bound column.
Result<GroupedBounds> groupBounds(const TextTable &table, std::string_view valueColumn,
                                  std::optional<std::string_view> boundColumn,
                                  std::optional<std::string_view> groupColumn);

/// The rows that hold something in each of several columns.
struct CompleteRows {
    std::vector<std::vector<double>> numbers;    ///< a list for each numeric column
    std::vector<std::vector<std::string>> texts; ///< a list for each text column
    std::vector<std::size_t> lines;              ///< of each row in the file, from 1
    std::size_t dropped = 0;
};

/// Errors: as findColumn() and numbersOf(); BadInput where no row is complete.
Result<CompleteRows> completeRows(const TextTable &table, std::span<const std::string> numberColumns,
                                  std::span<const std::string> textColumns);

/// 0 or 1 in a column of yes and no. Errors: BadInput for another number, naming line and column.
Result<bool> flagOf(double value, std::string_view column, std::size_t line);

} // namespace inchpeg
