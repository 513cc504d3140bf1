// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/torsion/torsion_reading.h"

#include "core/method/load_curve_picture.h"
#include "core/method/section_settings.h"
#include "core/method/torsion/torsion.h"

namespace inchpeg
{

namespace
{

constexpr std::array kTorsionProperties = {
    Property{"peak_torque", "Peak torque", Dimension::Torque, "Largest torque, lone spikes left out"},
    Property{"torque_at_90", "Torque at 90°", Dimension::Torque,
             "Torque after a quarter turn, interpolated; none where the piece broke before"},
    Property{
        "shear_stress", "Shear stress", Dimension::Stress,
        "At the skin by the elastic formula, at the largest torque: 16 T/(π d³), of a rectangular bar by "
        "Saint-Venant's series"},
    Property{"shear_modulus",
             "Shear modulus",
             Dimension::Stress,
             "From the slope of torque over angle, straight below a tenth of the angle at the peak or at its "
             "steepest",
             Better::Higher,
             {"Is {} stiffer than {}", "Is {} less stiff than {}"}},
    Property{"angle_at_peak",
             "Angle at the peak",
             Dimension::Angle,
             "Twist at the largest torque, play taken off",
             Better::Neither,
             {"Twists {} further than {}", "Twists {} less far than {}"}},
};

constexpr std::array kTorsionParameters = {
    kWidth,
    kThickness,
    kDiameter,
    Parameter{"length", "Length", "that is twisted, of the narrow part or between the clamps", "mm",
              ParameterSource::Shape, true},
    Parameter{"capacity", "Gauge's range",
              "the largest torque that the gauge can read; a peak there is only \"at least\"", "N·m",
              ParameterSource::Rig},
    kBreakDrop,
};

constexpr std::array kTwistColumns = {
    RecordColumn{"torque", ColumnQuantity::Torque, "N·m", true, "Torque"},
    RecordColumn{"angle", ColumnQuantity::Angle, "deg", false, "Angle"},
};

constexpr auto kTorsionMarkers = peakAndBreak("peak_torque", "torque_at_90");

Status checkTorsion(const MethodSettings &settings)
{
    if (const Status status = checkRequired(settings, kTorsionParameters); !status)
        return status;
    const Result<Section> section = sectionFrom(settings);
    return section ? ok() : Status(section.error());
}

Result<Reading> readTorsion(RecordTable table, const MethodSettings &settings, const PlacedMarkers &placed,
                            const TaskRunner &)
{
    if (const Status status = checkTorsion(settings); !status)
        return status.error();
    LoadCurveRules rules = loadCurveRules(settings, placed);
    rules.load = Dimension::Torque;
    rules.loadName = "torque";
    rules.wayName = "angle";
    rules.bounded = "torque and stress are lower bounds";
    Result<TorsionResult> result = reduceTorsion({std::move(table.columns[0]), std::move(table.columns[1])},
                                                 {*sectionFrom(settings), *settings.length("length")}, rules);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("peak_torque", result->peakTorque_Nm, boundAtPeak(result->curve));
    values.add("torque_at_90", result->torqueAt90_Nm);
    values.add("shear_stress", result->shearStress_MPa, boundAtPeak(result->curve));
    values.add("shear_modulus", result->shearModulus_MPa);
    values.add("angle_at_peak", result->angleAtPeak_deg);
    reading.values = values.take();
    drawLoadCurve(reading, std::move(result->curve), {"Angle", Dimension::Angle},
                  {"Torque", Dimension::Torque}, "angle_deg", "torque_Nm");
    if (result->torqueAt90_Nm && reading.picture.record)
        reading.marks.push_back({{}, "90°", 90.0, *result->torqueAt90_Nm, {}});
    return reading;
}

} // namespace

constinit const Reduction kTorsionReduction{"torsion",
                                            "read bars that are twisted",
                                            2,
                                            kTorsionProperties,
                                            kTorsionParameters,
                                            kTwistColumns,
                                            kTorsionMarkers,
                                            checkTorsion,
                                            readTorsion};

} // namespace inchpeg
