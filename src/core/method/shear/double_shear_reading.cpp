// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shear/double_shear_reading.h"

#include "core/method/load_curve_picture.h"
#include "core/method/section_settings.h"
#include "core/method/shear/double_shear.h"

namespace inchpeg
{

namespace
{

constexpr std::array kDoubleShearProperties = {
    Property{"shear_strength", "Shear strength", Dimension::Stress,
             "Largest force over twice the cross-section: the pin is cut at two places"},
    Property{"peak_force", "Peak force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
};

constexpr std::array kDoubleShearParameters = {kDiameter, kArea, kCapacity, kBreakDrop};
constexpr auto kDoubleShearMarkers = peakAndBreak("shear_strength", "peak_force");

Result<Area> sectionOf(const MethodSettings &settings)
{
    if (!settings.contains("diameter") && !settings.contains("area"))
        return invalidArgument("\"diameter\" is missing; give the pin's diameter, or its area");
    const Result<Section> section = sectionFrom(settings);
    if (!section)
        return section.error();
    return areaOf(*section);
}

Status checkDoubleShear(const MethodSettings &settings)
{
    const Result<Area> area = sectionOf(settings);
    return area ? ok() : Status(area.error());
}

Result<Reading> readDoubleShear(RecordTable table, const MethodSettings &settings,
                                const PlacedMarkers &placed, const TaskRunner &)
{
    const Result<Area> area = sectionOf(settings);
    if (!area)
        return area.error();
    LoadCurveRules rules = loadCurveRules(settings, placed);
    rules.bounded = "strength and peak force are lower bounds";
    Result<DoubleShearResult> result =
        reduceDoubleShear({std::move(table.columns[0]), std::move(table.columns[1])}, *area, rules);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("shear_strength", result->shearStrength_MPa, boundAtPeak(result->curve));
    values.add("peak_force", result->peak_N, boundAtPeak(result->curve));
    reading.values = values.take();
    drawLoadCurve(reading, std::move(result->curve), {"Travel", Dimension::Length},
                  {"Force", Dimension::Force}, "travel_mm", "force_N");
    return reading;
}

} // namespace

constinit const Reduction kDoubleShearReduction{"double-shear",
                                                "read pins that are cut through in a fork",
                                                1,
                                                kDoubleShearProperties,
                                                kDoubleShearParameters,
                                                kPushColumns,
                                                kDoubleShearMarkers,
                                                checkDoubleShear,
                                                readDoubleShear};

} // namespace inchpeg
