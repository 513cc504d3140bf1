// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/layout_sample.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The names that a line above rows of so many columns gives them, as they are written.
struct HeadingCells {
    std::vector<std::string> names; ///< as many as there are columns, or as the line holds where they differ
    bool hasRowNames = false; ///< a name fewer than cells: the first column names the rows, "" stands for it
    [[nodiscard]] bool fits(std::size_t columns) const { return names.size() == columns; }
};

/// Understands a heading line: a mark that makes it a comment ("# time,force") is taken off, another
/// delimiter than that of the rows is allowed where it makes a name for each column, names that blanks have
/// split are joined where that makes one for each ("Time (s)"), and where the heading has one name fewer than
/// the rows, whose first cells are text or count the rows, these are row names (as R and pandas write them).
HeadingCells headingCells(const SampleReading &reading, const std::vector<SampleLine> &lines,
                          std::size_t heading, std::size_t firstRow, std::size_t columnCount);

/// Whether a line that the rows' delimiter does not split into about as many cells may be their heading.
bool otherwiseNamesColumns(const SampleReading &reading, const std::vector<SampleLine> &lines, std::size_t i);

} // namespace inchpeg
