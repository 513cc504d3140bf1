// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_specimen.h"

#include <algorithm>
#include <cmath>

namespace inchpeg::sim
{

namespace
{

constexpr Polymer kLowHeatPolyester{
    "low-heat polyester", 3300.0, 52.0, 0.035, 0.06, 0.66, 222.0, 42.0, 0.030};
constexpr Polymer kGlycolPolyester{
    "glycol-modified polyester", 2050.0, 47.0, 0.060, 0.12, 0.64, 248.0, 38.0, 0.035};
constexpr Polymer kStyrenic{"styrenic", 2150.0, 39.0, 0.045, 0.08, 0.52, 256.0, 36.0, 0.045};
constexpr Polymer kPolyamide{"polyamide", 1500.0, 44.0, 0.110, 0.05, 0.60, 266.0, 40.0, 0.050};

constexpr double kFanLoss = 0.22; ///< share of layer strength that full cooling costs
constexpr double kModulusScatter = 0.02;
constexpr double kStretchScatter = 0.12;
constexpr double kStandingStretch = 0.9; ///< standing pieces break before the curve bends far
constexpr int kSamplesAfterBreak = 6;

/// Stress over strain of the material: rises with slope E and bends over to its strength, then softens.
struct MaterialCurve {
    double modulus_MPa;
    double strength_MPa;
    double yieldStrain;
    double breakStrain;
    double softening;

    [[nodiscard]] double stress_MPa(double strain) const
    {
        if (strain <= 0.0)
            return 0.0;
        if (strain < yieldStrain) {
            // sigma = S (1 - (1 - e/ey)^k): slope E at the origin, level at the yield strain.
            const double k = modulus_MPa * yieldStrain / strength_MPa;
            return strength_MPa * (1.0 - std::pow(1.0 - strain / yieldStrain, k));
        }
        const double over = (strain - yieldStrain) / std::max(1e-9, breakStrain - yieldStrain);
        return strength_MPa * (1.0 - softening * std::sqrt(std::min(1.0, over)));
    }
};

MaterialCurve materialCurve(const Polymer &polymer, const PrintCondition &condition, Random &random)
{
    const double strength = drawnStrength(expectedStrength_MPa(polymer, condition), polymer.scatter, random);
    const double modulus =
        polymer.modulus_MPa * (condition.standing ? 0.93 : 1.0) * (1.0 + kModulusScatter * random.normal());
    const double stretch = std::max(0.5, 1.0 + kStretchScatter * random.normal());
    if (condition.standing) {
        // The weld gives way before the plane would: the same curve, cut off at the layers' strength.
        const double top = std::max(polymer.strength_MPa, 1.05 * strength);
        const double yieldStrain = 1.9 * top / modulus;
        MaterialCurve curve{modulus, top, yieldStrain, yieldStrain, 0.0};
        double low = 0.0;
        double high = yieldStrain * kStandingStretch;
        for (int i = 0; i < 60; ++i) {
            const double middle = 0.5 * (low + high);
            (curve.stress_MPa(middle) < strength ? low : high) = middle;
        }
        curve.breakStrain = low;
        return curve;
    }
    const double yieldStrain = 1.9 * strength / modulus;
    return {modulus, strength, yieldStrain, std::max(1.15 * yieldStrain, polymer.strainAtBreak * stretch),
            polymer.softening};
}

/// The stretch of the piece when the rig has moved this far: slack is taken up gradually.
double stretch_mm(double travel_mm, double slack_mm)
{
    if (slack_mm <= 0.0)
        return travel_mm;
    const double settled = 2.0 * slack_mm;
    return travel_mm < settled ? travel_mm * travel_mm / (2.0 * settled) : travel_mm - slack_mm;
}

} // namespace

double drawnStrength(double expected, double scatter, Random &random)
{
    return expected * (1.0 + scatter * random.normal());
}

double readBy(const Rig &rig, double force_N)
{
    if (rig.resolution_N > 0.0)
        force_N = std::round(force_N / rig.resolution_N) * rig.resolution_N;
    return rig.capacity_N > 0.0 ? std::min(force_N, rig.capacity_N) : force_N;
}

const Polymer &lowHeatPolyester()
{
    return kLowHeatPolyester;
}
const Polymer &glycolPolyester()
{
    return kGlycolPolyester;
}
const Polymer &styrenic()
{
    return kStyrenic;
}
const Polymer &polyamide()
{
    return kPolyamide;
}

double expectedStrength_MPa(const Polymer &polymer, const PrintCondition &condition)
{
    if (!condition.standing)
        return polymer.strength_MPa;
    const double off =
        condition.nozzle_C > 0.0 ? (condition.nozzle_C - polymer.bestNozzle_C) / polymer.nozzleReach_K : 0.0;
    const double weld = 1.0 / (1.0 + off * off);
    return polymer.strength_MPa * polymer.layerShare * weld * (1.0 - kFanLoss * condition.fanShare);
}

ForceCurve pull(const Polymer &polymer, const PrintCondition &condition, Area area, const Rig &rig,
                std::uint64_t seed)
{
    Random random(seed);
    const MaterialCurve material = materialCurve(polymer, condition, random);
    ForceCurve curve;
    int afterBreak = 0;
    for (std::size_t i = 0; afterBreak < kSamplesAfterBreak; ++i) {
        const double time_s = static_cast<double>(i) / rig.rate_Hz;
        const double travel_mm = rig.speed_mm_per_s * time_s;
        const double strain = stretch_mm(travel_mm, rig.slack_mm) / rig.gaugeLength_mm;
        const bool broken = strain > material.breakStrain;
        afterBreak += broken ? 1 : 0;
        const double force_N = broken ? 0.0 : material.stress_MPa(strain) * in_mm2(area);
        curve.force_N.push_back(readBy(rig, force_N + rig.forceNoise_N * random.normal()));
        curve.extension_mm.push_back(std::round(travel_mm * 1e5) / 1e5);
        curve.time_s.push_back(time_s);
    }
    return curve;
}

} // namespace inchpeg::sim
