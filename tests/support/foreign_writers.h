// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg::test
{

/// A file as another program writes it, and what is in it. Nothing of the importer makes or reads it.
struct ForeignFile {
    std::string writer;
    std::string what; ///< the case
    std::string bytes;
    std::size_t rows = 0;
    double peak_N = 0.0;
    double lastTime_s = 0.0; ///< from the first row
    double lastExtension_mm = 0.0;
    std::optional<std::size_t> table; ///< that is chosen, from 1
    std::string refusedWith;          ///< words of the sentence that refuses it; empty where it is read
};

/// Records of pulls by twelve text writers and six writers of workbooks, in their usual forms, with units,
/// decimal marks, row names, notes, summaries and damage as they come. The same for the same seed.
std::vector<ForeignFile> foreignRecords(unsigned seed);

/// A table with one row a specimen as another program writes it.
struct ForeignTable {
    std::string writer;
    std::string what;
    std::string bytes;
    std::string column; ///< whose mean is known
    double mean = 0.0;
    std::size_t n = 0;
    std::string refusedWith;
};
std::vector<ForeignTable> foreignTables(unsigned seed);

} // namespace inchpeg::test
