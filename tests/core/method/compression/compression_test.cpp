// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces pressed together, made from a spring law point by point and told by hand.
#include "core/method/compression/compression.h"
#include "core/method/method.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

/// Force over the travel of the plates of a block 10 × 4 mm, 10 mm long: 2000 MPa up to 40 MPa, then the
/// stress falls (yield) or goes on rising, and rises again while it is pressed flat.
ForceCurve pressed(double hardening_MPa, double mostStrain, double slack_mm = 0.0)
{
    ForceCurve curve;
    for (int i = 0; i <= 2000; ++i) {
        const double strain = mostStrain * i / 2000.0;
        const double stress = strain <= 0.02
                                  ? 2000.0 * strain
                                  : 40.0 + hardening_MPa * (1.0 - std::exp(-(strain - 0.02) / 0.01));
        curve.force_N.push_back(40.0 * stress);
        curve.extension_mm.push_back(slack_mm + 10.0 * strain);
    }
    if (slack_mm > 0.0) { // the plates come down on the piece first
        curve.force_N.insert(curve.force_N.begin(), 0.0);
        curve.extension_mm.insert(curve.extension_mm.begin(), 0.0);
    }
    return curve;
}

CompressionParameters blockOf10()
{
    CompressionParameters parameters;
    parameters.area = squareMillimetres(40.0);
    parameters.length = millimetres(10.0);
    parameters.thinnest = millimetres(4.0);
    return parameters;
}

const Check *checkOf(const CompressionResult &result, std::string_view part)
{
    for (const Check &check : result.validity) {
        if (check.rule.find(part) != std::string::npos)
            return &check;
    }
    return nullptr;
}

} // namespace

TEST(Compression, ABlockThatYieldsIsReadByHand)
{
    const Result<CompressionResult> result = reduceCompression(pressed(-3.0, 0.12), blockOf10());
    ASSERT_TRUE(result) << result.error().message;
    EXPECT_NEAR(*result->modulus_MPa, 2000.0, 1e-6);
    EXPECT_NEAR(result->strength_MPa, 40.0, 0.05);
    ASSERT_TRUE(result->yieldStress_MPa);
    EXPECT_NEAR(*result->yieldStress_MPa, 40.0, 0.05);
    EXPECT_NEAR(*result->strainAtStrength, 0.02, 1e-4);
    EXPECT_NEAR(*result->stressAtGivenStrain_MPa, 40.0 - 3.0 * (1.0 - std::exp(-8.0)), 1e-3);
    EXPECT_NEAR(result->peakForce_N, 1600.0, 2.0);
    EXPECT_FALSE(result->isStillRising);
    ASSERT_NE(checkOf(*result, "buckle"), nullptr);
    EXPECT_TRUE(checkOf(*result, "buckle")->ok) << "6.4 % would be allowed";
}

TEST(Compression, OneThatIsPressedFlatHasAStrengthThatIsAtLeast)
{
    const Result<CompressionResult> result = reduceCompression(pressed(200.0, 0.08), blockOf10());
    ASSERT_TRUE(result);
    EXPECT_TRUE(result->isStillRising);
    EXPECT_FALSE(result->stressAtGivenStrain_MPa) << "the record ends at 8 %";
}

TEST(Compression, NegativeForcesAndTravelsAreTurned)
{
    ForceCurve curve = pressed(-3.0, 0.12);
    for (std::vector<double> *column : {&curve.force_N, &curve.extension_mm}) {
        for (double &value : *column)
            value = -value;
    }
    const Result<CompressionResult> result = reduceCompression(curve, blockOf10());
    ASSERT_TRUE(result);
    EXPECT_NEAR(result->strength_MPa, 40.0, 0.05);
    EXPECT_NEAR(*result->modulus_MPa, 2000.0, 1e-6);
}

TEST(Compression, TheWayToTheFirstContactIsTakenOff)
{
    const Result<CompressionResult> result = reduceCompression(pressed(-3.0, 0.12, 0.05), blockOf10());
    ASSERT_TRUE(result);
    EXPECT_NEAR(*result->toeStrain, 0.005, 1e-6);
    EXPECT_NEAR(*result->modulus_MPa, 2000.0, 1e-3);
    EXPECT_NEAR(*result->strainAtStrength, 0.02, 1e-4);
}

TEST(Compression, ALongBarIsDoubtedBeforeEulersLoad)
{
    // Euler's column between pinned ends gives way at π²/12 (x/l)² (Timoshenko and Gere, Theory of Elastic
    // Stability, 2.1; from memory); the standard's limit keeps clear of it by half.
    for (const double length_mm : {10.0, 20.0, 50.0}) {
        const double euler = std::numbers::pi * std::numbers::pi / 12.0 * std::pow(4.0 / length_mm, 2);
        const double limit = strainBeforeBuckling(millimetres(4.0), millimetres(length_mm));
        EXPECT_LT(limit, euler) << length_mm;
        EXPECT_GT(limit, 0.4 * euler) << length_mm;
    }
    CompressionParameters bar = blockOf10();
    bar.length = millimetres(50.0);
    ForceCurve curve = pressed(-3.0, 0.12);
    for (double &travel_mm : curve.extension_mm)
        travel_mm *= 5.0;
    const Result<CompressionResult> result = reduceCompression(curve, bar);
    ASSERT_TRUE(result);
    ASSERT_NE(checkOf(*result, "buckle"), nullptr);
    EXPECT_FALSE(checkOf(*result, "buckle")->ok);
}

TEST(Compression, WhatMakesNoSenseIsRefusedInWords)
{
    CompressionParameters parameters = blockOf10();
    parameters.length = millimetres(0.0);
    EXPECT_NE(reduceCompression(pressed(-3.0, 0.12), parameters).error().message.find("length"),
              std::string::npos);
    parameters = blockOf10();
    parameters.givenStrain = 1.5;
    EXPECT_NE(reduceCompression(pressed(-3.0, 0.12), parameters).error().message.find("150 %"),
              std::string::npos);
    ForceCurve alone;
    alone.force_N = {0.0, 10.0, 20.0};
    EXPECT_NE(reduceCompression(alone, blockOf10()).error().message.find("travel"), std::string::npos);
}

TEST(Compression, TheReadingTellsTheBoundOfWhatGoesOnRising)
{
    const Reduction &reduction = *reductionOf(Method::Compression);
    MethodSettings settings;
    settings.numbers = {{"width", 10.0}, {"thickness", 4.0}, {"length", 10.0}};
    const ForceCurve curve = pressed(200.0, 0.08);
    RecordTable table;
    table.columns = {curve.force_N, curve.extension_mm, {}, {}};
    table.isCrosshead = {false, false, false, false};
    table.rows = curve.force_N.size();
    const Result<Reading> reading = reduction.read(table, settings, {}, inOrder);
    ASSERT_TRUE(reading) << reading.error().message;
    const auto strength =
        std::find_if(reading->values.begin(), reading->values.end(),
                     [](const ReadValue &v) { return v.property == "compressive_strength"; });
    ASSERT_NE(strength, reading->values.end());
    EXPECT_EQ(strength->bound, BoundReason::RecordEnds);
}

} // namespace inchpeg
