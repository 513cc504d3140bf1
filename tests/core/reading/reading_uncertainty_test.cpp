// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/method/section_settings.h"
#include "core/reading/piece_reading.h"
#include "core/reading/reading_uncertainty.h"
#include "support/sanitized.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <functional>
#include <map>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr double kStep_N = 0.5;

/// A straight pull up to 2000 N in steps of the gauge, and the break.
std::string pulled()
{
    std::string text = "force_N\n";
    for (int i = 0; i <= 4000; ++i)
        text += fmt::format("{}\n", kStep_N * i);
    return text + "0\n";
}

ReadingJob job(const Section &section, const std::optional<SizeUncertainty> &sizes,
               std::optional<double> gauge_percent)
{
    ReadingOrder order{reductionOf(Method::Tension), {}, {}, {}, sizes};
    setSection(order.settings, section);
    ReadingJob job{PieceId{1}, std::make_shared<const std::string>(pulled()), {}, order};
    UsedGauge gauge;
    gauge.calibration = Calibration{};
    gauge.calibration->uncertainty_percent = gauge_percent;
    job.gauge = gauge;
    return job;
}

ReadValue strength(const ReadingJob &job)
{
    const Result<PieceReading> reading = readPiece(job);
    EXPECT_TRUE(reading);
    const ReadValue *value = valueOf(reading->result.values, "tensile_strength");
    EXPECT_NE(value, nullptr);
    return *value;
}

} // namespace

// σ = F/(bh) by hand (JCGM 100:2008, 5.1.2 and 5.2.2): b = 10 mm, h = 4 mm, F = 2000 N; what both sizes
// share, 0.01 mm, adds linearly: 0.1 % + 0.25 %; their own 0.02 and 0.01 mm: 0.2 % and 0.25 %; the gauge 1 %
// at k = 2: 0.5 %; its step 0.5 N/√12 of 2000 N. Differences over a whole standard uncertainty are off by
// that much.
TEST(ReadingUncertainty, OfAStrengthIsThatOfTheQuotient)
{
    const RectangularSection section{millimetres(10.0), millimetres(4.0)};
    const ReadValue value = strength(job(section, SizeUncertainty{0.01, 0.02, 0.01, {}}, 1.0));
    const double expected =
        50.0 * std::sqrt(std::pow(0.0035, 2) + std::pow(0.002, 2) + std::pow(0.0025, 2) + std::pow(0.005, 2) +
                         std::pow(kStep_N / std::sqrt(12.0) / 2000.0, 2));
    ASSERT_TRUE(value.uncertainty);
    EXPECT_NEAR(*value.uncertainty, expected, 0.005 * expected);
}

TEST(ReadingUncertainty, ADiameterCountsTwice)
{
    const ReadValue value =
        strength(job(RoundSection{millimetres(8.0)}, SizeUncertainty{0.0, {}, {}, 0.02}, 0.0));
    const double stress = 2000.0 / (0.25 * std::numbers::pi * 64.0);
    const double expected = stress * std::hypot(2.0 * 0.02 / 8.0, kStep_N / std::sqrt(12.0) / 2000.0);
    EXPECT_NEAR(*value.uncertainty, expected, 0.01 * expected);
}

TEST(ReadingUncertainty, WhatIsNotKnownIsNotInvented)
{
    ReadingJob bare = job(RectangularSection{millimetres(10.0), millimetres(4.0)}, {}, {});
    bare.gauge.reset();
    EXPECT_FALSE(strength(bare).uncertainty);
    EXPECT_FALSE(
        strength(job(RoundSection{millimetres(8.0)}, SizeUncertainty{0.0, {}, {}, 0.02}, {})).uncertainty)
        << "a gauge of which nothing is known may be off by more than the section";
    ReadingJob limited = job(RectangularSection{millimetres(10.0), millimetres(4.0)},
                             SizeUncertainty{0.01, 0.02, 0.01, {}}, 1.0);
    limited.order.settings.numbers["capacity"] = 2000.0;
    const ReadValue bound = strength(limited);
    EXPECT_EQ(bound.bound, BoundReason::GaugeAtEnd);
    EXPECT_FALSE(bound.uncertainty) << "a bound has no ±";
}

