// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_bars.h"

#include "core/base/contract.h"
#include "core/units/gravity.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace inchpeg::sim
{

namespace
{

struct Known {
    std::string_view polymer;
    BarFacts facts;
};

constexpr std::array kKnown = {
    Known{"low-heat polyester", {1.5, 0.038, 0.02, 0.45, 3.0, 0.0, 57.0, 2.0, 0.15}},
    Known{"glycol-modified polyester", {1.4, 0.080, 0.04, 0.26, 5.5, 0.0, 72.0, 2.5, 0.25}},
    Known{"styrenic", {1.5, 0.060, 0.06, 0.18, 13.0, 0.1, 94.0, 3.5, 0.6}},
    Known{"polyamide", {1.3, 0.090, 0.10, 0.22, 16.0, 0.4, 128.0, 14.0, 1.1}},
};

constexpr double kStroke = 0.055; ///< strain of the outer fibre at which a rig ends its stroke
constexpr double kBarModulusScatter = 0.02;
constexpr double kDial_mm = 0.01;
constexpr double kShrinkageScatter = 0.10;
constexpr int kLengthReadings = 3;
constexpr int kSamplesAfterFall = 6;

double onDial(double value_mm)
{
    return std::round(value_mm / kDial_mm) * kDial_mm;
}

/// Deflection in the middle by Hooke's law, without time.
double deflection_mm(double modulus_MPa, const Bar &bar, double force_N)
{
    return std::pow(bar.span_mm, 3.0) * force_N /
           (4.0 * bar.width_mm * std::pow(bar.thickness_mm, 3.0) * modulus_MPa);
}

double drawnModulus_MPa(const Polymer &polymer, Random &random)
{
    return polymer.modulus_MPa * (1.0 + kBarModulusScatter * random.normal());
}

/// How much further the bar has bent after a time under a stress: Findley's law, more than in proportion to
/// the stress where that is high.
double growthAfter(const Polymer &polymer, double stress_MPa, double time_h)
{
    const BarFacts &facts = barFacts(polymer);
    const double share = stress_MPa / (facts.flexuralOverTensile * polymer.strength_MPa);
    return 1.0 + facts.creepShare * (1.0 + 6.0 * share * share) * std::pow(time_h, facts.creepExponent);
}

} // namespace

const BarFacts &barFacts(const Polymer &polymer)
{
    const auto found = std::find_if(kKnown.begin(), kKnown.end(),
                                    [&](const Known &known) { return known.polymer == polymer.name; });
    require(found != kKnown.end(), "a polymer without facts about its bars");
    return found->facts;
}

ForceCurve bend(const Polymer &polymer, const Bar &bar, const Rig &rig, std::uint64_t seed)
{
    Random random(seed);
    const BarFacts &facts = barFacts(polymer);
    const double strength_MPa =
        drawnStrength(facts.flexuralOverTensile * polymer.strength_MPa, polymer.scatter, random);
    const double modulus_MPa = drawnModulus_MPa(polymer, random);
    const double breakStrain = facts.breakStrain * (1.0 + 0.1 * random.normal());
    const double levelStrain = 1.9 * strength_MPa / modulus_MPa; // the curve is level there
    const double bend = modulus_MPa * levelStrain / strength_MPa;
    const double force_N_per_MPa =
        2.0 * bar.width_mm * bar.thickness_mm * bar.thickness_mm / (3.0 * bar.span_mm);
    ForceCurve curve;
    int afterBreak = 0;
    for (std::size_t i = 0; afterBreak < kSamplesAfterFall; ++i) {
        const double time_s = static_cast<double>(i) / rig.rate_Hz;
        const double travel_mm = rig.speed_mm_per_s * time_s;
        const double strain =
            6.0 * std::max(0.0, travel_mm - rig.slack_mm) * bar.thickness_mm / (bar.span_mm * bar.span_mm);
        if (strain > kStroke)
            break;
        const bool broken = strain > breakStrain;
        afterBreak += broken ? 1 : 0;
        const double share = std::min(1.0, strain / levelStrain);
        const double stress_MPa = broken ? 0.0 : strength_MPa * (1.0 - std::pow(1.0 - share, bend));
        curve.force_N.push_back(
            readBy(rig, stress_MPa * force_N_per_MPa + rig.forceNoise_N * random.normal()));
        curve.extension_mm.push_back(std::round(travel_mm * 1e4) / 1e4);
        curve.time_s.push_back(time_s);
    }
    return curve;
}

std::string deadWeightTable(const Polymer &polymer, const Bar &bar, std::span<const double> masses_kg,
                            std::uint64_t seed)
{
    Random random(seed);
    const double modulus_MPa = drawnModulus_MPa(polymer, random);
    std::string text = "load_kg,time_s,deflection_mm\n";
    for (double mass_kg : masses_kg) {
        const double force_N = mass_kg * kStandardGravity_m_per_s2;
        const double stress_MPa =
            3.0 * force_N * bar.span_mm / (2.0 * bar.width_mm * bar.thickness_mm * bar.thickness_mm);
        for (double time_s : {1.0, 30.0, 60.0})
            text += fmt::format("{:g},{:g},{:.2f}\n", mass_kg, time_s,
                                onDial(deflection_mm(modulus_MPa, bar, force_N) *
                                       growthAfter(polymer, stress_MPa, time_s / 3600.0)));
    }
    return text;
}

std::string swingTable(const Polymer &polymer, const Bar &bar, double remainingWidth_mm,
                       const PendulumRig &rig, std::uint64_t seed)
{
    Random random(seed);
    const BarFacts &facts = barFacts(polymer);
    const bool bends = random.uniform() < facts.noBreakShare;
    const double drawn = facts.impact_kJ_per_m2 * (bends ? 1.6 : 1.0) * (1.0 + 0.12 * random.normal());
    const double energy_J =
        std::max(0.2 * facts.impact_kJ_per_m2, drawn) * remainingWidth_mm * bar.thickness_mm / 1e3;
    // The swing after which so much energy is missing, losses included.
    double low = 0.0;
    double high = rig.freeSwing_deg;
    for (int i = 0; i < 60; ++i) {
        const double middle = 0.5 * (low + high);
        const Result<PendulumResult> blow =
            reducePendulum({middle, millimetres(bar.width_mm), millimetres(bar.thickness_mm), {}, {}}, rig);
        require(blow.has_value(), "a rig that swings");
        (blow->absorbedEnergy_J > energy_J ? low : high) = middle;
    }
    const char kind = bends                     ? breakTypeLetter(BreakType::None)
                      : random.uniform() < 0.15 ? breakTypeLetter(BreakType::Hinge)
                                                : breakTypeLetter(BreakType::Complete);
    return fmt::format("swing_deg,remaining_width_mm,break\n{:.1f},{:.2f},{}\n", std::round(2.0 * low) / 2.0,
                       remainingWidth_mm, kind);
}

std::string creepTable(const Polymer &polymer, const Bar &bar, double stress_MPa,
                       std::span<const double> times_h, std::uint64_t seed)
{
    Random random(seed);
    const double first_mm =
        stress_MPa / drawnModulus_MPa(polymer, random) * bar.span_mm * bar.span_mm / (6.0 * bar.thickness_mm);
    std::string text = "time_h;deflection_mm\n";
    for (double time_h : times_h)
        text += fmt::format("{:g};{:.3f}\n", time_h,
                            first_mm * growthAfter(polymer, stress_MPa, time_h) + 0.002 * random.normal());
    return text;
}

WarmingRecord warm(const Polymer &polymer, const Bar &bar, double stress_MPa, double end_C,
                   std::uint64_t seed)
{
    Random random(seed);
    const BarFacts &facts = barFacts(polymer);
    const double softens_C = facts.softens_C + 0.8 * random.normal();
    const double modulus_MPa = drawnModulus_MPa(polymer, random);
    WarmingRecord record;
    for (int i = 0;; ++i) {
        const double time_s = 10.0 * i;
        const double temperature_C = 23.0 + 120.0 * time_s / 3600.0;
        if (temperature_C > end_C)
            return record;
        // The modulus falls to a hundredth around the softening temperature.
        const double left =
            0.01 + 0.99 / (1.0 + std::exp((temperature_C - softens_C) / facts.softeningWidth_K));
        const double strain = stress_MPa / (modulus_MPa * left);
        const double sag_mm = strain * bar.span_mm * bar.span_mm / (6.0 * bar.thickness_mm);
        record.time_s.push_back(time_s);
        record.temperature_C.push_back(std::round((temperature_C + 0.05 * random.normal()) * 100.0) / 100.0);
        record.deflection_mm.push_back(std::round((sag_mm + 0.001 * random.normal()) * 1e4) / 1e4);
    }
}

std::string warmingTable(const WarmingRecord &record)
{
    std::string text = "time_s,temperature_C,deflection_mm\n";
    for (std::size_t i = 0; i < record.time_s.size(); ++i)
        text += fmt::format("{:g},{:.2f},{:.4f}\n", record.time_s[i], record.temperature_C[i],
                            record.deflection_mm[i]);
    return text;
}

std::string lengthTable(const Polymer &polymer, double nominal_mm, std::uint64_t seed)
{
    Random random(seed);
    const double shrinkage =
        0.01 * barFacts(polymer).shrinkage_percent * (1.0 + kShrinkageScatter * random.normal());
    std::string text = "length_mm\n";
    for (int i = 0; i < kLengthReadings; ++i)
        text += fmt::format("{:.2f}\n", onDial(nominal_mm * (1.0 - shrinkage) + kDial_mm * random.normal()));
    return text;
}

} // namespace inchpeg::sim
