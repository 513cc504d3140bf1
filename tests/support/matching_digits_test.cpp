// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <limits>

namespace inchpeg::test
{

TEST(MatchingDigits, CountsTheDigitsThatAgree)
{
    EXPECT_EQ(matchingDigits(2.0, 2.0), 15.0);
    EXPECT_NEAR(matchingDigits(1.001, 1.0), 3.0, 1e-9);
    EXPECT_NEAR(matchingDigits(1e-7, 0.0), 7.0, 1e-9);
}

TEST(MatchingDigits, GivesNothingToWhatIsNoNumber)
{
    EXPECT_EQ(matchingDigits(std::numeric_limits<double>::quiet_NaN(), 1.0), 0.0);
    EXPECT_EQ(matchingDigits(std::numeric_limits<double>::infinity(), 1.0), 0.0);
    EXPECT_EQ(matchingDigits(5.0, 1.0), 0.0);
}

} // namespace inchpeg::test
