// SPDX-License-Identifier: GPL-3.0-or-later
// Long tables of results: a row a value, with the property's name in one column and the value in another.
#pragma once

#include "core/intake/result_headings.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// Rows of a text, each as wide as its heading.
struct RawRow {
    std::size_t line = 0;
    std::vector<std::string> cells;
};

struct WideResults {
    std::vector<HeadingWords> headings;
    std::vector<RawRow> rows; ///< each with the line of the first of its values
};

/// The same with a row a piece and a column a property; nothing where it is no long table. Rows that agree in
/// all but property and value are of one piece; where a property comes again for them it is the next piece's.
std::optional<WideResults> wideFromLong(const std::vector<HeadingWords> &headings,
                                        const std::vector<RawRow> &rows);

} // namespace inchpeg
