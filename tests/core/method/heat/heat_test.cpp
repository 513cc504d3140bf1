// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/heat/heat_deflection.h"
#include "core/method/heat/softening.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

/// 23 °C and up at 120 K/h, a sample a minute; the deflection is begun_mm and grows by slope from an onset
/// on.
WarmingRecord warmed(double onset_C, double slope_mm_per_K, double end_C, double begun_mm = 0.0)
{
    WarmingRecord record;
    for (int i = 0; 23.0 + 2.0 * i <= end_C; ++i) {
        const double temperature = 23.0 + 2.0 * i;
        record.time_s.push_back(60.0 * i);
        record.temperature_C.push_back(temperature);
        record.deflection_mm.push_back(begun_mm + std::max(0.0, temperature - onset_C) * slope_mm_per_K);
    }
    return record;
}

HeatDeflectionParameters warmedBar()
{
    HeatDeflectionParameters parameters;
    parameters.width = millimetres(10.0);
    parameters.thickness = millimetres(4.0);
    parameters.span = millimetres(64.0);
    parameters.stress = megapascals(1.8);
    return parameters;
}

} // namespace

// ISO 75-2, method A: a bar of 80 × 10 × 4 mm lying flat on 64 mm bends by 0.34 mm (from memory: table 1
// gives 0.34 for 4.0 mm); 2σbh²/(3L) = 3.0 N.
TEST(HeatDeflection, ForceAndDeflectionAreThoseOfTheStandard)
{
    const Result<HeatDeflectionResult> result = reduceHeatDeflection(warmed(50.0, 0.1, 90.0), warmedBar());
    ASSERT_TRUE(result);
    EXPECT_NEAR(result->standardDeflection_mm, 0.34, 0.005);
    EXPECT_GE(matchingDigits(result->testForce_N, 3.0), 12);
    EXPECT_GE(matchingDigits(result->standardDeflection_mm, 0.002 * 4096.0 / 24.0), 12);
    // 0.341333 mm at 0.1 mm/K from 50 °C on (51 °C and 53 °C are samples, between them the line holds).
    EXPECT_GE(matchingDigits(*result->temperature_C, 50.0 + result->standardDeflection_mm / 0.1), 9);
    EXPECT_GE(matchingDigits(*result->heatingRate_K_per_h, 120.0), 9);
    for (const Check &check : result->validity)
        EXPECT_TRUE(check.ok) << check.rule;
}

TEST(HeatDeflection, OnEdgeTheSidesChangePlaces)
{
    HeatDeflectionParameters parameters = warmedBar();
    parameters.orientation = BarOrientation::Edgewise;
    parameters.span = millimetres(100.0);
    const Result<HeatDeflectionResult> result = reduceHeatDeflection(warmed(50.0, 0.1, 90.0), parameters);
    EXPECT_GE(matchingDigits(result->testForce_N, 2.0 * 1.8 * 4.0 * 100.0 / 300.0), 12);
    EXPECT_GE(matchingDigits(result->standardDeflection_mm, 0.002 * 10000.0 / 60.0), 12);
    parameters.standard = HeatStandard::Astm;
    EXPECT_EQ(reduceHeatDeflection(warmed(50.0, 0.1, 90.0), parameters)->standardDeflection_mm, 0.25);
}

TEST(HeatDeflection, ABarThatHoldsHasNoTemperature)
{
    const Result<HeatDeflectionResult> result = reduceHeatDeflection(warmed(80.0, 0.01, 90.0), warmedBar());
    ASSERT_TRUE(result);
    EXPECT_FALSE(result->temperature_C);
    EXPECT_EQ(result->highest_C, 89.0);
    EXPECT_FALSE(result->validity.back().ok);
}

TEST(HeatDeflection, TheDeflectionIsZeroedAndTurned)
{
    WarmingRecord record = warmed(50.0, 0.1, 90.0, 0.7);
    const double plain = *reduceHeatDeflection(warmed(50.0, 0.1, 90.0), warmedBar())->temperature_C;
    EXPECT_GE(matchingDigits(*reduceHeatDeflection(record, warmedBar())->temperature_C, plain), 9);
    for (double &value : record.deflection_mm)
        value = -value;
    const Result<HeatDeflectionResult> turned = reduceHeatDeflection(record, warmedBar());
    EXPECT_GE(matchingDigits(*turned->temperature_C, plain), 9);
    EXPECT_EQ(turned->warnings.size(), 1U);
    record.time_s.clear();
    EXPECT_FALSE(reduceHeatDeflection(record, warmedBar())->heatingRate_K_per_h);
}

