// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/method.h"

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// One row of a table with a row a specimen: values of the test's parameters.
struct RecordRow {
    std::string label; ///< the specimen's code, else "row 3"
    MethodSettings settings;
    std::size_t line = 0;
    bool isLabelled = false; ///< by a code of its own
};

struct RecordRows {
    std::vector<RecordRow> rows;
    Layout layout;
    std::vector<std::string> warnings;
};

/// Reads a table whose columns are named after parameters ("swing_deg", "Width (mm)", "break"); a column
/// called code, piece or specimen labels the rows. Empty cells say nothing.
/// Errors: BadInput with line and column for a cell that its parameter cannot take, and where no column is
/// named after a parameter.
Result<RecordRows> readRecordRows(std::string_view text, std::span<const Parameter> parameters);

} // namespace inchpeg
