// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/method.h"

#include "core/base/contract.h"
#include "core/method/bend_steps/bend_steps_reading.h"
#include "core/method/bending/bending_reading.h"
#include "core/method/creep/creep_reading.h"
#include "core/method/falling_weight/falling_weight_reading.h"
#include "core/method/flame/flame_reading.h"
#include "core/method/friction/friction_reading.h"
#include "core/method/grades/by_feel_reading.h"
#include "core/method/grades/felt_pairs_reading.h"
#include "core/method/grades/print_outcome_reading.h"
#include "core/method/hardness/hardness_reading.h"
#include "core/method/heat/heat_reading.h"
#include "core/method/impact/impact_reading.h"
#include "core/method/pull_out/pull_out_reading.h"
#include "core/method/puncture/puncture_reading.h"
#include "core/method/service/service_trial_reading.h"
#include "core/method/shear/double_shear_reading.h"
#include "core/method/shrinkage/shrinkage_reading.h"
#include "core/method/tension/tension_reading.h"
#include "core/method/torsion/stepped_torque_reading.h"
#include "core/method/torsion/torsion_reading.h"
#include "core/method/void_share/void_share_reading.h"
#include "core/method/warp/warp_reading.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr PlannedProperty kTension[] = {{"tensile_strength", "tensile strength", Dimension::Stress},
                                        {"tensile_modulus", "tensile modulus", Dimension::Stress},
                                        {"strain_at_break", "strain at break", Dimension::Ratio},
                                        {"toughness", "toughness", Dimension::EnergyDensity},
                                        {"peak_force", "peak force", Dimension::Force}};
constexpr PlannedProperty kLayer[] = {{"tensile_strength", "layer strength", Dimension::Stress},
                                      {"peak_force", "peak force", Dimension::Force}};
constexpr PlannedProperty kBending[] = {{"flexural_strength", "flexural strength", Dimension::Stress},
                                        {"flexural_modulus", "flexural modulus", Dimension::Stress},
                                        {"energy_to_break", "energy to break", Dimension::Energy}};
constexpr PlannedProperty kBendSteps[] = {{"apparent_modulus", "apparent modulus", Dimension::Stress},
                                          {"time_ratio", "growth under constant load", Dimension::Factor}};
constexpr PlannedProperty kImpact[] = {{"impact_strength", "impact strength", Dimension::EnergyPerArea},
                                       {"absorbed_energy", "absorbed energy", Dimension::Energy}};
constexpr PlannedProperty kFallingWeight[] = {{"failure_energy", "failure energy", Dimension::Energy}};
constexpr PlannedProperty kCreep[] = {{"creep_strain", "creep strain", Dimension::Ratio},
                                      {"creep_modulus", "creep modulus", Dimension::Stress},
                                      {"recovered_fraction", "recovered share", Dimension::Ratio}};
constexpr PlannedProperty kHeat[] = {
    {"heat_deflection_temperature", "heat-deflection temperature", Dimension::Temperature}};
constexpr PlannedProperty kSoftening[] = {
    {"softening_temperature", "softening temperature", Dimension::Temperature}};
constexpr PlannedProperty kShear[] = {{"shear_strength", "shear strength", Dimension::Stress},
                                      {"peak_force", "peak force", Dimension::Force}};
constexpr PlannedProperty kTorsion[] = {{"peak_torque", "peak torque", Dimension::Torque},
                                        {"torque_at_90", "torque at 90°", Dimension::Torque},
                                        {"shear_stress", "shear stress", Dimension::Stress}};
constexpr PlannedProperty kPullOut[] = {{"peak_force", "pull-out force", Dimension::Force},
                                        {"interface_shear", "interface shear", Dimension::Stress}};
constexpr PlannedProperty kPuncture[] = {{"peak_force", "puncture force", Dimension::Force},
                                         {"energy", "energy to break", Dimension::Energy}};
constexpr PlannedProperty kFriction[] = {{"static_friction", "static friction", Dimension::Number}};
constexpr PlannedProperty kShrinkage[] = {{"shrinkage_percent", "shrinkage", Dimension::Percent}};
constexpr PlannedProperty kStepped[] = {{"held_torque", "torque held", Dimension::Torque}};
constexpr PlannedProperty kHardness[] = {{"hardness", "Shore hardness", Dimension::Number}};
constexpr PlannedProperty kWarp[] = {{"warp", "warp", Dimension::Length},
                                     {"relative_warp", "warp over diagonal", Dimension::Ratio}};
constexpr PlannedProperty kVoidShare[] = {{"void_share", "void share", Dimension::Ratio},
                                          {"density", "apparent density", Dimension::Density}};
constexpr PlannedProperty kOutcome[] = {{"outcome", "print outcome", Dimension::Number},
                                        {"stringing", "freedom from strings", Dimension::Number},
                                        {"overhang", "overhangs", Dimension::Number},
                                        {"surface", "surface", Dimension::Number},
                                        {"corner_lift", "corner lift", Dimension::Length}};