TEST(Softening, TheLagIsTakenBack)
{
    // 1 mm at 0.1 mm/K from 60 °C on: 70 °C; 30 s at 120 K/h are 1 K.
    const WarmingRecord record = warmed(60.0, 0.1, 100.0);
    const Result<SofteningResult> plain = reduceSoftening(record, {millimetres(1.0), 0.0});
    ASSERT_TRUE(plain);
    EXPECT_GE(matchingDigits(*plain->temperature_C, 70.0), 9);
    EXPECT_GE(matchingDigits(*reduceSoftening(record, {millimetres(1.0), 30.0})->temperature_C, 69.0), 9);
    WarmingRecord timeless = record;
    timeless.time_s.clear();
    EXPECT_FALSE(reduceSoftening(timeless, {millimetres(1.0), 30.0})) << "a lag needs the time";
    EXPECT_TRUE(reduceSoftening(timeless, {millimetres(1.0), 0.0}));
}

TEST(Softening, AKnockAtTheTableDoesNotCount)
{
    WarmingRecord record = warmed(60.0, 0.1, 100.0);
    record.deflection_mm[5] = 1.5;
    EXPECT_GE(matchingDigits(*reduceSoftening(record, {millimetres(1.0), 0.0})->temperature_C, 70.0), 9)
        << "it must stay above the threshold";
    EXPECT_FALSE(reduceSoftening(warmed(95.0, 0.01, 100.0), {millimetres(1.0), 0.0})->temperature_C);
    EXPECT_FALSE(reduceSoftening(warmed(60.0, 0.1, 100.0, 2.0), {millimetres(1.0), 0.0})->temperature_C)
        << "above the threshold from the first sample on";
}

// warmed() heats at 120 K/h.
TEST(Softening, AProcedureSaysHowFastItIsHeated)
{
    const WarmingRecord record = warmed(60.0, 0.1, 100.0);
    const Result<SofteningResult> fast = reduceSoftening(record, {millimetres(1.0), 0.0, {}, 120.0});
    ASSERT_TRUE(fast);
    EXPECT_EQ(fast->validity.front().rule, "heated at 120 K/h");
    EXPECT_TRUE(fast->validity.front().ok);
    const Result<SofteningResult> slow = reduceSoftening(record, {millimetres(1.0), 0.0, {}, 50.0});
    ASSERT_TRUE(slow);
    EXPECT_FALSE(slow->validity.front().ok);
}

// An oven at 60 K/h is 1 K a minute: a probe that is a minute late shows 71 °C for 70 °C.
TEST(Softening, ATypedFirstSagIsATemperatureOfItsOwn)
{
    const Result<SofteningResult> seen = reduceSoftening({{71.0}, {}, {}}, {millimetres(1.0), 60.0, 60.0});
    ASSERT_TRUE(seen) << seen.error().message;
    EXPECT_GE(matchingDigits(*seen->temperature_C, 70.0), 12);
    EXPECT_TRUE(seen->validity.empty());
    ASSERT_EQ(seen->warnings.size(), 1U);
    EXPECT_NE(seen->warnings[0].find("first sag"), std::string::npos);
    EXPECT_FALSE(reduceSoftening({{71.0}, {}, {}}, {millimetres(1.0), 60.0, {}})) << "a lag without a rate";
    const Result<SofteningResult> log = reduceSoftening({{60.0, 65.0, 71.0}, {}, {}}, {millimetres(1.0)});
    ASSERT_FALSE(log) << "a log of temperatures alone tells no sag";
    EXPECT_NE(log.error().message.find("no deflection"), std::string::npos);
}

TEST(HeatDeflection, ATemperatureThatGoesBackIsTold)
{
    WarmingRecord record = warmed(50.0, 0.1, 90.0);
    record.temperature_C[5] -= 0.8; // what a probe does
    EXPECT_TRUE(warmsThroughout(record, std::nullopt).ok);
    for (std::size_t i = 8; i < 12; ++i)
        record.temperature_C[i] -= 9.0; // the oven was opened
    const Check check = warmsThroughout(record, std::nullopt);
    EXPECT_FALSE(check.ok);
    EXPECT_NE(check.detail.find("oven"), std::string::npos);
    const auto isTold = [](const std::vector<Check> &validity) {
        return std::any_of(validity.begin(), validity.end(), [](const Check &one) {
            return !one.ok && one.rule == "the temperature never goes back";
        });
    };
    EXPECT_TRUE(isTold(reduceHeatDeflection(record, warmedBar())->validity));
    EXPECT_TRUE(isTold(reduceSoftening(record, {.threshold = millimetres(1.0)})->validity));
}

} // namespace inchpeg
