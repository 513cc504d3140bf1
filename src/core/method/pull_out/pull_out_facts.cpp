// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/pull_out/pull_out_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"

#include <numbers>

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kPullOut[] = {{"peak_force", "pull-out force", Dimension::Force},
                                        {"interface_shear", "interface shear", Dimension::Stress}};
constexpr Hazard kPullOutHazards[] = {Hazard::Fragments, Hazard::Hot};
constexpr std::string_view kPullOutLayReady[] = {"inserts and the setting tool",
                                                 "the rig with its gauge zeroed", "eye protection"};
constexpr BreakLook kPullOutLooks[] = {kInsertOut, kInsertBoss, kPopped, kStripped, kSplit, kScrewBroke};

/// Shear over the wall of the bore.
double forceOfBore(const HeldPiece &piece, double strength_MPa)
{
    return strength_MPa * std::numbers::pi * piece.shape.holeDiameter_mm * piece.shape.thickness_mm;
}

} // namespace

constinit const MethodFacts kPullOutTest{
    .method = Method::PullOut,
    .load = LoadKind::Force_N,
    .name = "pull-out",
    .does = "has its insert pulled out",
    .usualCv = 0.10,
    .shape = "insert-core-12",
    .minutesPerPiece = 5.0,
    .speed = "1 to 10 mm/min (common practice)",
    .properties = kPullOut,
    .reduction = &kPullOutReduction,
    .hazards = kPullOutHazards,
    .layReady = kPullOutLayReady,
    .looks = kPullOutLooks,
    .loadAtStrength = forceOfBore,
};

} // namespace inchpeg