TEST(ReadingUncertainty, WhatHangsOnTheExtensometerHasNoneWithoutItsOwn)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i <= 2000; ++i)
        text += fmt::format("{},{}\n", kStep_N * i, 0.001 * i);
    ReadingJob pulledJob = job(RectangularSection{millimetres(10.0), millimetres(4.0)},
                               SizeUncertainty{0.01, 0.02, 0.01, {}}, 1.0);
    pulledJob.bytes = std::make_shared<const std::string>(text + "0,2.001\n");
    pulledJob.order.settings.numbers["gauge_length"] = 50.0;
    const Result<PieceReading> reading = readPiece(pulledJob);
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_TRUE(valueOf(reading->result.values, "tensile_strength")->uncertainty);
    EXPECT_TRUE(valueOf(reading->result.values, "peak_force")->uncertainty);
    for (const char *property : {"tensile_modulus", "strain_at_break", "energy_to_break"})
        EXPECT_FALSE(valueOf(reading->result.values, property)->uncertainty) << property;
}

TEST(ReadingUncertainty, ASwingHasNoneWithoutThatOfTheHammer)
{
    ReadingOrder order{reductionOf(Method::Impact), {}, {}, "A1", SizeUncertainty{0.0, 0.05, {}, {}}};
    setSection(order.settings, RectangularSection{millimetres(10.0), millimetres(4.0)});
    order.settings.numbers.merge(std::map<std::string, double, std::less<>>{
        {"mass", 0.5}, {"arm", 300.0}, {"release", 150.0}, {"free_swing", 148.0}});
    const Result<PieceReading> reading = readPiece(
        {PieceId{1}, std::make_shared<const std::string>("code,swing,break\nA1,120,C\n"), {}, order});
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_FALSE(valueOf(reading->result.values, "impact_strength")->uncertainty);
}

TEST(ReadingUncertainty, ChangedCallipersMakeAReadingAnew)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0});
    Study study = builder.study;
    Piece &piece = study.pieces.front();
    piece.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
    piece.log.sizes.width_mm = {10.0, 10.02};
    piece.log.sizes.thickness_mm = {4.0, 4.01};
    Workshop workshop = usualWorkshop();
    GaugeCard callipers;
    callipers.name = "fine ones";
    callipers.uncertainty = 0.01;
    workshop.gauges.push_back(callipers);
    const std::string usual = readingInputs(*piece.recording, *readingOrder(study, piece, workshop));
    study.log.measuring.calliper = "fine ones";
    EXPECT_NE(readingInputs(*piece.recording, *readingOrder(study, piece, workshop)), usual);
}

namespace
{

/// A test with what its record is read by, and by how much each of that may be off.
struct InputsDrawn {
    Method method;
    std::map<std::string, double, std::less<>> numbers;
    std::map<std::string, double, std::less<>> sd;
    std::optional<SizeUncertainty> sizes;
    std::function<std::string(double scale, double offset_N)> record;
    double step_N; ///< of its forces
};

/// A load that rises to 800 N over 2 mm, a little curved, and falls; from row to row by kLoadedStep_N at
/// least.
constexpr int kLoadedRows = 80;
constexpr double kLoadedStep_N = 800.0 * (0.7 / kLoadedRows + 0.3 / (kLoadedRows * kLoadedRows));
std::string loaded(double scale, double offset_N)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i <= kLoadedRows; ++i) {
        const double x = static_cast<double>(i) / kLoadedRows;
        text += fmt::format("{},{}\n", scale * (800.0 * x * (1.3 - 0.3 * x) + offset_N), 2.0 * x);
    }
    return text + "0,2.01\n";
}

/// A start at 2.4 N, then a pull of 1.8 N, by a gauge that shows a hundredth of a newton.
constexpr double kTowedStep_N = 0.01;
std::string towed(double scale, double offset_N)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i <= 400; ++i) {
        const double force_N = i < 20 ? 0.12 * i : i == 20 ? 2.4 : 1.8 + kTowedStep_N * (i % 2);
        text += fmt::format("{},{}\n", scale * (force_N + offset_N), 0.25 * i);
    }
    return text;
}

