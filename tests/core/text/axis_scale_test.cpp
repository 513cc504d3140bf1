// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/axis_scale.h"

#include <gtest/gtest.h>

namespace inchpeg
{

TEST(AxisScale, HasRoundMarksAroundAllValues)
{
    const AxisScale scale = scaleAround({21.3, 48.9}, 6);
    EXPECT_EQ(scale.step, 10.0);
    EXPECT_EQ(scale.low, 20.0);
    EXPECT_EQ(scale.high, 50.0);
    EXPECT_EQ(scale.decimals, 0);
    EXPECT_EQ(scale.marks().size(), 4U);
    EXPECT_EQ(scaleAround({0.011, 0.019}, 5).decimals, 3);
}

TEST(AxisScale, DoesNotFallOverOnNothingOrEquals)
{
    for (const std::vector<double> &values :
         {std::vector<double>{}, {5.0}, {5.0, 5.0}, {0.0, 0.0}, {-3.0, -3.0}}) {
        const AxisScale scale = scaleAround(values, 5);
        EXPECT_GT(scale.high, scale.low);
        EXPECT_GE(scale.marks().size(), 2U);
        EXPECT_LE(scale.marks().size(), 20U);
    }
}

} // namespace inchpeg
