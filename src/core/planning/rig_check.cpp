// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/rig_check.h"

#include "core/base/article.h"
#include "core/planning/dead_load.h"
#include "core/specimen/section_modulus.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kComfortableShare = 0.8;
constexpr double kLeastPendulumShare = 0.1;
constexpr double kMostLoadOff =
    0.05; ///< of a dead load; more is another stress than was planned (common practice)
constexpr double kLeastSteps = 200.0; ///< of the resolution: half a percent each

Force forceOfStress(const PlannedTest &test, double stress_MPa)
{
    const Fixture fixture = mayBeCantilever(test.method) ? test.setup.fixture : Fixture::ThreePoint;
    return bendingForce(megapascals(stress_MPa), test.shape, fixture, bentLength_mm(test));
}

double area_mm2(const SpecimenShape &shape)
{
    const Result<Area> area = areaOf(nominalSection(shape));
    return area ? in_mm2(*area) : 0.0;
}

std::optional<double> loadOfStrength(const PlannedTest &test, double strength)
{
    const auto loadAtStrength = factsOf(test.method).loadAtStrength;
    return loadAtStrength == nullptr
               ? std::nullopt
               : std::optional(loadAtStrength({test.shape, bentLength_mm(test)}, strength));
}

bool fitsKind(LoadKind kind, RigKind rig)
{
    switch (kind) {
    case LoadKind::Force_N:
        return rig == RigKind::Frame || rig == RigKind::HandGauge;
    case LoadKind::Energy_J:
        return rig == RigKind::Pendulum;
    case LoadKind::Torque_Nm:
        return rig == RigKind::TorqueGauge;
    case LoadKind::DeadMass_kg:
        return rig == RigKind::DeadWeights;
    case LoadKind::None:
        return rig == RigKind::Oven || rig == RigKind::Frame || rig == RigKind::HandGauge;
    }
    throw ContractViolation("unknown kind of load");
}

RigVerdict checkPendulum(const ExpectedLoad &load, const RigCard &rig, double share)
{
    const std::string energy = marked(load.value, Dimension::Energy, 3);
    const std::string wanted =
        fmt::format("a pendulum of {} to {}", marked(load.value / kComfortableShare, Dimension::Energy, 2),
                    marked(load.value / kLeastPendulumShare, Dimension::Energy, 2));
    const std::string percent = fmt::format("{:.0f} %", 100.0 * share);
    if (share > kComfortableShare)
        return {share > 1.0 ? RigFit::Beyond : RigFit::NearLimit, share,
                fmt::format("{} expected is {} of {}; between 10 and 80 % is wanted: {}.", energy, percent,
                            rig.name, wanted)};
    if (share < kLeastPendulumShare)
        return {RigFit::TooSmall, share,
                fmt::format("{} expected is only {} of {}; between 10 and 80 % is wanted: {}.", energy,
                            percent, rig.name, wanted)};
    return {
        RigFit::InRange, share,
        fmt::format("{} expected is {} of {}; between 10 and 80 % is wanted.", energy, percent, rig.name)};
}

RigVerdict checkDeadWeights(const ExpectedLoad &load, const RigCard &rig, double share)
{
    const std::string mass = marked(load.value, Dimension::Mass, 4);
    if (share > 1.0)
        return {RigFit::Beyond, share,
                fmt::format("{} are needed, {} holds {}; take a thinner bar or a wider span.", mass, rig.name,
                            marked(rig.range, Dimension::Mass, 4))};
    if (rig.resolution > 0.0 && load.value < 0.5 * rig.resolution)
        return {RigFit::TooSmall, share,
                fmt::format("{} are needed, less than the smallest weight of {}; take a thicker bar.", mass,
                            rig.name)};
    const double step = rig.resolution > 0.0 ? rig.resolution : load.value;
    const double nearest = std::round(load.value / step) * step;
    const double off = nearest / load.value - 1.0;
    if (std::abs(off) > kMostLoadOff)
        return {RigFit::TooCoarse, share,
                fmt::format(
                    "{} are needed; the nearest from {} is {}, {:+.0f} % off: smaller weights are wanted, or "
                    "a stress that its steps can make.",
                    mass, rig.name, marked(nearest, Dimension::Mass, 4), 100.0 * off)};
    return {RigFit::InRange, share,
            std::abs(off) < 0.005
                ? fmt::format("{} are needed; {} can be put together from {}.", mass,
                              marked(nearest, Dimension::Mass, 4), rig.name)
                : fmt::format("{} are needed; the nearest from {} is {}, {:+.1f} % off: make up the rest, or "
                              "note the stress that it gives.",
                              mass, rig.name, marked(nearest, Dimension::Mass, 4), 100.0 * off)};
}

