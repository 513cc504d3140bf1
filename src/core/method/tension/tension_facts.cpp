// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/tension/tension_reading.h"
#include "core/method/test_facts.h"
#include "core/method/usual_looks.h"

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kTension[] = {{"tensile_strength", "tensile strength", Dimension::Stress},
                                        {"tensile_modulus", "tensile modulus", Dimension::Stress},
                                        {"strain_at_break", "strain at break", Dimension::Ratio},
                                        {"toughness", "toughness", Dimension::EnergyDensity},
                                        {"peak_force", "peak force", Dimension::Force}};
constexpr Hazard kTensionHazards[] = {Hazard::Fragments};
constexpr BreakLook kTensionLooks[] = {kTorn, kNecked, kWhitened, kOnePlane, kAtGrips, kSlipped, kFlaw};
constexpr PlannedProperty kLayer[] = {{"tensile_strength", "layer strength", Dimension::Stress},
                                      {"peak_force", "peak force", Dimension::Force}};
constexpr Hazard kLayerAdhesionHazards[] = {Hazard::Fragments};
constexpr BreakLook kLayerAdhesionLooks[] = {kOnePlane, kTwoLayers, kTorn, kAtGrips, kSlipped, kFlaw};

} // namespace

constinit const MethodFacts kTensionTest{
    .method = Method::Tension,
    .load = LoadKind::Force_N,
    .name = "tension",
    .does = "is pulled apart in the plane of its layers",
    .usualCv = 0.04,
    .shape = "dogbone-1ba",
    .minutesPerPiece = 6.0,
    .speed = "1 mm/min up to 0.3 % strain, then 5 or 50 mm/min (ISO 527-1 and ISO 527-2)",
    .properties = kTension,
    .reduction = &kTensileReduction,
    .hazards = kTensionHazards,
    .layReady = kRigLayReady,
    .looks = kTensionLooks,
    .usualReadings = 3,
    .loadAtStrength = forceOverArea,
    .isStrengthOverArea = true,
};

constinit const MethodFacts kLayerAdhesionTest{
    .method = Method::LayerAdhesion,
    .load = LoadKind::Force_N,
    .name = "layer adhesion",
    .does = "is pulled apart across its layers",
    .usualCv = 0.08,
    .shape = "standing-mini",
    .minutesPerPiece = 5.0,
    .speed = "1 to 5 mm/min (common practice)",
    .properties = kLayer,
    .reduction = &kTensileReduction,
    .hazards = kLayerAdhesionHazards,
    .layReady = kRigLayReady,
    .looks = kLayerAdhesionLooks,
    .loadAtStrength = forceOverArea,
    .isStrengthOverArea = true,
    .isAcrossLayers = true,
};

} // namespace inchpeg
