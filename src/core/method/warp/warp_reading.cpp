// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/warp/warp_reading.h"

#include "core/method/method.h"
#include "core/method/numbered_picture.h"
#include "core/method/warp/warp.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kLifts{"Lifts {} more than {}", "Lifts {} less than {}"};

constexpr std::array kWarpProperties = {
    Property{"warp", "Warp", Dimension::Length, "Lift of the corner that stands highest off a flat plate",
             Better::Lower, kLifts},
    Property{"mean_lift", "Mean lift", Dimension::Length, "Mean lift of the corners", Better::Lower, kLifts},
    Property{"relative_warp", "Warp over diagonal", Dimension::Ratio,
             "Largest lift over the diagonal between the corners", Better::Lower, kLifts},
};

constexpr std::array kWarpParameters = {
    Parameter{"diagonal", "Diagonal", "between opposite corners of the plate", "mm", ParameterSource::Test,
              false, "84.9 mm"},
};

constexpr std::array kWarpColumns = {
    RecordColumn{"lift", ColumnQuantity::Length, "mm", true, "Lift"},
};

Status checkWarp(const MethodSettings &settings)
{
    return checkRequired(settings, kWarpParameters);
}

Result<Reading> readWarp(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                         const TaskRunner &)
{
    Result<WarpResult> result = reduceWarp(table.columns[0], settings.length("diagonal"));
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("warp", result->largest_mm);
    values.add("mean_lift", result->mean_mm);
    values.add("relative_warp", result->share);
    reading.values = values.take();
    drawNumbered(reading, "Corner", {"Lift", Dimension::Length}, {"lift_mm", std::move(table.columns[0])},
                 {{"Largest", result->largest_mm}, {"Mean", result->mean_mm}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kWarpReduction{
    "warp",  "read how far corners lift", 1, kWarpProperties, kWarpParameters, kWarpColumns, {}, checkWarp,
    readWarp};

} // namespace inchpeg
