// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/force_curve.h"

#include <utility>

namespace inchpeg
{

namespace
{

enum ForceColumn : std::size_t { kForce, kExtension, kStrain, kTime, kTransverse };

Result<ImportedCurve> curveFrom(Result<ImportedRecord> record)
{
    if (!record)
        return record.error();
    ImportedCurve imported{
        {}, std::move(record->layout), record->table.rows, record->skippedLines, std::move(record->warnings)};
    imported.curve = forceCurveOf(std::move(record->table));
    return imported;
}

} // namespace

ForceCurve forceCurveOf(RecordTable table)
{
    ForceCurve curve{std::move(table.columns[kForce]),
                     std::move(table.columns[kExtension]),
                     std::move(table.columns[kStrain]),
                     std::move(table.columns[kTime]),
                     {},
                     table.isCrosshead[kExtension]};
    if (table.columns.size() > kTransverse)
        curve.transverseStrain = std::move(table.columns[kTransverse]);
    return curve;
}

Result<ImportedCurve> importForceCurve(std::string_view bytes, const TaskRunner &run,
                                       std::optional<std::size_t> tableNumber)
{
    return curveFrom(importRecord(bytes, kForceColumns, run, tableNumber));
}

} // namespace inchpeg
