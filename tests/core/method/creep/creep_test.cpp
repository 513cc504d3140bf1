// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/creep/creep.h"
#include "core/method/method.h"
#include "support/calibration.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <functional>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

CreepParameters loadedBar()
{
    CreepParameters parameters;
    parameters.stress = megapascals(10.0);
    parameters.thickness = millimetres(4.0);
    parameters.span = millimetres(64.0);
    return parameters;
}

/// Findley's law exactly, at once and daily for five days.
CreepRecord findley(double e0, double m, double n)
{
    CreepRecord record;
    for (int day = 0; day <= 5; ++day) {
        const double t_h = 24.0 * day;
        record.time_s.push_back(3600.0 * t_h);
        record.strain.push_back(e0 + (day == 0 ? 0.0 : m * std::pow(t_h, n)));
    }
    return record;
}

CreepResult readCreepRun(const CreepRecord &record, const CreepParameters &parameters = loadedBar())
{
    const Result<CreepResult> result = reduceCreep(record, parameters);
    EXPECT_TRUE(result) << (result ? "" : result.error().message);
    return *result;
}

} // namespace

TEST(Creep, FindleysLawIsFoundAgain)
{
    for (const double n : {0.1, 0.25, 0.5, 1.0}) {
        const CreepResult result = readCreepRun(findley(0.004, 0.0005, n));
        ASSERT_TRUE(result.findley) << n;
        EXPECT_NEAR(result.findley->n, n, 1e-6) << n;
        EXPECT_GE(matchingDigits(result.findley->e0, 0.004), 6) << n;
        EXPECT_GE(matchingDigits(result.findley->m, 0.0005), 5) << n;
        EXPECT_GE(matchingDigits(*result.creepRate_per_h, 0.0005 * n * std::pow(120.0, n - 1.0)), 5) << n;
        EXPECT_GE(matchingDigits(*result.creepModulus_MPa, 10.0 / result.creepStrain), 12);
        EXPECT_TRUE(result.stillRunning);
        EXPECT_FALSE(result.recoveredFraction);
    }
}

// Reference: SciPy 1.10.1 (Debian 12), optimize.curve_fit with p0 = (0.005, 0.0005, 0.3), on these readings.
TEST(Creep, AScatteredRunIsFittedAsSciPyDoes)
{
    CreepRecord record;
    record.time_s = {0.0, 86400.0, 172800.0, 259200.0, 345600.0, 432000.0, 518400.0};
    record.strain = {0.00512, 0.00634, 0.00668, 0.00701, 0.00712, 0.00735, 0.00744};
    const CreepResult result = readCreepRun(record);
    EXPECT_NEAR(result.findley->e0, 0.005118419961684, 1e-9);
    EXPECT_NEAR(result.findley->m, 0.000393204670849, 1e-9);
    EXPECT_NEAR(result.findley->n, 0.359770943789, 1e-6);
    ASSERT_TRUE(result.findley->standardErrors);
    EXPECT_NEAR((*result.findley->standardErrors)[0], 4.130884534e-05, 1e-9);
    EXPECT_NEAR((*result.findley->standardErrors)[1], 3.924380346e-05, 1e-9);
    EXPECT_NEAR((*result.findley->standardErrors)[2], 1.965334408e-02, 1e-6);
}

TEST(Creep, DeflectionsBecomeStrainsByTheFixture)
{
    CreepRecord record;
    record.time_s = {0.0, 3600.0};
    record.deflection_mm = {1.0, 1.2};
    EXPECT_GE(matchingDigits(readCreepRun(record).initialStrain, 6.0 * 4.0 / 4096.0), 12);
    CreepParameters clamped = loadedBar();
    clamped.fixture = CreepFixture::Cantilever;
    EXPECT_GE(matchingDigits(readCreepRun(record, clamped).initialStrain, 1.5 * 4.0 / 4096.0), 12);
    CreepParameters hung;
    hung.stress = megapascals(10.0);
    hung.gaugeLength = millimetres(50.0);
    hung.fixture = CreepFixture::Tension;
    EXPECT_GE(matchingDigits(readCreepRun(record, hung).initialStrain, 0.02), 12);
}

