// SPDX-License-Identifier: GPL-3.0-or-later
// Effects with each bound counted as one: their intervals hold the truth as often as they say. The table of
// docs/validation.md is the calibration here with INCHPEG_CALIBRATION=10000.
#include "core/base/random.h"
#include "core/compare/answers.h"
#include "support/calibration.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>

namespace inchpeg
{

namespace
{

/// Values above the gauge's end are read as it, and are bounds.
void clip(test::StudyBuilder &builder, double limit_MPa)
{
    for (auto &[piece, reading] : builder.readings) {
        PieceReading clipped = **reading;
        ReadValue &value = clipped.result.values.front();
        if (value.number >= limit_MPa)
            value = {"tensile_strength", limit_MPa, "", BoundReason::GaugeAtEnd};
        reading = std::make_shared<const Result<PieceReading>>(clipped);
    }
}

struct ClipCase {
    int rails;
    int pieces;
    double cv;
    double limit; ///< over the reference's mean; the first rail lies 10 % above the reference
};

struct Coverage {
    int studies = 0; ///< with an effect that counts bounds
    int missed = 0;  ///< of them with a truth outside of any of its intervals
};

Coverage cover(const ClipCase &setup, int studies)
{
    Random random(test::simulationSeed(31));
    Coverage coverage;
    for (int i = 0; i < studies; ++i) {
        test::StudyBuilder builder;
        for (int rail = 0; rail < setup.rails; ++rail) {
            std::vector<double> values;
            for (int piece = 0; piece < setup.pieces; ++piece)
                values.push_back(40.0 * (rail == 1 ? 1.1 : 1.0) * std::exp(setup.cv * random.normal()));
            builder.rail(std::to_string(220 + 10 * rail), values);
        }
        clip(builder, 40.0 * setup.limit);
        bool any = false;
        bool missed = false;
        const StudyComparison comparison = test::strengthCompared(builder);
        for (std::size_t rail = 1; rail < comparison.rails.size(); ++rail) {
            const std::optional<Effect> &effect = comparison.rails[rail].countingBounds;
            if (!effect)
                continue;
            any = true;
            const double truth = rail == 1 ? 1.1 : 1.0;
            missed = missed || effect->ci.low > truth || effect->ci.high < truth;
        }
        coverage.studies += any ? 1 : 0;
        coverage.missed += missed ? 1 : 0;
    }
    return coverage;
}

} // namespace

TEST(BoundsCounted, IntervalsHoldTheTruthAsOftenAsTheySay)
{
    const int studies = test::simulatedStudies();
    for (const ClipCase &setup :
         {ClipCase{2, 5, 0.08, 1.10}, ClipCase{4, 5, 0.08, 1.10}, ClipCase{4, 3, 0.05, 1.08},
          ClipCase{6, 6, 0.15, 1.05}, ClipCase{3, 12, 0.08, 1.00}}) {
        const Coverage coverage = cover(setup, studies);
        EXPECT_GT(coverage.studies, studies / 2);
        test::expectKept(
            fmt::format(
                "bounds counted, {} rails of {}, {:.0f} %, the gauge ends at {:.2f}: an interval misses",
                setup.rails, setup.pieces, 100.0 * setup.cv, setup.limit),
            test::atMost(0.05, 0.03), coverage.missed, coverage.studies);
    }
}

TEST(BoundsCounted, IsToldWhereBoundsAreOnBothSidesToo)
{
    test::StudyBuilder builder;
    builder.rail("220", {38.0, 40.0, 42.0, 45.0})
        .rail("230", {43.0, 44.0, 46.0, 47.0})
        .rail("240", {30, 31, 32, 33});
    clip(builder, 44.5);
    const StudyComparison comparison = test::strengthCompared(builder);
    ASSERT_TRUE(comparison.rails[1].countingBounds);
    EXPECT_FALSE(comparison.rails[1].effect) << "at face value the truth may lie on either side";
    EXPECT_GT(comparison.rails[1].countingBounds->estimate, 1.05);
    ASSERT_TRUE(comparison.rails[2].countingBounds) << "the reference has a bound";
    EXPECT_LT(comparison.rails[2].countingBounds->ci.high, 1.0);
    const std::vector<std::string> told = textsOf(questionAnswers(builder.study, comparison, {}));
    ASSERT_FALSE(told.empty());
    EXPECT_EQ(
        told[0].find("With each bound counted as one (maximum likelihood), beside the reference: 230 °C +"),
        0U)
        << told[0];
    EXPECT_NE(told[0].find("240 °C −2"), std::string::npos) << told[0];
}

TEST(BoundsCounted, WithoutBoundsNothingIsAdded)
{
    test::StudyBuilder builder;
    builder.rail("220", {38.0, 40.0, 42.0}).rail("230", {43.0, 44.0, 46.0});
    const StudyComparison comparison = test::strengthCompared(builder);
    EXPECT_FALSE(comparison.rails[1].countingBounds);
    builder.rail("240", {50.0, 50.0, 50.0}, Orientation::Standing, 0, true);
    EXPECT_FALSE(test::strengthCompared(builder).rails[2].countingBounds)
        << "bounds alone say nothing of where the middle is";
}

TEST(Answers, ASlopeThatChangesIsTold)
{
    // 4 MPa a step up to 40 %, then next to nothing.
    test::StudyBuilder builder;
    builder.study.factors.front().name = "infill";
    builder.study.factors.front().unit = "%";
    builder.study.plan.aim.comparison = Comparison::Trend;
    Random random(3);
    for (const int infill : {10, 20, 30, 40, 50, 60, 70, 80}) {
        std::vector<double> values;
        for (int i = 0; i < 3; ++i)
            values.push_back((20.0 + 0.4 * std::min(infill, 40)) * (1.0 + 0.01 * random.normal()));
        builder.rail(std::to_string(infill), values);
    }
    const std::vector<std::string> told =
        textsOf(questionAnswers(builder.study, test::strengthCompared(builder), {}));
    ASSERT_FALSE(told.empty());
    EXPECT_NE(told[0].find("It rises up to 40 %; from there to 80 % no more is shown."), std::string::npos)
        << told[0];
}

} // namespace inchpeg
