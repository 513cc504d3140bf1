// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/test_facts.h"
#include "core/method/torsion/torsion_reading.h"
#include "core/method/usual_looks.h"
#include "core/specimen/section_modulus.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kTorsion[] = {{"peak_torque", "peak torque", Dimension::Torque},
                                        {"torque_at_90", "torque at 90°", Dimension::Torque},
                                        {"shear_stress", "shear stress", Dimension::Stress}};
constexpr Hazard kTorsionHazards[] = {Hazard::Torque, Hazard::Fragments};
constexpr BreakLook kTorsionLooks[] = {kOnePlane, kTorn, kSplit, kSlipped, kFlaw};

double torqueOfSection(const HeldPiece &piece, double strength_MPa)
{
    constexpr double kNmm = 1e3;
    return strength_MPa * torsionSectionModulus_mm3(piece.shape) / kNmm;
}

} // namespace

constinit const MethodFacts kTorsionTest{
    .method = Method::Torsion,
    .load = LoadKind::Torque_Nm,
    .name = "torsion",
    .does = "is twisted",
    .usualCv = 0.08,
    .shape = "torsion-bar-8",
    .minutesPerPiece = 6.0,
    .speed = "by hand or 90° a minute (common practice)",
    .properties = kTorsion,
    .reduction = &kTorsionReduction,
    .hazards = kTorsionHazards,
    .layReady = kRigLayReady,
    .looks = kTorsionLooks,
    .virtualRig = "torque",
    .loadAtStrength = torqueOfSection,
};

} // namespace inchpeg