TEST(Creep, TheStressFollowsFromTheLoad)
{
    CreepParameters parameters = loadedBar();
    parameters.stress.reset();
    parameters.load = newtons(20.0);
    EXPECT_FALSE(reduceCreep(findley(0.004, 0.0005, 0.3), parameters)) << "the width is missing";
    parameters.width = millimetres(10.0);
    EXPECT_GE(matchingDigits(readCreepRun(findley(0.004, 0.0005, 0.3), parameters).stress_MPa,
                             3.0 * 20.0 * 64.0 / (2.0 * 10.0 * 16.0)),
              12);
    parameters.fixture = CreepFixture::Cantilever;
    EXPECT_GE(matchingDigits(readCreepRun(findley(0.004, 0.0005, 0.3), parameters).stress_MPa,
                             6.0 * 20.0 * 64.0 / (10.0 * 16.0)),
              12);
}

TEST(Creep, WhatRecoversIsSeenByTheLoadOrByTheStrain)
{
    CreepRecord record = findley(0.004, 0.0005, 0.3);
    const double last = record.strain.back();
    record.time_s.push_back(432300.0);
    record.strain.push_back(0.25 * last);
    const CreepResult byStrain = readCreepRun(record);
    EXPECT_FALSE(byStrain.stillRunning);
    EXPECT_GE(matchingDigits(*byStrain.recoveredFraction, 0.75), 12);
    EXPECT_EQ(byStrain.creepStrain, last);
    record.strain.back() = 0.9 * last; // too little to be seen by the strain
    EXPECT_TRUE(readCreepRun(record).stillRunning);
    record.load_N.assign(record.time_s.size(), 12.0);
    record.load_N.back() = 0.1;
    EXPECT_GE(matchingDigits(*readCreepRun(record).recoveredFraction, 0.1), 9);
}

namespace
{

/// Readings of one run by a law, each with its own error.
CreepRecord readWithNoise(const std::function<double(double)> &law, double noise, Random &random)
{
    CreepRecord record;
    for (const double time_h : {1.0 / 60.0, 0.1, 1.0, 6.0, 24.0, 72.0, 120.0}) {
        record.time_s.push_back(3600.0 * time_h);
        record.strain.push_back(law(time_h) * (1.0 + noise * random.normal()));
    }
    return record;
}

} // namespace

// Whatever the law: the interval holds what the piece comes to, or nothing is foretold.
TEST(Creep, ForecastsHoldWhatTheyPromise)
{
    const std::pair<const char *, std::function<double(double)>> laws[] = {
        {"Findley's, 0.15", [](double t) { return 0.004 + 0.001 * std::pow(t, 0.15); }},
        {"Findley's, 0.33", [](double t) { return 0.004 + 0.0006 * std::pow(t, 0.33); }},
        {"a power", [](double t) { return 0.005 * std::pow(t, 0.1); }},
        {"a logarithm", [](double t) { return 0.004 + 0.0008 * std::log1p(t); }},
    };
    const int runs = test::simulatedStudies(60) / 2;
    Random random(test::simulationSeed(11));
    for (const auto &[name, law] : laws) {
        int held = 0;
        int foretold = 0;
        for (const double noise : {0.002, 0.01}) {
            for (int run = 0; run < runs; ++run) {
                const Result<CreepResult> result =
                    reduceCreep(readWithNoise(law, noise, random), loadedBar());
                if (!result || !result->forecast)
                    continue;
                ++foretold;
                const Interval interval = result->forecast->interval.value();
                held += interval.low <= law(1000.0) && law(1000.0) <= interval.high ? 1 : 0;
            }
        }
        EXPECT_GE(foretold, runs) << "of " << 2 * runs;
        test::expectKept(std::string("creep by ") + name + ": the forecast for 1,000 h holds",
                         test::atLeast(0.93), held, foretold);
    }
}

TEST(Creep, ATimeThatWasSeenIsAnsweredByTheReadings)
{
    CreepParameters parameters = loadedBar();
    parameters.forecast_h = 72.0;
    Random random(3);
    const CreepRecord record =
        readWithNoise([](double t) { return 0.004 + 0.001 * std::pow(t, 0.2); }, 0.01, random);
    const CreepResult result = readCreepRun(record, parameters);
    ASSERT_TRUE(result.forecast);
    EXPECT_TRUE(result.forecast->isSeen);
    EXPECT_EQ(result.forecast->strain, record.strain[5]);
    EXPECT_FALSE(result.forecast->interval);
}