constexpr PlannedProperty kByFeel[] = {{"grade", "grade by feel", Dimension::Number},
                                       {"repeat_gap", "steadiness of the grades", Dimension::Number}};
constexpr PlannedProperty kFeltPairs[] = {{"pair_share", "share of pairs won", Dimension::Number},
                                          {"changed_share", "steadiness of the answers", Dimension::Number}};
constexpr PlannedProperty kFlame[] = {{"goes_out", "going out", Dimension::Number},
                                      {"drips", "drips", Dimension::Number},
                                      {"smoke", "smoke", Dimension::Number},
                                      {"left", "what is left", Dimension::Number}};
constexpr PlannedProperty kService[] = {{"service_hours", "hours in service", Dimension::Number},
                                        {"stiffness", "stiffness felt", Dimension::Number},
                                        {"confidence", "confidence", Dimension::Number},
                                        {"cracks", "cracks heard", Dimension::Number}};

constexpr MethodFacts kMethods[] = {
    {Method::Tension, LoadKind::Force_N, "tension", "is pulled apart in the plane of its layers", 0.04,
     "dogbone-1ba", 6.0, "1 mm/min up to 0.3 % strain, then 5 or 50 mm/min (ISO 527-1 and ISO 527-2)",
     kTension, &kTensileReduction},
    {Method::LayerAdhesion, LoadKind::Force_N, "layer adhesion", "is pulled apart across its layers", 0.08,
     "standing-mini", 5.0, "1 to 5 mm/min (common practice)", kLayer, &kTensileReduction},
    {Method::Bending, LoadKind::Force_N, "bending", "is bent between three points", 0.05, "bar-80x10x4", 6.0,
     "2 mm/min for 4 mm thickness and 64 mm span: 1 % strain a minute (ISO 178)", kBending,
     &kFlexuralReduction},
    {Method::BendSteps, LoadKind::DeadMass_kg, "bending under dead weights",
     "carries one dead weight after another", 0.06, "bar-80x10x4", 10.0,
     "each load 60 s, read at 1, 30 and 60 s (common practice)", kBendSteps, &kBendStepsReduction},
    {Method::Impact, LoadKind::Energy_J, "impact", "is struck by a pendulum", 0.15, "notched-80x10x4", 3.0,
     "2.9 m/s for pendulums up to 5 J (ISO 179-1)", kImpact, &kPendulumReduction},
    {Method::FallingWeight, LoadKind::None, "falling weight", "is struck by a falling weight", 0.20,
     "plate-60x60x2", 4.0, "drops of 5 cm to 1.3 m, 1 to 5 m/s (common practice)", kFallingWeight,
     &kFallingWeightReduction},
    {Method::Creep, LoadKind::DeadMass_kg, "creep", "carries a constant load for days", 0.08, "bar-80x10x4",
     10.0, "read at 1 min, 1 h and once a day for five days (common practice)", kCreep, &kCreepReduction},
    {Method::HeatDeflection, LoadKind::DeadMass_kg, "heat deflection", "is warmed under a constant load",
     0.02, "bar-80x10x4", 15.0, "120 K/h (ISO 75-1)", kHeat, &kHeatDeflectionReduction},
    {Method::Softening, LoadKind::None, "softening", "is warmed under a needle or its own weight", 0.02,
     "bar-80x10x4", 15.0, "50 or 120 K/h (ISO 306)", kSoftening, &kSofteningReduction},
    {Method::DoubleShear, LoadKind::Force_N, "double shear", "is cut through as a pin in a fork", 0.06,
     "shear-pin-8", 4.0, "1 to 5 mm/min (common practice)", kShear, &kDoubleShearReduction},
    {Method::Torsion, LoadKind::Torque_Nm, "torsion", "is twisted", 0.08, "torsion-bar-8", 6.0,
     "by hand or 90° a minute (common practice)", kTorsion, &kTorsionReduction},
    {Method::PullOut, LoadKind::Force_N, "pull-out", "has its insert pulled out", 0.10, "insert-core-12", 5.0,
     "1 to 10 mm/min (common practice)", kPullOut, &kPullOutReduction},
    {Method::Puncture, LoadKind::Force_N, "puncture", "is pressed through by a probe", 0.08, "cube-20", 4.0,
     "10 mm/min (common practice)", kPuncture, &kPunctureReduction},
    {Method::Friction, LoadKind::None, "friction", "is towed under a known mass", 0.08, "cube-20", 3.0,
     "three pulls at about 100 mm/min (common practice)", kFriction, &kFrictionReduction},
    {Method::Shrinkage, LoadKind::None, "shrinkage", "is measured along a known length", 0.10, "bar-80x10x4",
     1.0, "none", kShrinkage, &kShrinkageReduction},
    {Method::SteppedTorque, LoadKind::None, "stepped torque", "is turned harder step by step", 0.12,
     "cube-20", 5.0, "steps of a tenth of what is expected, 10 s each (common practice)", kStepped,
     &kSteppedTorqueReduction},
    {Method::Hardness, LoadKind::None, "hardness", "is pressed by a durometer", 0.03, "bar-80x10x4", 3.0,
     "five readings, 15 s each (ISO 868)", kHardness, &kHardnessReduction},
    {Method::Warp, LoadKind::None, "warp", "is laid on a flat plate and its corners are measured", 0.25,
     "plate-60x60x2", 2.0, "none", kWarp, &kWarpReduction},
    {Method::VoidShare, LoadKind::None, "mass and void share", "is weighed and measured", 0.05, "cube-20",
     1.0, "none", kVoidShare, &kVoidShareReduction},
    {Method::PrintOutcome, LoadKind::None, "print outcome", "is looked at and graded", 0.20, "cube-20", 2.0,
     "none", kOutcome, &kPrintOutcomeReduction},
    {Method::ByFeel, LoadKind::None, "by feel", "is bent or pulled by hand and graded, blind and twice", 0.20,
     "standing-mini", 2.0, "by hand", kByFeel, &kByFeelReduction},
    {Method::FeltPairs, LoadKind::None, "pairs by feel", "is held against others, two at a time, blind", 0.20,
     "bar-80x10x4", 2.0, "by hand", kFeltPairs, &kFeltPairsReduction},
    {Method::Flame, LoadKind::None, "flame and hot contact", "is held to a flame or a hot tool, and watched",
     0.20, "bar-80x10x4", 5.0, "ten seconds of flame (common practice)", kFlame, &kFlameReduction},
    {Method::ServiceTrial, LoadKind::None, "service trial", "is used in its place", 0.30, "cube-20", 5.0,
     "as the part is used", kService, &kServiceTrialReduction},
};

} // namespace

