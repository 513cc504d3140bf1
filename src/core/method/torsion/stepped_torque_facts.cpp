// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/test_facts.h"
#include "core/method/torsion/stepped_torque_reading.h"
#include "core/method/usual_looks.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kStepped[] = {{"held_torque", "torque held", Dimension::Torque}};
constexpr Hazard kSteppedTorqueHazards[] = {Hazard::Torque, Hazard::Fragments};
constexpr std::string_view kSteppedTorqueLayReady[] = {"the torque wrench or gauge", "eye protection",
                                                       "a vice"};
constexpr BreakLook kSteppedTorqueLooks[] = {kRounded, kSplit, kStripped, kSheared, kScrewBroke};

} // namespace

constinit const MethodFacts kSteppedTorqueTest{
    .method = Method::SteppedTorque,
    .load = LoadKind::None,
    .name = "stepped torque",
    .does = "is turned harder step by step",
    .usualCv = 0.12,
    .shape = "cube-20",
    .minutesPerPiece = 5.0,
    .speed = "steps of a tenth of what is expected, 10 s each (common practice)",
    .properties = kStepped,
    .reduction = &kSteppedTorqueReduction,
    .hazards = kSteppedTorqueHazards,
    .layReady = kSteppedTorqueLayReady,
    .looks = kSteppedTorqueLooks,
    .bench = BenchMode::Steps,
};

} // namespace inchpeg
