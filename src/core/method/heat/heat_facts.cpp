// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/heat/heat_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kHeat[] = {
    {"heat_deflection_temperature", "heat-deflection temperature", Dimension::Temperature}};
constexpr Hazard kHeatDeflectionHazards[] = {Hazard::Hot, Hazard::Weights};
constexpr std::string_view kHeatDeflectionLayReady[] = {"the oven with a thermometer at the piece",
                                                        "heat-proof gloves"};
constexpr PlannedProperty kSoftening[] = {
    {"softening_temperature", "softening temperature", Dimension::Temperature}};
constexpr Hazard kSofteningHazards[] = {Hazard::Hot, Hazard::Weights};
constexpr std::string_view kSofteningLayReady[] = {"the oven with a thermometer at the piece",
                                                   "heat-proof gloves"};

} // namespace

constinit const MethodFacts kHeatDeflectionTest{
    .method = Method::HeatDeflection,
    .load = LoadKind::DeadMass_kg,
    .name = "heat deflection",
    .does = "is warmed under a constant load",
    .usualCv = 0.02,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 15.0,
    .speed = "120 K/h (ISO 75-1)",
    .properties = kHeat,
    .reduction = &kHeatDeflectionReduction,
    .hazards = kHeatDeflectionHazards,
    .layReady = kHeatDeflectionLayReady,
    .virtualRig = "oven",
    .isBeam = true,
    .isWarmed = true,
};

constinit const MethodFacts kSofteningTest{
    .method = Method::Softening,
    .load = LoadKind::None,
    .name = "softening",
    .does = "is warmed under a needle or its own weight",
    .usualCv = 0.02,
    .shape = "bar-80x10x4",
    .minutesPerPiece = 15.0,
    .speed = "50 or 120 K/h (ISO 306)",
    .properties = kSoftening,
    .reduction = &kSofteningReduction,
    .hazards = kSofteningHazards,
    .layReady = kSofteningLayReady,
    .bench = BenchMode::Oven,
    .virtualRig = "oven",
    .isWarmed = true,
};

} // namespace inchpeg
