// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/impact/pendulum.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

const PendulumRig kRig{0.5, 0.3, 150.0, 148.0};

Swing swingTo(double angle_deg, std::optional<BreakType> type = BreakType::Complete)
{
    return {angle_deg, millimetres(10.0), millimetres(4.0), {}, type};
}

PendulumResult readBlow(const Swing &swing, const PendulumRig &rig = kRig)
{
    const Result<PendulumResult> result = reducePendulum(swing, rig);
    EXPECT_TRUE(result) << (result ? "" : result.error().message);
    return *result;
}

} // namespace

TEST(Pendulum, AFreeSwingTakesNothing)
{
    EXPECT_NEAR(readBlow(swingTo(148.0)).absorbedEnergy_J, 0.0, 1e-12);
    EXPECT_GE(matchingDigits(hammerEnergy_J(kRig, 90.0), 0.5 * 9.80665 * 0.3), 12)
        << "m g arm at a right angle";
}

TEST(Pendulum, WithoutLossesTheEnergyIsTheMissingHeight)
{
    // Released level, hanging still after the blow: m g arm = 1.4709975 J, all of it.
    const PendulumResult all = readBlow(swingTo(0.0), {0.5, 0.3, 90.0, 90.0});
    EXPECT_GE(matchingDigits(all.absorbedEnergy_J, 1.4709975), 12);
    EXPECT_EQ(all.lossEnergy_J, 0.0);
    EXPECT_GE(matchingDigits(all.impactStrength_kJ_per_m2, 1.4709975 / 0.04), 12) << "over 4 × 10 mm²";
    EXPECT_GE(matchingDigits(all.energyPerThickness_J_per_m, 1.4709975 / 0.004), 12);
    // From 90° to 60°: m g arm cos 60° is half of it.
    EXPECT_GE(matchingDigits(readBlow(swingTo(60.0), {0.5, 0.3, 90.0, 90.0}).absorbedEnergy_J, 0.73549875),
              12);
}

TEST(Pendulum, LossesAreSharedOutOverTheAngle)
{
    const auto cosine = [](double angle) { return std::cos(angle * std::numbers::pi / 180.0); };
    const double moment = 0.5 * 9.80665 * 0.3;
    const double loss = moment * (cosine(148.0) - cosine(150.0)) * (150.0 + 120.0) / (150.0 + 148.0);
    const PendulumResult result = readBlow(swingTo(120.0));
    EXPECT_GE(matchingDigits(result.lossEnergy_J, loss), 12);
    EXPECT_GE(matchingDigits(result.absorbedEnergy_J, moment * (cosine(120.0) - cosine(150.0)) - loss), 12);
}

TEST(Pendulum, UnderANotchTheRemainingWidthCounts)
{
    Swing notched = swingTo(120.0);
    notched.remainingWidth = millimetres(8.0);
    EXPECT_GE(matchingDigits(readBlow(notched).impactStrength_kJ_per_m2,
                             readBlow(swingTo(120.0)).impactStrength_kJ_per_m2 * 10.0 / 8.0),
              12);
    EXPECT_EQ(readBlow(notched).energyPerThickness_J_per_m,
              readBlow(swingTo(120.0)).energyPerThickness_J_per_m);
}

TEST(Pendulum, NoBreakIsALowerBound)
{
    const PendulumResult result = readBlow(swingTo(30.0, BreakType::None));
    EXPECT_TRUE(result.atLeast);
    EXPECT_FALSE(result.validity.back().ok && result.validity.front().ok);
    EXPECT_FALSE(readBlow(swingTo(30.0, BreakType::Hinge)).atLeast);
}

TEST(Pendulum, WhatCannotBeIsRefused)
{
    EXPECT_FALSE(reducePendulum(swingTo(149.0), kRig)) << "a piece gives no energy";
    EXPECT_FALSE(reducePendulum(swingTo(10.0), {0.5, 0.3, 150.0, 151.0})) << "a hammer gains no height";
    EXPECT_FALSE(reducePendulum(swingTo(10.0), {0.0, 0.3, 150.0, 148.0}));
    Swing notch = swingTo(10.0);
    notch.remainingWidth = millimetres(11.0);
    EXPECT_FALSE(reducePendulum(notch, kRig));
}

} // namespace inchpeg