TEST(Creep, WhereTheLawsPartNothingIsForetold)
{
    CreepRecord record; // an hour, with a scatter of two percent
    Random random(5);
    for (const double time_h : {0.02, 0.1, 0.3, 0.6, 1.0}) {
        record.time_s.push_back(3600.0 * time_h);
        record.strain.push_back((0.004 + 0.001 * std::pow(time_h, 0.3)) * (1.0 + 0.02 * random.normal()));
    }
    CreepParameters parameters = loadedBar();
    parameters.forecast_h = 10000.0;
    const CreepResult result = readCreepRun(record, parameters);
    EXPECT_FALSE(result.forecast);
    EXPECT_TRUE(std::any_of(result.warnings.begin(), result.warnings.end(), [](const std::string &warning) {
        return warning.find("nothing is foretold for 10000 h") != std::string::npos;
    }));
}

TEST(Creep, WhatCannotBeReadIsTold)
{
    CreepRecord back = findley(0.004, 0.0005, 0.3);
    std::swap(back.time_s[2], back.time_s[3]);
    EXPECT_FALSE(reduceCreep(back, loadedBar()));
    CreepRecord still = findley(0.004, 0.0, 0.3);
    const CreepResult result = readCreepRun(still);
    EXPECT_FALSE(result.findley || result.creepRate_per_h) << "nothing grows";
    EXPECT_FALSE(result.warnings.empty());
    CreepRecord two;
    two.time_s = {0.0, 3600.0};
    two.strain = {0.001, 0.0011};
    EXPECT_FALSE(readCreepRun(two).findley);
}

TEST(Creep, ADayThatWasMissedIsTold)
{
    const auto dayCheck = [](const CreepResult &result) {
        const auto found = std::find_if(result.validity.begin(), result.validity.end(),
                                        [](const Check &one) { return one.rule == "a reading every day"; });
        return found == result.validity.end() ? std::nullopt : std::optional(*found);
    };
    CreepRecord record = findley(0.005, 0.001, 0.2);
    EXPECT_TRUE(dayCheck(readCreepRun(record))->ok);
    record.time_s.erase(record.time_s.begin() + 3);
    record.strain.erase(record.strain.begin() + 3);
    const std::optional<Check> missed = dayCheck(readCreepRun(record));
    ASSERT_TRUE(missed);
    EXPECT_FALSE(missed->ok);
    EXPECT_NE(missed->detail.find("48 h, from 48 to 96 h"), std::string::npos) << missed->detail;
    EXPECT_FALSE(dayCheck(readCreepRun({{0.0, 60.0, 3600.0}, {}, {0.005, 0.0052, 0.0055}, {}})))
        << "a run of an hour has no days";
}

TEST(Creep, ARoomThatWarmedIsTold)
{
    CreepRecord record = findley(0.005, 0.001, 0.2);
    const auto roomCheck = [&] { return readCreepRun(record).validity.back(); };
    EXPECT_NE(roomCheck().rule, "the room stays within 4 K") << "nobody logged it";
    record.room_C = {21.0, 22.0, 23.0, 23.5, 22.0, 24.9};
    EXPECT_TRUE(roomCheck().ok);
    record.room_C.back() = 27.5;
    EXPECT_EQ(roomCheck().rule, "the room stays within 4 K");
    EXPECT_FALSE(roomCheck().ok);
}

TEST(Creep, AlongTheAxisWantsNeitherThicknessNorSpan)
{
    const Reduction &creep = *reductionOf(Method::Creep);
    const MethodSettings settings{{{"stress", 5.0}, {"gauge_length", 50.0}}, {}};
    ASSERT_TRUE(creep.check(settings)) << creep.check(settings).error().message;
    RecordTable table;
    table.columns.resize(creep.columns.size());
    table.isCrosshead.assign(creep.columns.size(), false);
    table.columns[0] = {0.0, 3600.0, 86400.0, 2.0 * 86400.0};
    table.columns[1] = {0.10, 0.12, 0.15, 0.16}; // mm over 50 mm
    table.rows = 4;
    const Result<Reading> reading = creep.read(table, settings, {}, inOrder);
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_NEAR(valueOf(reading->values, "creep_strain")->number, 0.0032, 1e-12);
    EXPECT_NEAR(valueOf(reading->values, "creep_modulus")->number, 5.0 / 0.0032, 1e-6);
}

} // namespace inchpeg
