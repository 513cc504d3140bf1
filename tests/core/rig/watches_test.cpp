// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/oven_trace.h"
#include "core/rig/slip_watch.h"
#include "sim/virtual_specimen.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

TEST(SlipWatch, NoticesAFallThatIsClimbedAgain)
{
    SlipWatch watch;
    std::size_t told = 0;
    for (int i = 0; i <= 400; ++i) {
        const double way = 0.01 * i;
        const double slipped = way > 1.5 ? 0.2 : 0.0; // the jaws let go of 0.2 mm
        told += watch.add(way, 300.0 * (way - slipped)) ? 1U : 0U;
    }
    EXPECT_EQ(told, 1U);
    EXPECT_EQ(watch.slips(), 1U);
    EXPECT_NEAR(watch.lastFall(), 0.2 / 1.5, 0.02);
}

TEST(SlipWatch, LeavesNoiseYieldAndBreakAlone)
{
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        sim::Rig rig;
        rig.forceNoise_N = 3.0;
        const ForceCurve curve = sim::pull(seed % 2 == 0 ? sim::glycolPolyester() : sim::polyamide(), {},
                                           squareMillimetres(40.0), rig, seed);
        SlipWatch watch;
        for (std::size_t i = 0; i < curve.force_N.size(); ++i)
            watch.add(curve.extension_mm[i], curve.force_N[i]);
        EXPECT_EQ(watch.slips(), 0U) << seed;
    }
}

TEST(OvenTrace, TellsTheRateOfItsLastMinutes)
{
    OvenTrace trace;
    EXPECT_FALSE(trace.latest_C());
    for (int t = 0; t <= 2400; t += 10) {
        trace.add(t, t < 1200 ? 23.0 + t * 300.0 / 3600.0 : 123.0 + (t - 1200) * 120.0 / 3600.0);
        if (t == 50) {
            EXPECT_FALSE(trace.rate_K_per_h()) << "less than a minute";
        }
    }
    EXPECT_NEAR(*trace.rate_K_per_h(), 120.0, 1e-6);
    EXPECT_NEAR(*trace.latest_C(), 163.0, 1e-9);
    trace.add(0.0, 25.0);
    EXPECT_EQ(*trace.latest_C(), 25.0);
    EXPECT_FALSE(trace.rate_K_per_h()) << "the logger began anew";
}

} // namespace inchpeg
