// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/specimen/shape.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>
#include <set>

namespace inchpeg
{
namespace
{

TEST(Shape, EveryShapeOfTheShelfCanBeBuilt)
{
    std::set<std::string> keys;
    for (const SpecimenShape &shape : shapeShelf()) {
        SCOPED_TRACE(shape.key);
        EXPECT_TRUE(checkShape(shape)) << checkShape(shape).error().message;
        EXPECT_TRUE(keys.insert(shape.key).second);
        EXPECT_GT(volume_mm3(shape), 0.0);
        EXPECT_TRUE(areaOf(nominalSection(shape)));
        double furthest = 0.0;
        for (const PlanePoint &point : outlineOf(shape))
            furthest = std::max(furthest, std::abs(point.x_mm));
        EXPECT_NEAR(2.0 * furthest, shape.length_mm, 1e-6);
    }
}

TEST(Shape, VolumeOfBarsPinsAndCores)
{
    EXPECT_NEAR(volume_mm3(*findShape("bar-80x10x4")), 3200.0, 1e-9);
    EXPECT_NEAR(volume_mm3(*findShape("shear-pin-8")), std::numbers::pi * 16.0 * 50.0, 1e-9);
    EXPECT_NEAR(volume_mm3(*findShape("insert-core-12")), std::numbers::pi * (36.0 - 4.0) * 10.0, 1e-9);
}

// ISO 527-2:2012, figure 1: with r = 24 mm the shoulders of type 1A reach from 80 to 109.3 mm, to which the
// standard gives l2 = 109.3 ± 3.2 (from memory).
TEST(Shape, ShouldersOfTheLargeDogBoneEndWhereTheStandardSays)
{
    double nearest = 1e9;
    for (const PlanePoint &point : outlineOf(*findShape("dogbone-1a"))) {
        if (point.y_mm > 9.9999)
            nearest = std::min(nearest, std::abs(point.x_mm));
    }
    EXPECT_NEAR(2.0 * nearest, 109.3, 0.05);
}

/// The same area by thin strips.
TEST(Shape, DogBoneVolumeAgreesWithASumOfStrips)
{
    const SpecimenShape &shape = *findShape("dogbone-1ba");
    const double rise = 0.5 * (shape.endWidth_mm - shape.width_mm);
    const double reach = std::sqrt(rise * (2.0 * shape.radius_mm - rise));
    double area = 0.0;
    constexpr int kStrips = 200000;
    for (int i = 0; i < kStrips; ++i) {
        const double x = 0.5 * shape.length_mm * (i + 0.5) / kStrips;
        const double into = x - 0.5 * shape.parallel_mm;
        const double half = into < 0.0     ? 0.5 * shape.width_mm
                            : into > reach ? 0.5 * shape.endWidth_mm
                                           : 0.5 * shape.width_mm + shape.radius_mm -
                                                 std::sqrt(shape.radius_mm * shape.radius_mm - into * into);
        area += 4.0 * half * 0.5 * shape.length_mm / kStrips;
    }
    EXPECT_NEAR(volume_mm3(shape), area * shape.thickness_mm, 1e-3 * volume_mm3(shape)) << "chords of 3°";
}

TEST(Shape, TheNotchTakesAwayItsTriangle)
{
    const SpecimenShape &shape = *findShape("notched-80x10x4");
    // A V of half angle a whose flanks touch the tip circle: (d + r / sin a − r)² tan a, less the corner
    // between the circle and the apex of the V, r² (1 / tan a − (π/2 − a)).
    const double a = std::numbers::pi / 8.0;
    const double deep = 2.0 + 0.25 / std::sin(a) - 0.25;
    const double taken =
        deep * deep * std::tan(a) - 0.0625 * (1.0 / std::tan(a) - (0.5 * std::numbers::pi - a));
    EXPECT_NEAR(3200.0 - volume_mm3(shape), taken * shape.thickness_mm, 1e-3);
    EXPECT_NEAR(in_mm2(*areaOf(nominalSection(shape))), 32.0, 1e-9) << "8 mm remain under the notch";
}

TEST(Shape, RefusesWhatCannotBeBuilt)
{
    SpecimenShape shape = *findShape("dogbone-1a");
    shape.radius_mm = 2.0;
    EXPECT_NE(checkShape(shape).error().message.find("radius"), std::string::npos);
    shape = *findShape("dogbone-1a");
    shape.length_mm = 90.0;
    EXPECT_NE(checkShape(shape).error().message.find("90.0 mm long"), std::string::npos);
    shape = *findShape("notched-80x10x4");
    shape.notchDepth_mm = 11.0;
    EXPECT_FALSE(checkShape(shape));
    shape = *findShape("insert-core-12");
    shape.holeDiameter_mm = 12.0;
    EXPECT_FALSE(checkShape(shape));
    shape = *findShape("bar-80x10x4");
    shape.thickness_mm = -1.0;
    EXPECT_NE(checkShape(shape).error().message.find("thickness is -1"), std::string::npos);
}

} // namespace
} // namespace inchpeg
