// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/record_table.h"

#include <array>

namespace inchpeg
{

/// The record of one test. force_N is never empty; the others are empty or equally long.
struct ForceCurve {
    std::vector<double> force_N;
    std::vector<double> extension_mm;
    std::vector<double> strain;
    std::vector<double> time_s;
    std::vector<double> transverseStrain{}; ///< across the pull; tension only
    bool extensionIsCrosshead = false;
    bool operator==(const ForceCurve &) const = default;
};

/// The columns of a force curve.
inline constexpr std::array kForceColumns = {
    RecordColumn{"force", ColumnQuantity::Force, "N", true, "Force"},
    RecordColumn{"extension", ColumnQuantity::Extension, "mm", false, "Extension"},
    RecordColumn{"strain", ColumnQuantity::Strain, "%", false, "Strain"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

/// Those of tension.
inline constexpr std::array kTensionColumns = {
    kForceColumns[0],
    kForceColumns[1],
    kForceColumns[2],
    kForceColumns[3],
    RecordColumn{"transverse strain", ColumnQuantity::Strain, "%", false, "Transverse strain", false, true},
};

/// table: of kForceColumns or kTensionColumns.
ForceCurve forceCurveOf(RecordTable table);

struct ImportedCurve {
    ForceCurve curve;
    Layout layout;
    std::size_t rows = 0;
    std::size_t skippedLines = 0;
    std::vector<std::string> warnings;
};

/// The same from the bytes of a file, everything found out by itself. tableNumber: as findRecordLayout().
Result<ImportedCurve> importForceCurve(std::string_view bytes, const TaskRunner &run = inOrder,
                                       std::optional<std::size_t> tableNumber = {});

} // namespace inchpeg
