// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/number_text.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(NumberText, WritesToTwoDigitsOfTheUncertainty)
{
    EXPECT_EQ(decimalsFor(0.34), 2);
    EXPECT_EQ(decimalsFor(3.4), 1);
    EXPECT_EQ(decimalsFor(34.0), 0);
    EXPECT_EQ(decimalsFor(340.0), 0);
    EXPECT_EQ(decimalsFor(0.0), 3);
}

TEST(NumberText, UsesTheTrueMinusAndNoNegativeZero)
{
    EXPECT_EQ(fixedText(-1.25, 1), "−1.2");
    EXPECT_EQ(fixedText(-0.001, 1), "0.0");
}

TEST(NumberText, SignificantDigits)
{
    EXPECT_EQ(significantText(1234.5, 3), "1234");
    EXPECT_EQ(significantText(0.012345, 3), "0.0123");
    EXPECT_EQ(significantText(0.0, 3), "0");
    EXPECT_EQ(significantText(1.5e-7, 2), "1.5 × 10⁻⁷");
    EXPECT_EQ(significantText(-2.3456e12, 3), "−2.35 × 10¹²");
}

TEST(NumberText, Percentages)
{
    EXPECT_EQ(signedPercentText(0.184), "+18 %");
    EXPECT_EQ(signedPercentText(-0.05), "−5.0 %");
    EXPECT_EQ(signedPercentText(0.0), "0.0 %");
    EXPECT_EQ(percentRangeText({0.06, 0.31}), "6 to 31 %");
    EXPECT_EQ(percentRangeText({0.003, 0.114}), "0.3 to 11.4 %") << "above nothing";
    EXPECT_EQ(percentRangeText({0.0, 0.31}), "0 to 31 %");
    EXPECT_EQ(percentRangeText({-0.04, 0.06}), "−4.0 to 6.0 %");
}

} // namespace inchpeg
