// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/torsion/stepped_torque_reading.h"

#include "core/method/method.h"
#include "core/method/torsion/stepped_torque.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kSteppedProperties = {
    Property{"held_torque", "Torque held", Dimension::Torque,
             "Highest step that the piece held; at least that where it held the last"},
    Property{"last_torque", "Last step", Dimension::Torque, "The last torque that was put on",
             Better::Neither},
};

constexpr std::string_view kStepOutcomes[] = {"failed", "held"};

constexpr std::array kSteppedParameters = {
    Parameter{"torque", "Last torque", "the last step that was put on", "N·m", ParameterSource::Piece, true},
    Parameter{"outcome", "Outcome", "of the last step: failed (rounded out, split, stripped), or held", "",
              ParameterSource::Piece, true, "", kStepOutcomes},
    Parameter{"held_torque",
              "Held before",
              "highest step before it that the piece held; 0 where it failed at its first",
              "N·m",
              ParameterSource::Piece,
              false,
              "",
              {},
              true},
};

Status checkStepped(const MethodSettings &settings)
{
    return checkRequired(settings, kSteppedParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readStepped(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                            const TaskRunner &)
{
    if (const Status status = checkStepped(settings); !status)
        return status.error();
    const TorqueSteps steps{*settings.number("torque"), settings.word("outcome") == kStepOutcomes[0],
                            settings.number("held_torque")};
    Result<SteppedTorqueResult> result = reduceSteppedTorque(steps);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("held_torque", result->held_Nm, result->atLeast ? BoundReason::HeldStep : BoundReason::None);
    values.add("last_torque", steps.last_Nm);
    reading.values = values.take();
    reading.picture.x = {"Step", Dimension::Number};
    reading.picture.y = {"Torque", Dimension::Torque};
    reading.marks.push_back({{}, steps.failed ? "Failed" : "Held last", 2.0, steps.last_Nm, {}});
    if (steps.held_Nm)
        reading.marks.push_back({{}, "Held", 1.0, *steps.held_Nm, {}});
    reading.picture.guides.push_back(
        {result->atLeast ? "At least" : "Held", 0.5, result->held_Nm, 2.5, result->held_Nm});
    reading.picture.series.push_back({"Steps", {1.0, 2.0}, {steps.held_Nm.value_or(0.0), steps.last_Nm}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kSteppedTorqueReduction{"stepped-torque",
                                                  "read torques put on step by step",
                                                  1,
                                                  kSteppedProperties,
                                                  kSteppedParameters,
                                                  {},
                                                  {},
                                                  checkStepped,
                                                  readStepped};

} // namespace inchpeg
