// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/falling_weight/falling_weight.h"
#include "core/method/method.h"
#include "core/reading/piece_reading.h"
#include "sim/virtual_drops.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

constexpr double kGravity = 9.80665;

Drops kilogram(double height_mm, bool failed, std::optional<double> held_mm = {})
{
    return {Mass::fromSi(1.0), millimetres(height_mm), failed,
            held_mm ? std::optional(millimetres(*held_mm)) : std::nullopt};
}

Result<PieceReading> readTyped(const std::string &table, double mass_kg)
{
    return readPiece({PieceId{1},
                      std::make_shared<const std::string>(table),
                      {},
                      {reductionOf(Method::FallingWeight), {{{"mass", mass_kg}}, {}}, {}, "A1"}});
}

} // namespace

// By hand: 1 kg from 0.4 m has 3.92266 J, from 0.5 m 4.903325 J; midway 4.4129925 J; the gap of 0.980665 J
// over √12 is 0.283094 J; √(2 · 9.80665 · 0.5) = 3.13156 m/s.
TEST(FallingWeight, MidwayBetweenTheDropThatHeldAndTheOneThatBroke)
{
    const Result<FallingWeightResult> result = reduceFallingWeight(kilogram(500.0, true, 400.0));
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(*result->failureEnergy_J, 4.4129925), 12);
    EXPECT_GE(matchingDigits(result->dropEnergy_J, 4.903325), 12);
    EXPECT_GE(matchingDigits(*result->uncertainty_J, 0.980665 / std::sqrt(12.0)), 12);
    EXPECT_NEAR(result->speed_m_per_s, 3.13156, 1e-5);
    EXPECT_FALSE(result->atLeast);
    EXPECT_TRUE(result->warnings.empty());
}

TEST(FallingWeight, APieceThatHeldIsABoundAndOneDropThatBrokeItSaysOnlyLess)
{
    const Result<FallingWeightResult> held = reduceFallingWeight(kilogram(500.0, false, 400.0));
    ASSERT_TRUE(held);
    EXPECT_TRUE(held->atLeast);
    EXPECT_GE(matchingDigits(*held->failureEnergy_J, 0.5 * kGravity), 12);
    const Result<FallingWeightResult> once = reduceFallingWeight(kilogram(500.0, true));
    ASSERT_TRUE(once);
    EXPECT_FALSE(once->failureEnergy_J);
    ASSERT_FALSE(once->warnings.empty());
    EXPECT_NE(once->warnings.front().find("only drop"), std::string::npos);
    const Result<FallingWeightResult> first = reduceFallingWeight(kilogram(500.0, true, 0.0));
    ASSERT_TRUE(first);
    EXPECT_GE(matchingDigits(*first->failureEnergy_J, 0.25 * kGravity), 12);
    EXPECT_EQ(first->warnings.back(), "it failed at its first drop: start lower");
}

TEST(FallingWeight, RefusesWhatMakesNoSense)
{
    EXPECT_FALSE(reduceFallingWeight(kilogram(0.0, true)));
    EXPECT_FALSE(reduceFallingWeight(kilogram(500.0, true, 500.0)));
    EXPECT_FALSE(reduceFallingWeight({Mass::fromSi(0.0), millimetres(500.0), true, {}}));
    const Result<FallingWeightResult> refused = reduceFallingWeight(kilogram(500.0, true, 600.0));
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("600 mm"), std::string::npos);
}

TEST(FallingWeight, TwoHundredVirtualPiecesFailWithinTheirLastStep)
{
    int held = 0;
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE(seed);
        Random random(seed);
        const sim::DropRig rig{.mass_kg = 0.3 + 1.7 * random.uniform(),
                               .start_mm = 50.0 + 50.0 * random.uniform(),
                               .step_mm = 10.0 + 40.0 * random.uniform(),
                               .top_mm = 900.0};
        const double truth_J = rig.mass_kg * kGravity * (0.12 + 0.9 * random.uniform());
        const Result<PieceReading> reading = readTyped(sim::stepUpTable(truth_J, rig), rig.mass_kg);
        ASSERT_TRUE(reading) << reading.error().message;
        const ReadValue *value = valueOf(reading->result.values, "failure_energy");
        ASSERT_NE(value, nullptr);
        if (value->bound != BoundReason::None) {
            ++held;
            EXPECT_LE(value->number, truth_J);
            continue;
        }
        // Heights are written to a tenth of a millimetre.
        const double rounding_J = rig.mass_kg * kGravity * 1e-4;
        EXPECT_NEAR(value->number, truth_J, 0.5 * rig.mass_kg * kGravity * rig.step_mm / 1e3 + rounding_J);
        ASSERT_TRUE(value->uncertainty);
    }
    EXPECT_GT(held, 5); // the guide ends below what some bear
    EXPECT_LT(held, 60);
}

TEST(FallingWeight, ARowNeedsItsOutcome)
{
    const Result<PieceReading> reading = readTyped("height_mm\n400\n", 1.0);
    ASSERT_FALSE(reading);
    EXPECT_NE(reading.error().message.find("outcome"), std::string::npos);
}

} // namespace inchpeg
