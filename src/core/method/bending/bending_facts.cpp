// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bending/bending_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"
#include "core/specimen/section_modulus.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kBending[] = {{"flexural_strength", "flexural strength", Dimension::Stress},
                                        {"flexural_modulus", "flexural modulus", Dimension::Stress},
                                        {"energy_to_break", "energy to break", Dimension::Energy}};
constexpr Hazard kBendingHazards[] = {Hazard::Fragments};
constexpr BreakLook kBendingLooks[] = {kTorn, kOnePlane, kWhitened, kBent, kOffMiddle, kFlaw};

/// Four times the moment at the middle of the span over the span.
double bendingForce(const HeldPiece &piece, double strength_MPa)
{
    return 4.0 * strength_MPa * bendingSectionModulus_mm3(piece.shape) / piece.bentLength_mm;
}

} // namespace

constinit const MethodFacts kBendingTest{
    .method = Method::Bending,
    .load = LoadKind::Force_N,
    .name = "bending",
    .does = "is bent between three points",
    .usualCv = 0.05,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 6.0,
    .speed = "2 mm/min for 4 mm thickness and 64 mm span: 1 % strain a minute (ISO 178)",
    .properties = kBending,
    .reduction = &kFlexuralReduction,
    .hazards = kBendingHazards,
    .layReady = kRigLayReady,
    .looks = kBendingLooks,
    .usualReadings = 3,
    .loadAtStrength = bendingForce,
    .isBeam = true,
};

} // namespace inchpeg
