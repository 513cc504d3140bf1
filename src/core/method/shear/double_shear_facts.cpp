// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shear/double_shear_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kShear[] = {{"shear_strength", "shear strength", Dimension::Stress},
                                      {"peak_force", "peak force", Dimension::Force}};
constexpr Hazard kDoubleShearHazards[] = {Hazard::Fragments};
constexpr BreakLook kDoubleShearLooks[] = {kSheared, kTorn, kSplit, kFlaw};

/// The pin is cut at two places.
double forceOfBothCuts(const HeldPiece &piece, double strength_MPa)
{
    return 2.0 * forceOverArea(piece, strength_MPa);
}

} // namespace

constinit const MethodFacts kDoubleShearTest{
    .method = Method::DoubleShear,
    .load = LoadKind::Force_N,
    .name = "double shear",
    .does = "is cut through as a pin in a fork",
    .usualCv = 0.06,
    .shape = "shear-pin-8",
    .minutesPerPiece = 4.0,
    .speed = "1 to 5 mm/min (common practice)",
    .properties = kShear,
    .reduction = &kDoubleShearReduction,
    .hazards = kDoubleShearHazards,
    .layReady = kRigLayReady,
    .looks = kDoubleShearLooks,
    .loadAtStrength = forceOfBothCuts,
    .isStrengthOverArea = true,
};

} // namespace inchpeg
