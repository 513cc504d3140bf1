// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/layout.h"
#include "core/import/table.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A table that holds the readings of several specimens, as one layout a specimen: below each other, each
/// where a column that names it changes, or where the time starts again; or side by side, in columns whose
/// names repeat. One layout, as it came, for a table of one record.
std::vector<Layout> specimensOf(std::string_view text, const Layout &layout);

/// Whether the columns of a table repeat, for one specimen beside the other.
bool standSideBySide(const Layout &layout);

/// False where the columns that were read show that a table holds one record; specimensOf() would find none
/// then. columns: indices of those that were read.
bool mayHoldSpecimens(const Layout &layout, std::span<const std::size_t> columns, const Readings &readings);

/// "4 specimens below each other (column "specimen": A, B, C and 1 more)": what specimensOf() has found.
std::string specimensSentence(const std::vector<Layout> &specimens);

/// A sentence where a table seems to hold results, one row a specimen, rather than the readings of one test;
/// empty where it does not.
std::string resultsSentence(std::string_view text, const Layout &layout);

} // namespace inchpeg