ReadingJob drawnJob(const InputsDrawn &drawn, double scale, double offset_N)
{
    ReadingOrder order{reductionOf(drawn.method), {}, {}, {}, drawn.sizes};
    order.settings.numbers = drawn.numbers;
    ReadingJob job{PieceId{1}, std::make_shared<const std::string>(drawn.record(scale, offset_N)), {}, order};
    UsedGauge gauge;
    gauge.calibration = Calibration{};
    gauge.calibration->uncertainty_percent = 1.0;
    job.gauge = gauge;
    return job;
}

} // namespace

// JCGM 101:2008 (GUM, supplement 1): all inputs drawn at once, the reading made of each, the scatter of what
// comes out. An insert's depth of 6 mm known to 0.05 mm alone is 0.8 % of its interface shear.
TEST(ReadingUncertainty, IsThatOfAMonteCarlo)
{
    constexpr int kRuns = test::kSanitized ? 150 : 600;
    constexpr double kTenth = test::kSanitized ? 0.25 : 0.1; // of few runs the scatter is not known so well
    constexpr double kGauge = 0.005;
    const InputsDrawn tests[] = {
        {Method::PullOut,
         {{"diameter", 4.2}, {"depth", 6.0}},
         {{"diameter", 0.02}, {"depth", 0.05}},
         {},
         loaded,
         kLoadedStep_N},
        {Method::Friction, {{"mass", 0.8}}, {{"mass", 0.0016}}, {}, towed, kTowedStep_N},
        {Method::Bending,
         {{"width", 10.0}, {"thickness", 4.0}, {"span", 64.0}},
         {{"width", 0.02}, {"thickness", 0.01}, {"span", 0.06}},
         SizeUncertainty{0.0, 0.02, 0.01, {}},
         loaded,
         kLoadedStep_N},
        {Method::Compression,
         {{"width", 10.0}, {"thickness", 10.0}, {"length", 20.0}},
         {{"width", 0.02}, {"thickness", 0.02}, {"length", 0.02}},
         SizeUncertainty{0.0, 0.02, 0.02, {}},
         loaded,
         kLoadedStep_N}};
    Random random(51);
    for (const InputsDrawn &drawn : tests) {
        const Result<PieceReading> told = readPiece(drawnJob(drawn, 1.0, 0.0));
        ASSERT_TRUE(told) << methodName(drawn.method) << told.error().message;
        std::map<std::string, std::vector<double>> came;
        for (int run = 0; run < kRuns; ++run) {
            InputsDrawn moved = drawn;
            for (const auto &[name, sd] : drawn.sd)
                moved.numbers[name] += sd * random.normal();
            moved.sizes.reset(); // nothing is to be told of this one
            ReadingJob job =
                drawnJob(moved, 1.0 + kGauge * random.normal(), drawn.step_N * (random.uniform() - 0.5));
            job.gauge.reset();
            const Result<PieceReading> reading = readPiece(job);
            ASSERT_TRUE(reading);
            for (const ReadValue &value : reading->result.values)
                came[std::string(value.property)].push_back(value.number);
        }
        int known = 0;
        for (const ReadValue &value : told->result.values) {
            if (!value.uncertainty)
                continue;
            ++known;
            const double sd = std::sqrt(varianceOf(came[std::string(value.property)]));
            EXPECT_NEAR(*value.uncertainty / sd, 1.0, kTenth)
                << methodName(drawn.method) << ' ' << value.property;
        }
        EXPECT_GE(known, 1) << methodName(drawn.method);
    }
    EXPECT_EQ(usuallyKnownText(*reductionOf(Method::PullOut)), "insert diameter ± 0.04 mm, depth ± 0.1 mm");
    EXPECT_EQ(usuallyKnownText(*reductionOf(Method::Friction)), "mass ± 0.4 %");
    EXPECT_EQ(usuallyKnownText(*reductionOf(Method::Tension)), "");
}

} // namespace inchpeg
