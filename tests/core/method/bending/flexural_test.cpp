// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bending/flexural.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <vector>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

FlexuralParameters bar80x10x4()
{
    FlexuralParameters parameters;
    parameters.width = millimetres(10.0);
    parameters.thickness = millimetres(4.0);
    parameters.span = millimetres(64.0);
    return parameters;
}

/// F = k s up to the break at the given deflection, then nothing; every hundredth of a millimetre.
ForceCurve straight(double k_N_per_mm, double breakAt_mm, double slack_mm = 0.0)
{
    ForceCurve curve;
    for (int i = 0; 0.01 * i <= breakAt_mm + slack_mm + 1e-9; ++i) {
        const double s = 0.01 * i;
        curve.extension_mm.push_back(s);
        curve.force_N.push_back(k_N_per_mm * std::max(0.0, s - slack_mm));
    }
    curve.extension_mm.push_back(curve.extension_mm.back() + 0.01);
    curve.force_N.push_back(0.0);
    return curve;
}

FlexuralResult readBent(const ForceCurve &curve, const FlexuralParameters &parameters)
{
    const Result<FlexuralResult> result = reduceFlexural(curve, parameters);
    EXPECT_TRUE(result) << (result ? "" : result.error().message);
    return *result;
}

} // namespace

// Beam of 64 mm span, 10 mm wide, 4 mm thick, E = 2000 MPa: k = 4 E b h³/L³ = 19.53125 N/mm, by the formula
// of the simply supported beam, s = FL³/(48 E I), I = bh³/12 (Gere and Timoshenko, Mechanics of Materials,
// appendix on deflections of beams; from memory).
TEST(Flexural, ABeamOfKnownModulusIsFoundAgain)
{
    const double k = 4.0 * 2000.0 * 10.0 * 64.0 / (64.0 * 64.0 * 64.0);
    EXPECT_DOUBLE_EQ(k, 19.53125);
    const FlexuralResult result = readBent(straight(k, 5.0), bar80x10x4());
    EXPECT_GE(matchingDigits(*result.flexuralModulus_MPa, 2000.0), 9);
    // 97.65625 N: 3FL/(2bh²) = 58.59375 MPa, 6sh/L² = 0.029296875.
    EXPECT_GE(matchingDigits(*result.flexuralStrength_MPa, 58.59375), 9);
    EXPECT_GE(matchingDigits(*result.strainAtStrength, 0.029296875), 9);
    EXPECT_GE(matchingDigits(*result.energyToBreak_J, 0.5 * 97.65625 * 5.0 / 1e3), 9);
    EXPECT_FALSE(result.stressAtConventionalDeflection_MPa) << "it broke before 6 mm";
    EXPECT_TRUE(result.markers.broke);
    EXPECT_EQ(*result.peakForce_N, k * 5.0);
}

TEST(Flexural, TheConventionalDeflectionCountsFromTheShiftedZero)
{
    const FlexuralResult result = readBent(straight(19.53125, 8.0, 0.3), bar80x10x4());
    EXPECT_GE(matchingDigits(*result.toeStrain, 6.0 * 0.3 * 4.0 / 4096.0), 3)
        << "the straight part takes in a little of the slack";
    // 1.5 h = 6 mm beyond the slack: 117.1875 N, 70.3125 MPa.
    EXPECT_GE(matchingDigits(*result.stressAtConventionalDeflection_MPa, 70.3125), 4);
}

TEST(Flexural, LargeDeflectionsCorrectTheStress)
{
    FlexuralParameters parameters = bar80x10x4();
    parameters.largeDeflection = true;
    parameters.toeCorrection = false;
    const FlexuralResult result = readBent(straight(19.53125, 8.0), parameters);
    const double share = 8.0 / 64.0;
    const double plain = 3.0 * 19.53125 * 8.0 * 64.0 / (2.0 * 10.0 * 16.0);
    EXPECT_GE(matchingDigits(*result.flexuralStrength_MPa,
                             plain * (1.0 + 6.0 * share * share - 4.0 * share * 4.0 / 64.0)),
              9);
}

TEST(Flexural, FourPointsHaveTheirOwnFormulas)
{
    // F = 100 N at s = 2 mm: third points FL/(bh²) = 40 MPa and 4.70 sh/L²; half 30 MPa and 4.36 sh/L².
    FlexuralParameters parameters = bar80x10x4();
    parameters.load = BendingLoad::FourPointThird;
    FlexuralResult result = readBent(straight(50.0, 2.0), parameters);
    EXPECT_GE(matchingDigits(*result.flexuralStrength_MPa, 40.0), 9);
    EXPECT_GE(matchingDigits(*result.strainAtStrength, 4.70 * 2.0 * 4.0 / 4096.0), 9);
    parameters.load = BendingLoad::FourPointHalf;
    result = readBent(straight(50.0, 2.0), parameters);
    EXPECT_GE(matchingDigits(*result.flexuralStrength_MPa, 30.0), 9);
    EXPECT_GE(matchingDigits(*result.strainAtStrength, 4.36 * 2.0 * 4.0 / 4096.0), 9);
    parameters.largeDeflection = true;
    EXPECT_FALSE(reduceFlexural(straight(50.0, 2.0), parameters));
}

