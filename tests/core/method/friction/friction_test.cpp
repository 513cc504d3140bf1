// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/friction/friction.h"
#include "core/method/method.h"
#include "core/reading/piece_reading.h"
#include "sim/record_writer.h"
#include "sim/virtual_tow.h"
#include "support/matching_digits.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

FrictionParameters under(double mass_kg)
{
    return {Mass::fromSi(mass_kg), {}};
}

} // namespace

// By hand: 2 kg weigh 19.6133 N; a peak of 5.884 N is 0.300, a mean of 4.9033 N is 0.250.
TEST(Friction, PeakAndMeanOverTheWeight)
{
    TowRecord record{{0.0, 3.0, 5.88399}, {0.0, 1.0, 2.0}};
    for (double travel = 3.0; travel <= 100.0; travel += 1.0) {
        record.force_N.push_back(travel <= 62.0 ? 4.903325 : 1.0); // beyond 60 mm nothing counts
        record.travel_mm.push_back(travel);
    }
    const Result<FrictionResult> result = reduceFriction(record, under(2.0));
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->staticFriction, 0.3), 9);
    EXPECT_GE(matchingDigits(*result->kineticFriction, 0.25), 9);
    EXPECT_EQ(result->kineticFrom_mm, 12.0);
    EXPECT_EQ(result->kineticTo_mm, 62.0);
    EXPECT_TRUE(result->warnings.empty());
}

TEST(Friction, AHandScaleGivesThePeakAlone)
{
    const Result<FrictionResult> result = reduceFriction({{3.1}, {}}, under(1.0));
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->staticFriction, 3.1 / 9.80665), 12);
    EXPECT_FALSE(result->kineticFriction);
}

TEST(Friction, TooShortAWayHasNoKineticFriction)
{
    const Result<FrictionResult> result =
        reduceFriction({{0.0, 3.0, 2.0, 2.0, 2.0}, {0.0, 1.0, 11.0, 15.0, 20.0}}, under(1.0));
    ASSERT_TRUE(result);
    EXPECT_FALSE(result->kineticFriction);
    ASSERT_FALSE(result->warnings.empty());
    EXPECT_NE(result->warnings.back().find("no kinetic friction"), std::string::npos);
}

TEST(Friction, AGaugeAtItsEndGivesABound)
{
    const Result<FrictionResult> result =
        reduceFriction({{0.0, 3.0, 5.0, 5.0, 5.0}, {}}, {Mass::fromSi(1.0), newtons(5.0)});
    ASSERT_TRUE(result);
    EXPECT_TRUE(result->peakIsLowerBound);
}

TEST(Friction, RefusesWhatMakesNoSense)
{
    EXPECT_FALSE(reduceFriction({{1.0}, {}}, under(0.0)));
    EXPECT_FALSE(reduceFriction({{}, {}}, under(1.0)));
    EXPECT_FALSE(reduceFriction({{0.0, 0.0}, {}}, under(1.0)));
}

TEST(Friction, TwoHundredVirtualTowsAreReadInEveryDialect)
{
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE(seed);
        Random random(seed);
        sim::Tow tow;
        tow.mass_kg = 0.2 + 2.8 * random.uniform();
        tow.staticFriction = 0.15 + 0.65 * random.uniform();
        tow.kineticFriction = (0.6 + 0.35 * random.uniform()) * tow.staticFriction;
        const double weight_N = tow.mass_kg * 9.80665;
        const double noise_N = 0.002 * weight_N;
        const sim::Rig rig{.slack_mm = 3.0 * random.uniform(),
                           .forceNoise_N = noise_N,
                           .resolution_N = 0.01,
                           .speed_mm_per_s = 100.0 / 60.0,
                           .rate_Hz = 20.0};
        const auto dialect = static_cast<sim::Dialect>(seed % 4); // the others have no travel
        const Result<PieceReading> reading = readPiece(
            {PieceId{1},
             std::make_shared<const std::string>(sim::recordBytes(sim::tow(tow, rig, seed), dialect, "A1")),
             {},
             {reductionOf(Method::Friction), {{{"mass", tow.mass_kg}}, {}}, {}, "A1"}});
        ASSERT_TRUE(reading) << reading.error().message;
        // The largest of some readings near the peak: their noise, and a step of the gauge.
        EXPECT_NEAR(test::readValue(reading->result, "static_friction") * weight_N,
                    tow.staticFriction * weight_N,
                    4.0 * noise_N + 0.04 * tow.staticFriction * weight_N + 0.01);
        EXPECT_NEAR(test::readValue(reading->result, "kinetic_friction") * weight_N,
                    tow.kineticFriction * weight_N, 0.5 * noise_N + 0.01);
    }
}

} // namespace inchpeg
