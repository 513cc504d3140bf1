// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bend_steps/bend_steps_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

/// After each weight (common practice).
constexpr double kDeadWeightReadings_s[] = {1.0, 30.0, 60.0};
constexpr PlannedProperty kBendSteps[] = {{"apparent_modulus", "apparent modulus", Dimension::Stress},
                                          {"time_ratio", "growth under constant load", Dimension::Factor}};
constexpr Hazard kBendStepsHazards[] = {Hazard::Weights, Hazard::Fragments};
constexpr std::string_view kBendStepsLayReady[] = {"the dead weights", "a displacement gauge", "a catch box",
                                                   "a clock"};

} // namespace

constinit const MethodFacts kBendStepsTest{
    .method = Method::BendSteps,
    .load = LoadKind::DeadMass_kg,
    .name = "bending under dead weights",
    .does = "carries one dead weight after another",
    .usualCv = 0.06,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 10.0,
    .speed = "each load 60 s, read at 1, 30 and 60 s (common practice)",
    .properties = kBendSteps,
    .reduction = &kBendStepsReduction,
    .hazards = kBendStepsHazards,
    .layReady = kBendStepsLayReady,
    .bench = BenchMode::Timed,
    .virtualRig = "dial",
    .due_s = kDeadWeightReadings_s,
    .isBeam = true,
    .mayBeCantilever = true,
};

} // namespace inchpeg
