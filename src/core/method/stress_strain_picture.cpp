// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/stress_strain_picture.h"

#include "core/curve/mended_record.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

std::optional<double> placeOf(const PlacedMarkers &placed, std::string_view name)
{
    const auto found = placed.find(name);
    return found == placed.end() ? std::nullopt : found->second;
}

/// The x values that a record has, best first.
struct XAxis {
    PictureAxis axis;
    const std::vector<double> *values = nullptr;
};

XAxis xAxisOf(const StressStrainCurve &curve, const ForceCurve &record)
{
    if (!curve.strain.empty())
        return {{"Strain", Dimension::Ratio, "toe taken off"}, &curve.strain};
    if (!record.extension_mm.empty())
        return {{"Extension", Dimension::Length}, &record.extension_mm};
    return {{"Time", Dimension::Time}, &record.time_s};
}

void addMarks(Reading &reading, const StressStrainCurve &curve, const std::vector<double> &x)
{
    const CurveMarkers &m = curve.markers;
    const auto at = [&](std::string_view name, const std::optional<std::size_t> &sample,
                        std::optional<double> place, std::string label = {}) {
        if (sample && !x.empty())
            reading.marks.push_back(
                {std::string(name), std::move(label), x[*sample], curve.stress_MPa[*sample], place});
    };
    const auto sample = [](std::size_t index) { return std::optional(static_cast<double>(index)); };
    if (!curve.strain.empty()) {
        reading.marks.push_back({"toe", {}, 0.0, 0.0, curve.toeStrain});
        at("modulus_from", m.modulusFirst, curve.lowStrain);
        at("modulus_to", m.modulusLast, curve.highStrain);
    }
    if (m.yield)
        at("yield", m.yield, sample(*m.yield));
    at("strength", m.strength, sample(m.strength), curve.atLeast ? "At least" : "");
    at("break", m.lastBeforeBreak, sample(m.lastBeforeBreak), m.broke ? "" : "End of record");
}

/// The modulus as a line from the origin to half again its range.
void addGuide(Reading &reading, const StressStrainCurve &curve)
{
    if (!curve.modulus_MPa || curve.strain.empty() || !curve.markers.modulusFirst)
        return;
    const std::size_t first = *curve.markers.modulusFirst;
    const double intercept = curve.stress_MPa[first] - *curve.modulus_MPa * curve.strain[first];
    const double to = 1.5 * curve.highStrain;
    reading.picture.guides.push_back({"Modulus", 0.0, intercept, to, intercept + *curve.modulus_MPa * to});
}

MarkerOverrides overridesFrom(const PlacedMarkers &placed)
{
    MarkerOverrides overrides;
    overrides.toeStrain = placeOf(placed, "toe");
    overrides.modulusFrom = placeOf(placed, "modulus_from");
    overrides.modulusTo = placeOf(placed, "modulus_to");
    overrides.strength = placedSample(placed, "strength");
    overrides.yield = placedSample(placed, "yield");
    overrides.noYield = placed.contains("yield") && !overrides.yield;
    overrides.lastBeforeBreak = placedSample(placed, "break");
    return overrides;
}

} // namespace

void setRules(StressStrainRules &rules, const MethodSettings &settings, const PlacedMarkers &placed)
{
    rules.toeCorrection = settings.isOn("toe", true);
    if (const auto capacity_N = settings.number("capacity"))
        rules.capacity = newtons(*capacity_N);
    rules.lowStrain = settings.number("modulus_from", rules.lowStrain);
    rules.highStrain = settings.number("modulus_to", rules.highStrain);
    rules.breakDrop = settings.number("break_drop", rules.breakDrop);
    rules.markers = overridesFrom(placed);
}

BoundReason StressStrainBounds::of(const std::optional<double> &stress_MPa) const
{
    return stress_MPa && *stress_MPa >= cutOffFrom_MPa ? gauge : BoundReason::None;
}

StressStrainBounds boundsOf(bool atLeast, const CurveMarkers &markers, std::optional<double> strength_MPa)
{
    if (!atLeast)
        return {BoundReason::None, markers.broke ? BoundReason::None : BoundReason::RecordEnds, 0.0};
    return {BoundReason::GaugeAtEnd, BoundReason::GaugeAtEnd, kCapacityShare * strength_MPa.value_or(0.0)};
}

void drawStressStrain(Reading &reading, StressStrainCurve curve, ForceCurve record)
{
    const XAxis x = xAxisOf(curve, record);
    addMarks(reading, curve, *x.values);
    addGuide(reading, curve);
    reading.picture.x = x.axis;
    reading.picture.y = {"Stress", Dimension::Stress};
    const std::vector<double> *const drawn = x.values->empty() ? nullptr : x.values;
    RecordCurve place{0, 0, curve.markers.lastBeforeBreak, false};
    const auto column = [&](const char *name, std::vector<double> &values) {
        if (values.empty())
            return;
        if (&values == drawn)
            place.xColumn = reading.columns.size();
        if (&values == &curve.stress_MPa)
            place.yColumn = reading.columns.size();
        reading.columns.push_back({name, std::move(values)});
    };
    column("time_s", record.time_s);
    column("force_N", record.force_N);
    column("extension_mm", record.extension_mm);
    column("strain", curve.strain);
    column("stress_MPa", curve.stress_MPa);
    if (drawn != nullptr)
        reading.picture.record = place;
}

} // namespace inchpeg
