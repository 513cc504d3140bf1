// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/impact/impact_reading.h"
#include "core/method/test_facts.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kImpact[] = {{"impact_strength", "impact strength", Dimension::EnergyPerArea},
                                       {"absorbed_energy", "absorbed energy", Dimension::Energy}};
constexpr Hazard kImpactHazards[] = {Hazard::Pendulum, Hazard::Fragments};
constexpr std::string_view kImpactLayReady[] = {"the pendulum, and a free swing before the first piece",
                                                "eye protection"};

/// kJ/m² times mm² is mJ.
double energyOfLigament(const HeldPiece &piece, double strength_kJ_per_m2)
{
    return forceOverArea(piece, strength_kJ_per_m2) / 1e3;
}

} // namespace

constinit const MethodFacts kImpactTest{
    .method = Method::Impact,
    .load = LoadKind::Energy_J,
    .name = "impact",
    .does = "is struck by a pendulum",
    .usualCv = 0.15,
    .shape = "notched-80x10x4",
    .minutesPerPiece = 3.0,
    .speed = "2.9 m/s for pendulums up to 5 J (ISO 179-1)",
    .properties = kImpact,
    .reduction = &kPendulumReduction,
    .hazards = kImpactHazards,
    .layReady = kImpactLayReady,
    .bench = BenchMode::Swing,
    .virtualRig = "pendulum",
    .loadAtStrength = energyOfLigament,
};

} // namespace inchpeg
