// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/import/layout.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Columns of readings, all equally long, in the working units of their quantities.
struct Readings {
    std::vector<std::vector<double>> columns; ///< in the order asked for
    std::size_t rows = 0;
    std::size_t skippedLines = 0; ///< lines after the header that hold no reading and are not blank
    std::optional<std::size_t> nextTableLine; ///< where another table begins below this one, from 1
    std::vector<std::string> warnings;
};

/// Reads the wanted columns (indices into layout.columns) of a text.
///
/// A row that lacks a wanted value, such as a last line that was cut off, is left out with a warning that
/// names its line; a line without any number is skipped likewise. Lines below the last row that are no rows
/// of numbers (a summary, another table) are not used; a warning names the first of them. A long text is read
/// in blocks, which run may hand to several cores. Errors: BadInput with line and column for text or a value
/// that is not finite among the rows of numbers, for a row longer than the header, and where no row is left.
Result<Readings> readReadings(std::string_view text, const Layout &layout,
                              std::span<const std::size_t> wanted, const TaskRunner &run = inOrder);

/// A table with one row a specimen, kept as text; short rows are filled with empty cells.
struct TextTable {
    std::vector<std::string> names;
    std::vector<std::vector<std::string>> rows;
    std::vector<std::size_t> lines; ///< line of each row, from 1
    NumberFormat numbers;
    std::vector<std::string> warnings{}; ///< rows that were left out, since they sum up others
    std::vector<Column> columns{};       ///< how each was understood; as many as names
};

/// Each row is as wide as the table: a sheet may be a hundred thousand rows of sixteen thousand cells.
inline constexpr std::size_t kMostTableCells = 10000000;

/// Errors: BadInput for a text without data rows, with a row longer than its header, or with more than
/// kMostTableCells.
Result<TextTable> readTable(std::string_view text);

/// Index of a column by its exact name.
/// Errors: InvalidArgument when it is missing (names what there is); BadInput when it occurs twice.
Result<std::size_t> findColumn(const TextTable &table, std::string_view name);

/// A column's numbers; nothing for an empty cell.
/// Errors: BadInput with line and column for text or a value that is not finite.
Result<std::vector<std::optional<double>>> numbersOf(const TextTable &table, std::size_t column);

} // namespace inchpeg
