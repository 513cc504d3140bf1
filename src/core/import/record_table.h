// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/import/mapping.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A column that a test reads from its record.
struct RecordColumn {
    std::string_view name; ///< "force", "deflection"
    ColumnQuantity quantity = ColumnQuantity::Force;
    std::string_view unit; ///< that a typed value without one is in
    bool isRequired = false;
    std::string_view label;    ///< for people
    bool acceptsMass = false;  ///< a load that is given by the mass that hangs there: kg is taken for kgf
    bool isTransverse = false; ///< a strain across the pull; other columns never take one
};

/// Columns of a record that are all equally long, in working units; those that it lacks are empty.
struct RecordTable {
    std::vector<std::vector<double>> columns; ///< in the order of the test's columns
    std::vector<bool> isCrosshead;            ///< of each: an extension of the machine
    std::size_t rows = 0;

    [[nodiscard]] bool has(std::size_t column) const { return !columns[column].empty(); }
};

/// Which columns of a file are which of the test's; indices into Layout::columns.
struct RecordChoice {
    std::vector<std::optional<std::size_t>> columns; ///< in the order of the test's columns
    std::vector<std::string> notes;                  ///< where there was more than one candidate
};

/// Picks the columns by their quantities: the first of each, an extension of the gauge before one of the
/// crosshead.
/// Errors: BadInput without a required column or with two columns of the same name for one reading.
Result<RecordChoice> chooseColumns(const Layout &layout, std::span<const RecordColumn> wanted);

/// The layout of the table that holds a record: the one of this number (from 1), else the first that has all
/// wanted columns, else the first with the required ones, else the largest. Errors: BadInput for a text
/// without any row of numbers; InvalidArgument for a number that no table has.
Result<Layout> findRecordLayout(std::string_view text, std::span<const RecordColumn> wanted,
                                std::optional<std::size_t> tableNumber = {});

/// The same, with table and columns as a person chose them. Errors: those of withMapping() too.
Result<Layout> findRecordLayout(std::string_view text, std::span<const RecordColumn> wanted,
                                const ColumnMapping &mapping);

struct ImportedRecord {
    RecordTable table;
    Layout layout;
    std::size_t skippedLines = 0;
    bool hasMoreTables = false; ///< below this one
    std::vector<std::string> warnings;
};

/// A record from decoded text, read with a given layout (as found, or as a person corrected it).
Result<ImportedRecord> readRecordTable(std::string_view text, const Layout &layout,
                                       std::span<const RecordColumn> wanted, const TaskRunner &run = inOrder);

/// The same from the bytes of a file, everything found out by itself. tableNumber: as findRecordLayout().
Result<ImportedRecord> importRecord(std::string_view bytes, std::span<const RecordColumn> wanted,
                                    const TaskRunner &run = inOrder,
                                    std::optional<std::size_t> tableNumber = {});

} // namespace inchpeg
