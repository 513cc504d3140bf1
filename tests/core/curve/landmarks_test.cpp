// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/landmarks.h"
#include "core/curve/straight_line.h"
#include "sim/random.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

std::vector<double> rising(std::size_t n, double step)
{
    std::vector<double> values;
    for (std::size_t i = 0; i < n; ++i)
        values.push_back(step * static_cast<double>(i));
    return values;
}

} // namespace

TEST(Noise, OfASmoothCurveIsNothing)
{
    std::vector<double> cubicFree;
    for (int i = 0; i < 200; ++i)
        cubicFree.push_back(3.0 + 2.0 * i - 0.01 * i * i);
    EXPECT_LT(noiseOf(cubicFree).sigma, 1e-9);
}

TEST(Noise, FindsTheStandardDeviationUnderATrend)
{
    sim::Random random(7);
    std::vector<double> values;
    for (int i = 0; i < 20000; ++i)
        values.push_back(0.05 * i - 1e-6 * i * i + 0.3 * random.normal());
    // The standard error of a median absolute deviation from 20000 correlated values is about 1.5 %.
    EXPECT_NEAR(noiseOf(values).sigma, 0.3, 0.015);
}

TEST(Spikes, FindTheLoneReadingOnly)
{
    std::vector<double> values = rising(100, 1.0);
    values[40] = 300.0;
    EXPECT_EQ(loneSpikes(values, noiseOf(values)), std::vector<std::size_t>{40});
    std::vector<double> plateau = rising(100, 1.0);
    plateau[40] = plateau[41] = 300.0;
    EXPECT_TRUE(loneSpikes(plateau, noiseOf(plateau)).empty()) << "two readings are an event, not a spike";
}

TEST(Maximum, IsTheFirstThatStandsClear)
{
    std::vector<double> values = rising(50, 1.0);
    for (int i = 0; i < 10; ++i)
        values.push_back(45.0);
    for (int i = 0; i < 20; ++i)
        values.push_back(45.0 + i);
    EXPECT_EQ(firstClearMaximum(values, noiseOf(values)), 49U);
    EXPECT_FALSE(firstClearMaximum(rising(50, 1.0), noiseOf(rising(50, 1.0))));
}

TEST(Break, IsTheUpperEndOfTheFall)
{
    std::vector<double> force = rising(101, 1.0);
    std::vector<double> strain = rising(101, 1e-4);
    for (double after : {98.0, 70.0, 20.0, 1.0}) { // a fall over several samples
        force.push_back(after);
        strain.push_back(strain.back() + 1e-4);
    }
    const auto at = breakIndex(force, strain, 0.02, noiseOf(force));
    ASSERT_TRUE(at);
    EXPECT_GE(*at, 100U);
    EXPECT_LE(*at, 101U);
}

TEST(Break, SlowSofteningIsNone)
{
    std::vector<double> force = rising(100, 1.0);
    std::vector<double> strain = rising(100, 1e-3);
    for (int i = 0; i < 100; ++i) {
        force.push_back(99.0 - 0.9 * i);
        strain.push_back(strain.back() + 1e-3);
    }
    EXPECT_FALSE(breakIndex(force, strain, 0.02, noiseOf(force)));
}

TEST(Area, OfATriangle)
{
    EXPECT_DOUBLE_EQ(areaUnder(rising(11, 0.1), rising(11, 2.0), 10), 10.0);
    EXPECT_DOUBLE_EQ(areaUnder(rising(11, 0.1), rising(11, 2.0), 5), 2.5);
}

TEST(StraightLine, GoesThroughItsPoints)
{
    const std::vector<double> x{0.0, 1.0, 2.0};
    const std::vector<double> y{1.0, 3.0, 5.0};
    const auto line = fitLine(x, y);
    ASSERT_TRUE(line);
    EXPECT_GE(test::matchingDigits(line->slope, 2.0), 13);
    EXPECT_GE(test::matchingDigits(line->intercept, 1.0), 13);
    const std::vector<double> same{1.0, 1.0, 1.0};
    EXPECT_FALSE(fitLine(same, y));
}

} // namespace inchpeg
