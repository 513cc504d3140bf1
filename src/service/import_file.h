// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"
#include "core/import/mapping.h"
#include "core/import/text.h"
#include "core/method/method.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// One of several tables in a file.
struct FileTable {
    std::string sheet;                 ///< of a workbook; else empty
    std::size_t line = 0;              ///< of its heading or first row, from 1; in a workbook the sheet's row
    std::size_t textLine = 0;          ///< the same in the text of the whole file
    std::string specimen;              ///< of several in one table; else empty
    std::vector<std::string> headings; ///< of its columns
};

/// A file that is about to be brought in: its bytes, and how they are understood.
struct ImportFile {
    std::string path;
    std::string name;         ///< of the file, and behind it of the specimen where it holds several
    std::string nameForPeg{}; ///< by which its peg is looked for: the same as one file name
    std::shared_ptr<const std::string> bytes; ///< nothing where the file could not be read
    std::string sha256;
    std::optional<DecodedText> text;
    std::optional<Layout> found;         ///< as the importer sees it
    std::optional<Layout> layout;        ///< under the mapping; where that does not fit, as found
    std::vector<FileTable> tables;       ///< to choose from; empty where there is one only
    ColumnMapping mapping;               ///< a person's correction; empty: as found
    std::optional<Error> problem;        ///< why it cannot be brought in as it stands
    std::optional<std::size_t> specimen; ///< of a file with several: which of its tables, from 1, this one is
    const Reduction *reduction = nullptr; ///< of the test that it is a record of
    std::size_t rows = 0;
    /// Of a table with a row a specimen: the codes of its rows, those without one left out.
    std::vector<std::string> codes;
    /// The largest value, without a sign, of the column that the test cannot do without; 0 for rows.
    double largest = 0.0;
    Dimension largestOf = Dimension::Number;
    std::vector<std::string> warnings;
};

/// Reads a file and tries to understand it as a record of a test. Never fails: what is wrong stands in
/// problem.
ImportFile loadImportFile(const std::string &path, const Reduction &reduction);

/// A loaded file, or, where one of its tables holds several specimens, one of each with its name behind that
/// of the file: each is a record of its own piece.
std::vector<ImportFile> specimensIn(ImportFile file);

/// Understands a loaded file anew under a mapping; updates problem, rows and warnings. One of several
/// specimens stays the one that it is.
void readWithMapping(ImportFile &file, ColumnMapping mapping);

} // namespace inchpeg
