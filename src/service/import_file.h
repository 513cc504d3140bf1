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

/// A file that is about to be brought in: its bytes, and how they are understood.
struct ImportFile {
    std::string path;
    std::string name;
    std::shared_ptr<const std::string> bytes; ///< nothing where the file could not be read
    std::string sha256;
    std::optional<DecodedText> text;
    std::optional<Layout> found;          ///< as the importer sees it
    ColumnMapping mapping;                ///< a person's correction; empty: as found
    std::optional<Error> problem;         ///< why it cannot be brought in as it stands
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

/// Understands a loaded file anew under a mapping; updates problem, rows and warnings.
void readWithMapping(ImportFile &file, ColumnMapping mapping);

/// The layout with the person's corrections, where there is one.
std::optional<Layout> layoutOf(const ImportFile &file);

} // namespace inchpeg