RigVerdict checkRange(const PlannedTest &test, const ExpectedLoad &load, const RigCard &rig, double share)
{
    const Dimension dimension = dimensionOf(load.kind);
    const std::string peak = marked(load.value, dimension, 3);
    const std::string range = marked(rig.range, dimension, 3);
    const std::string largerGauge =
        fmt::format("a gauge of {} or more", marked(load.value / kComfortableShare, dimension, 2));
    const std::string smallerSection =
        factsOf(test.method).isStrengthOverArea
            ? fmt::format("a section of {} instead of {}, or ",
                          marked(area_mm2(test.shape) * kComfortableShare / share, Dimension::Area, 2),
                          marked(area_mm2(test.shape), Dimension::Area, 3))
            : std::string();
    if (share > 1.0)
        return {RigFit::Beyond, share,
                fmt::format("{} expected is beyond {} ({}): a record would only say \"at least\". Take {}{}.",
                            peak, rig.name, range, smallerSection, largerGauge)};
    if (share > kComfortableShare)
        return {RigFit::NearLimit, share,
                fmt::format("{} expected is {:.0f} % of {} ({}): the strongest pieces may go beyond. Take "
                            "{}{}.",
                            peak, 100.0 * share, rig.name, range, smallerSection, largerGauge)};
    if (rig.resolution > 0.0 && load.value < kLeastSteps * rig.resolution)
        return {
            RigFit::TooSmall, share,
            fmt::format("{} expected is only {:.0f} steps of {}'s resolution; 200 or more are wanted, so "
                        "that one step is at most half a percent. Take a larger section or a finer gauge.",
                        peak, load.value / rig.resolution, rig.name)};
    return {RigFit::InRange, share,
            fmt::format("{} expected is {:.0f} % of {} ({}).", peak, 100.0 * share, rig.name, range)};
}

} // namespace

bool isUnderDeadLoad(Method method)
{
    return factsOf(method).load == LoadKind::DeadMass_kg;
}

double bentLength_mm(const PlannedTest &test)
{
    return bentLength_mm(test.setup, test.shape, test.method);
}

std::string_view rigFitName(RigFit fit)
{
    switch (fit) {
    case RigFit::Unknown:
        return "unknown";
    case RigFit::WrongKind:
        return "wrong kind";
    case RigFit::TooSmall:
        return "too small";
    case RigFit::TooCoarse:
        return "too coarse";
    case RigFit::InRange:
        return "in range";
    case RigFit::NearLimit:
        return "near the limit";
    case RigFit::Beyond:
        return "beyond";
    }
    throw ContractViolation("unknown fit");
}

Dimension dimensionOf(LoadKind kind)
{
    switch (kind) {
    case LoadKind::Energy_J:
        return Dimension::Energy;
    case LoadKind::Torque_Nm:
        return Dimension::Torque;
    case LoadKind::DeadMass_kg:
        return Dimension::Mass;
    case LoadKind::Force_N:
    case LoadKind::None:
        return Dimension::Force;
    }
    throw ContractViolation("unknown kind of load");
}

