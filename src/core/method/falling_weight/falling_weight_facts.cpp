// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/falling_weight/falling_weight_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kFallingWeight[] = {{"failure_energy", "failure energy", Dimension::Energy}};
constexpr Hazard kFallingWeightHazards[] = {Hazard::Weights, Hazard::Fragments};
constexpr std::string_view kFallingWeightLayReady[] = {"the falling weight in its guide", "a catch box",
                                                       "eye protection"};

} // namespace

constinit const MethodFacts kFallingWeightTest{
    .method = Method::FallingWeight,
    .load = LoadKind::None,
    .name = "falling weight",
    .does = "is struck by a falling weight",
    .usualCv = 0.20,
    .shape = "plate-60x60x2",
    .minutesPerPiece = 4.0,
    .speed = "drops of 5 cm to 1.3 m, 1 to 5 m/s (common practice)",
    .properties = kFallingWeight,
    .reduction = &kFallingWeightReduction,
    .hazards = kFallingWeightHazards,
    .layReady = kFallingWeightLayReady,
    .bench = BenchMode::Steps,
};

} // namespace inchpeg
