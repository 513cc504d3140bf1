// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/impact/impact_reading.h"

#include "core/method/impact/pendulum.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kTakes{"Takes {} more to break than {}", "Takes {} less to break than {}"};

constexpr std::array kPendulumProperties = {
    Property{"absorbed_energy", "Absorbed energy", Dimension::Energy,
             "What the blow took from the hammer, its losses taken off", Better::Higher, kTakes},
    Property{
        "impact_strength", "Impact strength", Dimension::EnergyPerArea,
        "Absorbed energy over the thickness times the width, under a notch what is left of it (ISO 179-1)",
        Better::Higher, kTakes},
    Property{"energy_per_thickness", "Energy per thickness", Dimension::EnergyPerLength,
             "Absorbed energy over the thickness (ASTM D256)", Better::Higher, kTakes},
    Property{"loss_energy",
             "Losses",
             Dimension::Energy,
             "Friction and air on the way of this swing, from the free swing (ISO 13802 manner)",
             Better::Neither,
             {"Loses {} more than {}", "Loses {} less than {}"}},
};

constexpr std::string_view kBreaks[] = {"C", "H", "P", "N"};

constexpr std::array kPendulumParameters = {
    Parameter{"mass", "Hammer", "mass of the hammer", "kg", ParameterSource::Rig, true},
    Parameter{"arm", "Arm", "from the pivot to the hammer's centre of mass", "m", ParameterSource::Rig, true},
    Parameter{"release", "Release", "angle from which it is let go, counted from hanging", "deg",
              ParameterSource::Rig, true},
    Parameter{"free_swing", "Free swing", "angle to which it swings without a piece", "deg",
              ParameterSource::Rig, true},
    Parameter{"swing",
              "Swing",
              "angle to which it swings after the blow",
              "deg",
              ParameterSource::Piece,
              true,
              "",
              {},
              true},
    required(kWidth),
    required(kThickness),
    Parameter{"remaining_width", "Under the notch", "what is left of the width under the notch", "mm",
              ParameterSource::Piece},
    Parameter{"break", "Break", "C complete, H hinge, P partial, N none", "", ParameterSource::Piece, false,
              "", kBreaks},
};

/// The hammer's energy over its angle, and where it stood: what is missing in height is what was lost.
void drawSwing(Reading &reading, const PendulumRig &rig, double swing_deg)
{
    constexpr int kPoints = 120;
    PictureSeries series{"Hammer", {}, {}};
    for (int i = 0; i <= kPoints; ++i) {
        const double angle = rig.release_deg * (1.0 - 2.0 * i / kPoints);
        series.x.push_back(-angle);
        series.y.push_back(hammerEnergy_J(rig, angle));
    }
    reading.picture.x = {"Angle from hanging", Dimension::Angle};
    reading.picture.y = {"Energy of the hammer", Dimension::Energy};
    reading.picture.series.push_back(std::move(series));
    const double full = hammerEnergy_J(rig, rig.release_deg);
    const double free = hammerEnergy_J(rig, rig.freeSwing_deg);
    const double after = hammerEnergy_J(rig, swing_deg);
    reading.marks.push_back({{}, "Release", -rig.release_deg, full, {}});
    reading.marks.push_back({{}, "Free swing", rig.freeSwing_deg, free, {}});
    reading.marks.push_back({{}, "After the blow", swing_deg, after, {}});
    reading.picture.guides.push_back({"Free swing", -rig.release_deg, free, rig.release_deg, free});
    reading.picture.guides.push_back({"After the blow", -rig.release_deg, after, rig.release_deg, after});
}

Status checkImpact(const MethodSettings &settings)
{
    return checkRequired(settings, kPendulumParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readImpact(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                           const TaskRunner &)
{
    if (const Status status = checkImpact(settings); !status)
        return status.error();
    const PendulumRig rig{*settings.number("mass"), settings.length("arm")->si(), *settings.number("release"),
                          *settings.number("free_swing")};
    const Swing swing{*settings.number("swing"), *settings.length("width"), *settings.length("thickness"),
                      settings.length("remaining_width"), breakTypeFrom(settings.word("break"))};
    Result<PendulumResult> result = reducePendulum(swing, rig);
    if (!result)
        return result.error();
    const BoundReason bound = result->atLeast ? BoundReason::NoBreak : BoundReason::None;
    Reading reading;
    ValueList values;
    values.add("absorbed_energy", result->absorbedEnergy_J, bound);
    values.add("impact_strength", result->impactStrength_kJ_per_m2, bound);
    values.add("energy_per_thickness", result->energyPerThickness_J_per_m, bound);
    values.add("loss_energy", result->lossEnergy_J);
    reading.values = values.take();
    if (swing.breakType)
        reading.kind = breakTypeName(*swing.breakType);
    drawSwing(reading, rig, swing.swing_deg);
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kPendulumReduction{
    "pendulum", "read swings of a pendulum", 1, kPendulumProperties, kPendulumParameters, {}, {}, checkImpact,
    readImpact};

} // namespace inchpeg
