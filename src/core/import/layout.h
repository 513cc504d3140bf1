// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/import/column.h"
#include "core/units/number.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How a delimited text is laid out and what its columns are.
struct Layout {
    char delimiter = ','; ///< kNoDelimiter where there is one column only
    NumberFormat numbers;
    std::size_t headerLines = 0; ///< lines before the first data row, metadata and blank lines included
    std::optional<std::size_t> headingLine; ///< line (from 1) that names the columns
    std::optional<std::size_t> unitsLine;   ///< line (from 1) that holds their units
    std::vector<Column> columns;
    bool operator==(const Layout &) const = default;
};

/// Finds the layout from the first lines of a text.
///
/// Every pair of delimiter (tab, semicolon, comma, blanks, none) and decimal mark is tried; the pair under
/// which most cells of equally long rows are numbers wins. The first data row is the first whose
/// numeric columns all hold numbers; the line above names the columns, or gives their units if all of its
/// cells are units. docs/methods.md, "Reading delimited text", tells the rules.
/// Errors: BadInput for a text without any row of numbers.
Result<Layout> findLayout(std::string_view text);

/// The first column whose unit does not fit its quantity, as an error; what is wrong is told with its line.
Status checkUnits(const Layout &layout);

/// A text that is equal for files of the same shape: the delimiter, the decimal mark and the headings.
/// A mapping that a person has corrected is remembered under it.
std::string layoutSignature(const Layout &layout);

} // namespace inchpeg
