// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/import/layout.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// The record of one test. force_N is never empty; the others are empty or equally long.
struct ForceCurve {
    std::vector<double> force_N;
    std::vector<double> extension_mm;
    std::vector<double> strain;
    std::vector<double> time_s;
    bool extensionIsCrosshead = false;
    bool operator==(const ForceCurve &) const = default;
};

/// Which column of a file is which reading; indices into Layout::columns.
struct ColumnChoice {
    std::size_t force = 0;
    std::optional<std::size_t> extension;
    std::optional<std::size_t> strain;
    std::optional<std::size_t> time;
    bool operator==(const ColumnChoice &) const = default;
};

struct ColumnChoiceWithNotes {
    ColumnChoice choice;
    std::vector<std::string> notes; ///< where there was more than one candidate, and which was taken
};

/// Picks the columns by their quantities: the first of each, an extension of the gauge before one of the
/// crosshead.
/// Errors: BadInput without a force column or with two columns of the same name for one reading.
Result<ColumnChoiceWithNotes> chooseColumns(const Layout &layout);

/// The layout of the table that holds a record: the one of this number (from 1), else the first with a force
/// and something that it can be drawn over, else the first with a force, else the largest. Errors: BadInput
/// for a text without any row of numbers; InvalidArgument for a number that no table has.
Result<Layout> findRecordLayout(std::string_view text, std::optional<std::size_t> tableNumber = {});

struct ImportedCurve {
    ForceCurve curve;
    Layout layout;
    ColumnChoice choice;
    std::size_t rows = 0;
    std::size_t skippedLines = 0;
    std::vector<std::string> warnings;
};

/// A curve from decoded text, read with a given layout (as found, or as a person corrected it).
Result<ImportedCurve> readForceCurve(std::string_view text, const Layout &layout,
                                     const TaskRunner &run = inOrder);

/// The same from the bytes of a file, everything found out by itself.
/// tableNumber: as findRecordLayout().
Result<ImportedCurve> importForceCurve(std::string_view bytes, const TaskRunner &run = inOrder,
                                       std::optional<std::size_t> tableNumber = {});

} // namespace inchpeg
