// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bend_steps/bend_steps.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

const BendStepsParameters kBar{millimetres(10.0), millimetres(4.0), millimetres(50.0)};

BendStepsResult readSteps(const std::vector<LoadReading> &readings, const BendStepsParameters &bar = kBar)
{
    const Result<BendStepsResult> result = reduceBendSteps(readings, bar);
    EXPECT_TRUE(result) << (result ? "" : result.error().message);
    return *result;
}

} // namespace

TEST(BendSteps, EachLoadHasItsOwnAnswer)
{
    const BendStepsResult result = readSteps({{25.0, 1.0, 0.60},
                                              {25.0, 30.0, 0.606},
                                              {25.0, 60.0, 0.610},
                                              {50.0, 1.0, 1.20},
                                              {50.0, 30.0, 1.35},
                                              {50.0, 60.0, 1.50}});
    ASSERT_EQ(result.steps.size(), 2U);
    // L³F/(4bh³s) = 125000 × 25 / (4 × 10 × 64 × 0.61), by hand.
    EXPECT_GE(matchingDigits(*result.steps[0].apparentModulus_MPa, 125000.0 * 25.0 / 1561.6), 12);
    EXPECT_GE(matchingDigits(*result.steps[0].timeRatio, 0.61 / 0.60), 12);
    EXPECT_EQ(result.steps[0].steady, true) << "0.004 of 0.61 is less than 2 %";
    EXPECT_EQ(result.steps[1].steady, false) << "0.15 of 1.5 is 10 %";
    EXPECT_EQ(result.steadyLoad_N, 25.0);
    EXPECT_FALSE(result.neverMoved);
}

TEST(BendSteps, ACantileverBendsSixteenTimesAsFarAsABarOfItsLength)
{
    BendStepsParameters clamped = kBar;
    clamped.isCantilever = true;
    const std::vector<LoadReading> readings{{5.0, {}, 1.0}, {5.0, {}, 1.01}};
    EXPECT_GE(matchingDigits(*readSteps(readings, clamped).steps[0].apparentModulus_MPa,
                             16.0 * *readSteps(readings).steps[0].apparentModulus_MPa),
              12);
}

TEST(BendSteps, WhatOneReadingCannotTellIsLeftOpen)
{
    const BendStepsResult result = readSteps({{0.0, {}, 0.0}, {25.0, {}, 0.6}, {50.0, {}, 1.3}});
    ASSERT_EQ(result.steps.size(), 2U);
    EXPECT_FALSE(result.steps[0].timeRatio || result.steps[0].steady || result.steadyLoad_N);
    EXPECT_FALSE(result.validity[0].ok) << "a load is read once only";
    EXPECT_EQ(result.warnings.size(), 1U) << "the reading without a load";
    EXPECT_FALSE(reduceBendSteps(std::vector<LoadReading>{{0.0, {}, 0.1}}, kBar));
}

TEST(BendSteps, ABeamThatHoldsStillToTheEndGivesABound)
{
    const BendStepsResult result = readSteps({{25.0, 1.0, 0.6}, {25.0, 60.0, 0.6}});
    EXPECT_EQ(result.steadyLoad_N, 25.0);
    EXPECT_TRUE(result.neverMoved);
}

} // namespace inchpeg
