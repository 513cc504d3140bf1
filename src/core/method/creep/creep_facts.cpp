// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/creep/creep_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr double kMinute_s = 60.0;
constexpr double kHour_s = 3600.0;
constexpr double kDay_s = 24.0 * kHour_s;
/// After the load was put on: at once, after a minute, an hour, then daily for five days (common practice).
constexpr double kCreepReadings_s[] = {0.0,          kMinute_s,    kHour_s,      kDay_s,
                                       2.0 * kDay_s, 3.0 * kDay_s, 4.0 * kDay_s, 5.0 * kDay_s};
constexpr PlannedProperty kCreep[] = {{"creep_strain", "creep strain", Dimension::Ratio},
                                      {"creep_modulus", "creep modulus", Dimension::Stress},
                                      {"recovered_fraction", "recovered share", Dimension::Ratio}};
constexpr Hazard kCreepHazards[] = {Hazard::Weights, Hazard::Fragments};
constexpr std::string_view kCreepLayReady[] = {"the dead weights", "a displacement gauge", "a catch box",
                                               "a clock"};

} // namespace

constinit const MethodFacts kCreepTest{
    .method = Method::Creep,
    .load = LoadKind::DeadMass_kg,
    .name = "creep",
    .does = "carries a constant load for days",
    .usualCv = 0.08,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 10.0,
    .speed = "read at 1 min, 1 h and once a day for five days (common practice)",
    .properties = kCreep,
    .reduction = &kCreepReduction,
    .hazards = kCreepHazards,
    .layReady = kCreepLayReady,
    .bench = BenchMode::Timed,
    .virtualRig = "dial",
    .due_s = kCreepReadings_s,
    .usualStress_MPa = 5.0,
    .isBeam = true,
    .mayBeCantilever = true,
    .isLeftUnderLoad = true,
};

} // namespace inchpeg
