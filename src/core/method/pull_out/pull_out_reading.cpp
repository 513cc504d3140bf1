// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/pull_out/pull_out_reading.h"

#include "core/method/load_curve_picture.h"
#include "core/method/pull_out/pull_out.h"

namespace inchpeg
{

namespace
{

constexpr std::array kPullOutProperties = {
    Property{"peak_force", "Pull-out force", Dimension::Force,
             "Largest force of the record, lone spikes left out"},
    Property{"interface_shear", "Interface shear", Dimension::Stress,
             "Largest force over the cylinder that the insert holds by: F / (π d depth)"},
    kStiffness,
    kEnergyToBreak,
};

constexpr std::array kPullOutParameters = {
    Parameter{"diameter",
              "Insert diameter",
              "of the insert, or of the thread over its crests",
              "mm",
              ParameterSource::Test,
              true,
              "",
              {},
              false,
              {.amount = 0.02}},
    Parameter{"depth",
              "Depth",
              "over which the insert or thread holds",
              "mm",
              ParameterSource::Test,
              true,
              "",
              {},
              false,
              {.amount = 0.05}},
    kCapacity,
    kBreakDrop,
};
constexpr auto kPullOutMarkers = peakAndBreak("peak_force", "energy");

Status checkPullOut(const MethodSettings &settings)
{
    return checkRequired(settings, kPullOutParameters);
}

Result<Reading> readPullOut(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                            const TaskRunner &)
{
    if (const Status status = checkPullOut(settings); !status)
        return status.error();
    LoadCurveRules rules = loadCurveRules(settings, placed);
    rules.bounded = "force, shear and energy are lower bounds";
    Result<PullOutResult> result =
        reducePullOut({std::move(table.columns[0]), std::move(table.columns[1])},
                      {*settings.length("diameter"), *settings.length("depth")}, rules);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("peak_force", result->peak_N, boundAtPeak(result->curve));
    values.add("interface_shear", result->interfaceShear_MPa, boundAtPeak(result->curve));
    values.add("stiffness", result->stiffness_N_per_mm);
    values.add("energy", result->energy_J, boundAtBreak(result->curve));
    reading.values = values.take();
    drawLoadCurve(reading, std::move(result->curve), {"Travel", Dimension::Length},
                  {"Force", Dimension::Force}, "travel_mm", "force_N");
    return reading;
}

} // namespace

constinit const Reduction kPullOutReduction{"pull-out",
                                            "read inserts, nuts and threads that are pulled out",
                                            2,
                                            kPullOutProperties,
                                            kPullOutParameters,
                                            kPushColumns,
                                            kPullOutMarkers,
                                            checkPullOut,
                                            readPullOut};

} // namespace inchpeg