std::span<const MethodFacts> allMethods()
{
    return kMethods;
}

const MethodFacts &factsOf(Method method)
{
    const auto found = std::find_if(std::begin(kMethods), std::end(kMethods),
                                    [method](const MethodFacts &facts) { return facts.method == method; });
    require(found != std::end(kMethods), "unknown method");
    return *found;
}

std::string_view methodName(Method method)
{
    return factsOf(method).name;
}

std::optional<Method> methodFrom(std::string_view name)
{
    for (const MethodFacts &facts : kMethods) {
        if (facts.name == name)
            return facts.method;
    }
    return std::nullopt;
}

bool readsRecords(Method method)
{
    return reductionOf(method) != nullptr;
}

const Reduction *reductionOf(Method method)
{
    return factsOf(method).reduction;
}

Property usualProperty(Method method)
{
    const PlannedProperty &planned = factsOf(method).properties.front();
    if (const Reduction *reduction = reductionOf(method)) {
        if (const Result<Property> read = findProperty(*reduction, planned.name))
            return *read;
    }
    return {planned.name, planned.label, planned.dimension, "Records of this test are not read yet"};
}

const MarkerKind *findMarker(Method method, std::string_view name)
{
    const Reduction *reduction = reductionOf(method);
    if (reduction == nullptr)
        return nullptr;
    const auto found = std::find_if(reduction->markers.begin(), reduction->markers.end(),
                                    [&](const MarkerKind &kind) { return kind.name == name; });
    return found == reduction->markers.end() ? nullptr : &*found;
}

std::span<const Reduction *const> allReductions()
{
    static const std::vector<const Reduction *> all = [] {
        std::vector<const Reduction *> found;
        for (const MethodFacts &facts : kMethods) {
            if (facts.reduction != nullptr &&
                std::find(found.begin(), found.end(), facts.reduction) == found.end())
                found.push_back(facts.reduction);
        }
        return found;
    }();
    return all;
}

Result<Property> findProperty(const Reduction &reduction, std::string_view name)
{
    std::string known;
    for (const Property &property : reduction.properties) {
        if (property.name == name)
            return property;
        known += (known.empty() ? "" : ", ") + std::string(property.name);
    }
    return Error{
        ErrorCode::NotFound, fmt::format("there is no property \"{}\"; known are {}", name, known), {}};
}

std::optional<std::size_t> placedSample(const PlacedMarkers &placed, std::string_view name)
{
    const auto found = placed.find(name);
    return found != placed.end() && found->second
               ? std::optional(static_cast<std::size_t>(std::max(0.0, *found->second)))
               : std::nullopt;
}

std::string_view orientationName(Orientation orientation)
{
    return orientation == Orientation::Flat ? "flat" : "standing";
}

Orientation usualOrientation(Method method)
{
    return method == Method::LayerAdhesion ? Orientation::Standing : Orientation::Flat;
}

std::optional<Orientation> orientationFrom(std::string_view name)
{
    for (const Orientation orientation : {Orientation::Flat, Orientation::Standing}) {
        if (orientationName(orientation) == name)
            return orientation;
    }
    return std::nullopt;
}

} // namespace inchpeg
