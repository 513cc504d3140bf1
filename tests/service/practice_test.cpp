// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/piece_reading.h"
#include "core/reading/reading_settings.h"
#include "core/stats/summary.h"
#include "service/on_all_cores.h"
#include "service/practice.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

Study studyOfRails(int rails, int pieces)
{
    test::StudyBuilder builder;
    for (int rail = 0; rail < rails; ++rail)
        builder.rail(std::to_string(200 + 10 * rail), {}, Orientation::Flat, pieces);
    for (Piece &piece : builder.study.pieces)
        piece.section = RectangularSection{millimetres(10.0), millimetres(4.0)};
    builder.study.reference = builder.study.conditions.front().id;
    return builder.study;
}

} // namespace

TEST(Practice, TheTruthStaysWithItsSeedAndIsOfTheKindThatIsPromised)
{
    const Study study = studyOfRails(6, 5);
    int equal = 0;
    int rails = 0;
    for (std::uint64_t seed = 1; seed <= 500; ++seed) {
        const PracticeTruth truth = practiceTruth(study, 1000.0, seed);
        EXPECT_EQ(truth.ratio, practiceTruth(study, 1000.0, seed).ratio);
        EXPECT_NEAR(truth.reference_N, 1000.0, 100.0);
        EXPECT_GE(truth.cv, 0.03);
        EXPECT_LE(truth.cv, 0.09);
        EXPECT_EQ(truth.ratio.at(study.reference), 1.0);
        for (const auto &[rail, ratio] : truth.ratio) {
            if (rail == study.reference)
                continue;
            ++rails;
            equal += ratio == 1.0 ? 1 : 0;
            const double off = std::abs(ratio - 1.0) / study.smallestDifference;
            EXPECT_TRUE(ratio == 1.0 || (off > 0.69 && off < 2.51)) << ratio;
        }
    }
    EXPECT_NEAR(static_cast<double>(equal) / rails, 0.35, 0.03);
}

TEST(Practice, WhatIsTrueOfARailHangsOnNoOther)
{
    const Study many = studyOfRails(5, 5);
    Study fewer = many;
    fewer.conditions.pop_back();
    const PracticeTruth all = practiceTruth(many, 1000.0, 7);
    for (const auto &[rail, ratio] : practiceTruth(fewer, 1000.0, 7).ratio)
        EXPECT_EQ(ratio, all.ratio.at(rail));
}

TEST(Practice, RecordsReadBackWhatThePiecesBear)
{
    const Study study = studyOfRails(2, 40);
    const PracticeTruth truth = practiceTruth(study, 1200.0, 11);
    std::vector<double> loads;
    for (const Piece &piece : study.pieces) {
        const double load_N = practiceLoad_N(truth, piece, 11);
        if (piece.condition == study.reference)
            loads.push_back(load_N);
        const auto order = readingOrder(study, piece, Workshop{});
        ASSERT_TRUE(order) << order.error().message;
        const Result<PieceReading> read = readPiece(
            {piece.id, std::make_shared<const std::string>(practiceRecord(truth, piece, 11)), {}, *order});
        ASSERT_TRUE(read) << read.error().message;
        const ReadValue *peak = valueOf(read->result.values, "peak_force");
        ASSERT_NE(peak, nullptr);
        EXPECT_NEAR(peak->number, load_N, 0.01 * load_N) << piece.code;
    }
    EXPECT_NEAR(meanOf(loads), truth.reference_N, 4.0 * truth.cv * truth.reference_N / std::sqrt(40.0));
}

TEST(Practice, VerdictsAreJudgedAndOtherPlansSaid)
{
    const Study study = studyOfRails(3, 5);
    PracticeTruth truth;
    truth.reference_N = 1000.0;
    truth.cv = 0.05;
    truth.ratio = {
        {study.conditions[0].id, 1.0}, {study.conditions[1].id, 1.2}, {study.conditions[2].id, 1.0}};
    const auto answers = judgePractice(
        study, truth,
        {{study.conditions[1].id, PracticeVerdict::More}, {study.conditions[2].id, PracticeVerdict::Less}});
    ASSERT_EQ(answers.size(), 2U);
    EXPECT_TRUE(answers[0].isRight);
    EXPECT_FALSE(answers[1].isRight);
    EXPECT_FALSE(judgePractice(study, truth, {})[0].isRight) << "who cannot tell is not right";
    const auto plans = practicePlans(study, truth, {2, 5, 10}, onAllCores, {});
    ASSERT_TRUE(plans) << plans.error().message;
    EXPECT_LT((*plans)[0].foundShare, 0.6);
    EXPECT_GT((*plans)[2].foundShare, 0.97);
}

TEST(Practice, IsForTestsInWhichAForceRisesUntilThePieceGivesWay)
{
    EXPECT_TRUE(canPractise(Method::Tension));
    EXPECT_TRUE(canPractise(Method::Bending));
    for (const Method method :
         {Method::Creep, Method::Impact, Method::Friction, Method::Shrinkage, Method::BendSteps})
        EXPECT_FALSE(canPractise(method)) << methodName(method);
}

} // namespace inchpeg
