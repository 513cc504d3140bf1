// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/tension/tensile.h"
#include "core/stats/summary.h"
#include "sim/virtual_specimen.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

constexpr double kArea_mm2 = 20.0;

std::vector<double> strengths(const sim::Polymer &polymer, const sim::PrintCondition &condition,
                              const sim::Rig &rig, int n)
{
    std::vector<double> values;
    for (int i = 0; i < n; ++i) {
        TensileParameters parameters;
        parameters.area = squareMillimetres(kArea_mm2);
        parameters.gaugeLength = millimetres(rig.gaugeLength_mm);
        const auto result = reduceTensile(
            sim::pull(polymer, condition, parameters.area, rig, static_cast<std::uint64_t>(i + 1)),
            parameters);
        EXPECT_TRUE(result);
        values.push_back(*result->tensileStrength_MPa);
    }
    return values;
}

} // namespace

TEST(VirtualSpecimen, TheReadingFindsTheTruthAgain)
{
    // 40 pieces with their own scatter: the mean stays within 3 standard errors.
    for (bool standing : {false, true}) {
        const sim::PrintCondition condition{standing, 0.0, 0.2};
        const Summary summary =
            summarise(strengths(sim::glycolPolyester(), condition, {.forceNoise_N = 0.3}, 40));
        EXPECT_NEAR(*summary.mean, sim::expectedStrength_MPa(sim::glycolPolyester(), condition),
                    3.0 * *summary.se)
            << standing;
    }
}

TEST(VirtualSpecimen, SameSeedSameRecord)
{
    const sim::Rig rig{.forceNoise_N = 0.5, .resolution_N = 0.1};
    const auto pulled = [&](std::uint64_t seed) {
        return sim::pull(sim::styrenic(), {}, squareMillimetres(20), rig, seed);
    };
    EXPECT_EQ(pulled(5), pulled(5));
    EXPECT_NE(pulled(5), pulled(6));
    // Kept from the first run, so that another machine or library that draws other numbers is noticed.
    const ForceCurve kept = pulled(5);
    ASSERT_EQ(kept.force_N.size(), 336U);
    EXPECT_EQ(kept.time_s.size(), 336U);
    EXPECT_NEAR(kept.force_N.at(50), 315.30000000000001, 1e-9);
    EXPECT_NEAR(kept.extension_mm.at(50), 0.41499999999999998, 1e-9);
    EXPECT_NEAR(kept.force_N.at(100), 555.89999999999998, 1e-9);
    EXPECT_NEAR(kept.extension_mm.at(100), 0.82999999999999996, 1e-9);
    EXPECT_NEAR(kept.force_N.at(316), 749.40000000000009, 1e-9);
    EXPECT_NEAR(kept.extension_mm.at(316), 2.6227999999999998, 1e-9);
}

TEST(VirtualSpecimen, LayersHoldBestNearTheTopAndFanWeakensThem)
{
    const sim::Polymer &polymer = sim::glycolPolyester();
    const auto at = [&](double nozzle_C, double fan) {
        return sim::expectedStrength_MPa(polymer, {true, nozzle_C, fan});
    };
    EXPECT_LT(at(220, 0), at(240, 0));
    EXPECT_GT(at(248, 0), at(290, 0));
    EXPECT_LT(at(248, 1), at(248, 0));
    EXPECT_LT(at(248, 0), polymer.strength_MPa);
}

TEST(VirtualSpecimen, TheGaugeStopsAtItsCapacity)
{
    const ForceCurve curve =
        sim::pull(sim::lowHeatPolyester(), {}, squareMillimetres(40), {.capacity_N = 500.0}, 1);
    EXPECT_EQ(*std::max_element(curve.force_N.begin(), curve.force_N.end()), 500.0);
}

} // namespace inchpeg