std::optional<ExpectedLoad> expectedLoad(const Study &study, const PlannedTest &test,
                                         const Condition &condition, const OwnResults &own)
{
    const MethodFacts &facts = factsOf(test.method);
    if (isUnderDeadLoad(test.method)) {
        const Force force = forceOfStress(test, test.setup.stress_MPa);
        return ExpectedLoad{
            facts.load, deadMass(force).si(),
            fmt::format("{} in the outer fibre", marked(test.setup.stress_MPa, Dimension::Stress, 3))};
    }
    if (facts.load == LoadKind::None)
        return std::nullopt;
    // A typed load is taken as it is for the reference; else the strength that breaks the section.
    if (test.setup.expected && test.property.dimension == dimensionOf(facts.load)) {
        const std::optional<ExpectedValue> typed = expectedValue(study, test, condition, own);
        return typed ? std::optional(ExpectedLoad{facts.load, typed->value, typed->source}) : std::nullopt;
    }
    PlannedTest byStrength = test;
    for (const PlannedProperty &property : facts.properties) {
        if (property.name == strengthName(test.method))
            byStrength.property = property;
    }
    const bool otherProperty = byStrength.property.name != test.property.name;
    if (otherProperty)
        byStrength.setup.expected.reset();
    const std::optional<ExpectedValue> strength =
        expectedValue(study, byStrength, condition, otherProperty ? OwnResults{} : own);
    const std::optional<double> load = strength ? loadOfStrength(byStrength, strength->value) : std::nullopt;
    if (!load)
        return std::nullopt;
    return ExpectedLoad{facts.load, *load, strength->source};
}

RigVerdict checkRig(const PlannedTest &test, const std::optional<ExpectedLoad> &load, const RigCard *rig)
{
    const LoadKind kind = factsOf(test.method).load;
    if (rig != nullptr && !fitsKind(kind, rig->kind))
        return {RigFit::WrongKind, 0.0,
                fmt::format("{} is {}; it cannot be used for {}.", rig->name,
                            withArticle(rigKindName(rig->kind)), methodName(test.method))};
    if (kind == LoadKind::None)
        return {RigFit::Unknown, 0.0, fmt::format("{} puts no load on a gauge.", methodName(test.method))};
    if (!load)
        return {
            RigFit::Unknown, 0.0,
            "Nothing is known of the strength: type what you expect, to see whether the gauge can read it."};
    if (rig == nullptr)
        return {RigFit::Unknown, 0.0,
                fmt::format("{} expected; choose a rig to see whether it can read that.",
                            marked(load->value, dimensionOf(kind), 3))};
    const double share = load->value / rig->range;
    if (kind == LoadKind::Energy_J)
        return checkPendulum(*load, *rig, share);
    if (kind == LoadKind::DeadMass_kg)
        return checkDeadWeights(*load, *rig, share);
    return checkRange(test, *load, *rig, share);
}

const RigCard *bestRig(const Workshop &workshop, LoadKind kind, double load)
{
    const RigCard *best = nullptr;
    for (const RigCard &rig : workshop.rigs) {
        if (!fitsKind(kind, rig.kind) || rig.range <= 0.0)
            continue;
        const double share = load / rig.range;
        const bool inRange =
            kind == LoadKind::DeadMass_kg
                ? share <= 1.0
                : share <= kComfortableShare && (kind != LoadKind::Energy_J || share >= kLeastPendulumShare);
        if (inRange && (best == nullptr || rig.range < best->range))
            best = &rig;
    }
    return best;
}

RunEstimate runEstimate(const PlannedTest &test, double travel_mm, const RigCard *rig)
{
    RunEstimate estimate;
    if (!(test.setup.speed_mm_per_min > 0.0))
        return estimate;
    estimate.seconds = 60.0 * travel_mm / test.setup.speed_mm_per_min;
    estimate.samples = rig != nullptr ? std::floor(estimate.seconds * rig->rate_Hz) : 0.0;
    return estimate;
}

} // namespace inchpeg
