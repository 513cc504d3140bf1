// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/method.h"
#include "core/method/shrinkage/shrinkage.h"
#include "core/reading/piece_reading.h"
#include "sim/virtual_bars.h"
#include "support/matching_digits.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

#include <array>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

} // namespace

// By hand: (80 - 79.6)/80 = 0.5 %; readings 79.5, 79.6, 79.7 give 0.625, 0.5, 0.375 %, sd 0.125 %.
TEST(Shrinkage, MeanAndScatterOfTheReadings)
{
    const std::array lengths{79.5, 79.6, 79.7};
    const Result<ShrinkageResult> result = reduceShrinkage(lengths, millimetres(80.0));
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->shrinkage_percent, 0.5), 10);
    EXPECT_GE(matchingDigits(*result->sd_percent, 0.125), 10);
    EXPECT_GE(matchingDigits(result->mean_mm, 79.6), 12);
    EXPECT_EQ(result->n, 3U);
    EXPECT_TRUE(result->validity.at(0).ok);
    EXPECT_TRUE(result->warnings.empty());
}

TEST(Shrinkage, OneReadingHasNoScatterAndAPieceMayBeTooLong)
{
    const std::array length{80.4};
    const Result<ShrinkageResult> result = reduceShrinkage(length, millimetres(80.0));
    ASSERT_TRUE(result);
    EXPECT_GE(matchingDigits(result->shrinkage_percent, -0.5), 10);
    EXPECT_FALSE(result->sd_percent);
    EXPECT_EQ(result->warnings.size(), 1U);
}

TEST(Shrinkage, AReadingOfAnotherLengthFailsTheCheckAndNonsenseIsRefused)
{
    const std::array other{79.6, 10.02};
    EXPECT_FALSE(reduceShrinkage(other, millimetres(80.0))->validity.at(0).ok);
    const std::array zero{79.6, 0.0};
    const Result<ShrinkageResult> refused = reduceShrinkage(zero, millimetres(80.0));
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().message.find("reading 2"), std::string::npos);
    EXPECT_FALSE(reduceShrinkage({}, millimetres(80.0)));
    EXPECT_FALSE(reduceShrinkage(other, millimetres(0.0)));
}

TEST(Shrinkage, TwoHundredVirtualLengthsAreReadAgain)
{
    const sim::Polymer *const polymers[] = {&sim::lowHeatPolyester(), &sim::glycolPolyester(),
                                            &sim::styrenic(), &sim::polyamide()};
    for (std::uint64_t seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE(seed);
        const sim::Polymer &polymer = *polymers[seed % 4];
        Random random(seed);
        const double nominal_mm = 20.0 + 100.0 * random.uniform();
        const Result<PieceReading> reading =
            readPiece({PieceId{1},
                       std::make_shared<const std::string>(sim::lengthTable(polymer, nominal_mm, seed)),
                       {},
                       {reductionOf(Method::Shrinkage), {{{"nominal", nominal_mm}}, {}}, {}, "A1"}});
        ASSERT_TRUE(reading) << reading.error().message;
        // A tenth of the shrinkage between pieces, and callipers that read a hundredth.
        const double truth = sim::barFacts(polymer).shrinkage_percent;
        EXPECT_NEAR(test::readValue(reading->result, "shrinkage_percent"), truth,
                    0.35 * truth + 100.0 * 0.03 / nominal_mm);
        EXPECT_EQ(test::readValue(reading->result, "n"), 3.0);
    }
}

} // namespace inchpeg
