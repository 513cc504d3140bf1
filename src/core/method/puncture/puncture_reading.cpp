// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/puncture/puncture_reading.h"

#include "core/method/load_curve_picture.h"
#include "core/method/puncture/puncture.h"

namespace inchpeg
{

namespace
{

constexpr std::array kPunctureProperties = {
    Property{"peak_force", "Puncture force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
    Property{"censored", "Gauge at its end", Dimension::Number,
             "1 where the peak reaches 99 % of the gauge's range: the force is \"at least\"",
             Better::Neither},
    Property{"depth_at_peak",
             "Depth at the peak",
             Dimension::Length,
             "Travel of the probe from first contact to the largest force",
             Better::Neither,
             {"Lets the probe in {} deeper than {}", "Lets the probe in {} less deep than {}"}},
    kStiffness,
    kEnergyToBreak,
};

constexpr std::array kPunctureParameters = {
    Parameter{"probe_diameter",
              "Probe diameter",
              "of the probe's flat or round end",
              "mm",
              ParameterSource::Rig,
              false,
              "",
              {},
              false,
              {.amount = 0.02}},
    kCapacity,
    kBreakDrop,
};
constexpr auto kPunctureMarkers = peakAndBreak("peak_force", "energy");

Status checkPuncture(const MethodSettings &settings)
{
    return checkRequired(settings, kPunctureParameters);
}

Result<Reading> readPuncture(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                             const TaskRunner &)
{
    if (const Status status = checkPuncture(settings); !status)
        return status.error();
    LoadCurveRules rules = loadCurveRules(settings, placed);
    rules.bounded = "force and energy are lower bounds";
    Result<PunctureResult> result =
        reducePuncture({std::move(table.columns[0]), std::move(table.columns[1])}, rules);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("peak_force", result->peak_N, boundAtPeak(result->curve));
    if (result->isCensored)
        values.add("censored", *result->isCensored ? 1.0 : 0.0);
    values.add("depth_at_peak", result->depthAtPeak_mm, boundAtPeak(result->curve));
    values.add("stiffness", result->stiffness_N_per_mm);
    values.add("energy", result->energy_J, boundAtBreak(result->curve));
    reading.values = values.take();
    const std::size_t contact = result->curve.contact;
    drawLoadCurve(reading, std::move(result->curve), {"Travel", Dimension::Length},
                  {"Force", Dimension::Force}, "travel_mm", "force_N");
    if (reading.picture.record)
        reading.marks.push_back(
            {{}, "Contact", reading.columns[0].values[contact], reading.columns[1].values[contact], {}});
    return reading;
}

} // namespace

constinit const Reduction kPunctureReduction{"puncture",
                                             "read blocks that a probe is pressed through",
                                             2,
                                             kPunctureProperties,
                                             kPunctureParameters,
                                             kPushColumns,
                                             kPunctureMarkers,
                                             checkPuncture,
                                             readPuncture};

} // namespace inchpeg