namespace
{

/// A bar between its supports under two loads of half a newton each, a from them: deflections in the middle
/// and under the loads, from the moment over E I integrated twice.
struct BentByTwo {
    double middle_mm = 0.0;
    double loadPoint_mm = 0.0;
};

BentByTwo bentByTwo(double span_mm, double a_mm, double stiffness_Nmm2)
{
    constexpr int kSteps = 6400;
    const double step = span_mm / kSteps;
    std::vector<double> deflection{0.0};
    double slope = 0.0;
    for (int i = 0; i < kSteps; ++i) {
        const double x = (i + 0.5) * step;
        const double moment_Nmm = 0.5 * std::min({x, span_mm - x, a_mm});
        deflection.push_back(deflection.back() + slope * step +
                             0.5 * moment_Nmm / stiffness_Nmm2 * step * step);
        slope += moment_Nmm / stiffness_Nmm2 * step;
    }
    // The far support holds the bar: a line takes it back to zero there.
    const auto at = [&](double x) {
        const auto i = static_cast<std::size_t>(std::lround(x / step));
        return std::abs(deflection[i] - deflection.back() * x / span_mm);
    };
    return {at(0.5 * span_mm), at(a_mm)};
}

} // namespace

TEST(Flexural, FourPointsByTheCrosshead)
{
    constexpr double kModulus_MPa = 2000.0;
    const double stiffness_Nmm2 = kModulus_MPa * 10.0 * 64.0 / 12.0;
    for (const BendingLoad load : {BendingLoad::FourPointThird, BendingLoad::FourPointHalf}) {
        const double a_mm = load == BendingLoad::FourPointThird ? 64.0 / 3.0 : 16.0;
        const BentByTwo bent = bentByTwo(64.0, a_mm, stiffness_Nmm2);
        FlexuralParameters parameters = bar80x10x4();
        parameters.load = load;
        ForceCurve curve = straight(1.0 / bent.middle_mm, 3.0);
        parameters.deflectionAt = DeflectionAt::Middle;
        const FlexuralResult middle = readBent(curve, parameters);
        EXPECT_NEAR(*middle.flexuralModulus_MPa / kModulus_MPa, 1.0, 2e-3);
        curve = straight(1.0 / bent.loadPoint_mm, 3.0);
        parameters.deflectionAt = DeflectionAt::LoadPoints;
        const FlexuralResult points = readBent(curve, parameters);
        EXPECT_NEAR(*points.flexuralModulus_MPa / kModulus_MPa, 1.0, 2e-3);
        EXPECT_NEAR(*points.energyToBreak_J, 0.5 * 9.0 / bent.loadPoint_mm / 1e3, 1e-6)
            << "the work of the loads, where they stand";
        parameters.deflectionAt.reset();
        EXPECT_TRUE(readBent(curve, parameters).warnings.front().find("not said where") != std::string::npos);
        curve.extensionIsCrosshead = true;
        EXPECT_NEAR(*readBent(curve, parameters).flexuralModulus_MPa / kModulus_MPa, 1.0, 2e-3);
    }
}

TEST(Flexural, AShortSpanAndALargeStrainAreTold)
{
    FlexuralParameters parameters = bar80x10x4();
    parameters.span = millimetres(40.0);
    const FlexuralResult result = readBent(straight(19.53125, 5.0), parameters);
    std::size_t broken = 0;
    for (const Check &check : result.validity)
        broken += check.ok ? 0U : 1U;
    EXPECT_EQ(broken, 2U) << "10 times the thickness, and 7.5 % strain";
}

TEST(Flexural, WhatIsMissingIsNamed)
{
    FlexuralParameters parameters = bar80x10x4();
    parameters.span = millimetres(0.0);
    const Result<FlexuralResult> noSpan = reduceFlexural(straight(10.0, 2.0), parameters);
    ASSERT_FALSE(noSpan);
    EXPECT_NE(noSpan.error().message.find("span"), std::string::npos);
    ForceCurve curve = straight(10.0, 2.0);
    curve.extension_mm.clear();
    const Result<FlexuralResult> noDeflection = reduceFlexural(curve, bar80x10x4());
    ASSERT_FALSE(noDeflection);
    EXPECT_NE(noDeflection.error().message.find("deflection"), std::string::npos);
}

} // namespace inchpeg
