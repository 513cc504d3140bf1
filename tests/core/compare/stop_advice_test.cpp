// SPDX-License-Identifier: GPL-3.0-or-later
// Looks while pieces are whole: what they say, and how often they are wrong over all looks together. The
// table of docs/validation.md is the calibration here with INCHPEG_CALIBRATION=10000.
#include "core/base/random.h"
#include "core/compare/procedure_text.h"
#include "core/compare/stop_advice.h"
#include "core/planning/piece_count.h"
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

/// The first n of the drawn values of each rail are broken, the others whole.
test::StudyBuilder afterPieces(const std::vector<std::vector<double>> &drawn, std::size_t n,
                               std::optional<Spending> looks)
{
    test::StudyBuilder builder;
    builder.study.plan.aim.looks = looks;
    for (std::size_t rail = 0; rail < drawn.size(); ++rail) {
        const auto end = drawn[rail].begin() + static_cast<std::ptrdiff_t>(n);
        builder.rail(std::to_string(220 + 10 * rail), {drawn[rail].begin(), end}, Orientation::Standing,
                     static_cast<int>(drawn[rail].size() - n));
    }
    return builder;
}

std::vector<std::vector<double>> drawnRails(Random &random, std::size_t rails, std::size_t pieces, double cv,
                                            double firstRatio)
{
    std::vector<std::vector<double>> drawn(rails);
    for (std::size_t rail = 0; rail < rails; ++rail) {
        for (std::size_t i = 0; i < pieces; ++i)
            drawn[rail].push_back(40.0 * (rail == 1 ? firstRatio : 1.0) *
                                  std::max(0.01, 1.0 + cv * random.normal()));
    }
    return drawn;
}

bool anyClaim(const StudyComparison &comparison)
{
    for (const RailComparison &rail : comparison.rails) {
        if (rail.effect && rail.effect->isClear())
            return true;
    }
    return false;
}

struct LookCase {
    std::size_t rails;
    std::size_t pieces;
    double cv;
    std::optional<Spending> looks;
};

struct LookCounts {
    int wrong = 0;       ///< studies with a claim at any look where nothing differs
    int found = 0;       ///< studies that find a rail that is stronger
    double broken = 0.0; ///< share of the planned pieces that were broken until it was settled, then
};

LookCounts count(const LookCase &setup, double ratio, int studies)
{
    Random random(test::simulationSeed(2024));
    LookCounts counts;
    for (int i = 0; i < studies; ++i) {
        const auto drawn = drawnRails(random, setup.rails, setup.pieces, setup.cv, ratio);
        bool wrong = false;
        bool found = false;
        std::size_t stopped = setup.pieces;
        for (std::size_t n = 2; n <= setup.pieces; ++n) {
            const test::StudyBuilder builder = afterPieces(drawn, n, setup.looks);
            const StudyComparison comparison = test::strengthCompared(builder);
            wrong = wrong || anyClaim(comparison);
            found = found || (comparison.rails[1].effect && comparison.rails[1].effect->isClear());
            const std::optional<StopAdvice> advice = stopAdvice(builder.study, comparison);
            if (stopped == setup.pieces && advice && advice->isSettled)
                stopped = n;
        }
        counts.wrong += wrong ? 1 : 0;
        counts.found += found ? 1 : 0;
        counts.broken += static_cast<double>(stopped) / static_cast<double>(setup.pieces) / studies;
    }
    return counts;
}

} // namespace

TEST(Looks, AreWrongTogetherNoMoreOftenThanOnePromise)
{
    const int studies = test::simulatedStudies(test::kSanitized ? 40 : 300);
    const LookCase cases[] = {{2, 6, 0.05, Spending::OBrienFleming}, {2, 12, 0.08, Spending::Pocock},
                              {4, 6, 0.08, Spending::Pocock},        {4, 12, 0.08, Spending::OBrienFleming},
                              {4, 8, 0.15, Spending::OBrienFleming}, {8, 5, 0.05, Spending::Pocock},
                              {8, 6, 0.08, Spending::OBrienFleming}};
    for (const LookCase &setup : cases) {
        const std::string name = fmt::format("looks, {} rails of {}, {:.0f} %, {}", setup.rails, setup.pieces,
                                             100.0 * setup.cv, spendingName(*setup.looks));
        // The levels take the scatter for known.
        test::expectKept(name + ": wrong at any", test::atMost(0.05, 0.01), count(setup, 1.0, studies).wrong,
                         studies);
        const int there = std::max(10, studies / 4);
        test::expectKept(name + ": three times the scatter found", {},
                         count(setup, 1.0 + 3.0 * setup.cv, there).found, there);
    }
    // Whoever looks each time without asking for more is wrong far more often: what the looks are for.
    const double careless =
        static_cast<double>(count({4, 12, 0.08, std::nullopt}, 1.0, studies).wrong) / studies;
    EXPECT_GT(careless, 0.08);
}

TEST(Looks, SettledSaysHowManyMayStayWhole)
{
    Random random(5);
    const auto drawn = drawnRails(random, 3, 12, 0.03, 1.4);
    test::StudyBuilder builder = afterPieces(drawn, 5, Spending::OBrienFleming);
    builder.study.smallestDifference = 0.25;
    StudyComparison comparison = test::strengthCompared(builder);
    ASSERT_TRUE(comparison.look);
    EXPECT_EQ(comparison.look->pieces, 5);
    EXPECT_EQ(comparison.look->planned, 12);
    std::optional<StopAdvice> advice = stopAdvice(builder.study, comparison);
    ASSERT_TRUE(advice);
    EXPECT_TRUE(advice->isSettled);
    EXPECT_EQ(stopAdviceText(builder.study, comparison, *advice, {}),
              "Settled after 5 of 12 pieces a rail: leave the other 21 whole.");
    EXPECT_NE(procedureText(comparison, {}).find("Looked at as pieces break (strict at first): with 5 of 12"),
              std::string::npos)
        << procedureText(comparison, {});
    // All broken: nothing is left to advise, and the last look still counts the ones before.
    builder = afterPieces(drawn, 12, Spending::OBrienFleming);
    comparison = test::strengthCompared(builder);
    EXPECT_FALSE(stopAdvice(builder.study, comparison));
    EXPECT_GT(comparison.claimConfidence(), 0.95);
    // Nobody asked for looks.
    builder = afterPieces(drawn, 5, std::nullopt);
    comparison = test::strengthCompared(builder);
    EXPECT_FALSE(comparison.look);
    EXPECT_EQ(comparison.claimConfidence(), 0.95);
    EXPECT_FALSE(stopAdvice(builder.study, comparison));
}

TEST(Looks, ARailThatIsNotSeenYetIsNotSettled)
{
    Random random(5);
    const auto drawn = drawnRails(random, 2, 12, 0.03, 1.4);
    test::StudyBuilder builder = afterPieces(drawn, 5, Spending::OBrienFleming);
    builder.rail("240", {41.0}, Orientation::Standing, 11);
    const StudyComparison comparison = test::strengthCompared(builder);
    const std::optional<StopAdvice> advice = stopAdvice(builder.study, comparison);
    ASSERT_TRUE(advice);
    EXPECT_FALSE(advice->isSettled);
    EXPECT_EQ(stopAdviceText(builder.study, comparison, *advice, {}),
              "Not settled after 5 of 12 pieces a rail: 240 °C cannot be told yet; of each rail two pieces "
              "are wanted "
              "first.");
}

TEST(Looks, NotSettledNamesTheRailsAndHowManyMore)
{
    // Pieces ± 8 % around 40 and 44: 10 % apart, ln 1.1 = 0.0953. With n pieces on two rails the half width
    // is t · 0.0924 · √(2/n), 0.0924 being what a step of 8 % either way scatters by (n - 1).
    test::StudyBuilder builder = afterPieces({{36.8, 43.2, 36.8, 43.2, 40, 40, 40, 40, 40, 40, 40, 40},
                                              {40.48, 47.52, 40.48, 47.52, 44, 44, 44, 44, 44, 44, 44, 44}},
                                             4, Spending::Pocock);
    const StudyComparison comparison = test::strengthCompared(builder);
    const std::optional<StopAdvice> advice = stopAdvice(builder.study, comparison);
    ASSERT_TRUE(advice);
    EXPECT_FALSE(advice->isSettled);
    EXPECT_EQ(advice->whole, 16U);
    ASSERT_EQ(advice->undecided.size(), 1U);
    const std::string told = stopAdviceText(builder.study, comparison, *advice, {});
    if (advice->morePieces) {
        EXPECT_NE(told.find("more each of 230 °C and of the reference"), std::string::npos) << told;
    } else {
        EXPECT_NE(told.find("hardly settle 230 °C"), std::string::npos) << told;
    }
}

TEST(Looks, TheFirstOfVeryManyIsStillALook)
{
    std::vector<std::vector<double>> drawn(2, std::vector<double>(kMostPiecesPerCondition, 40.0));
    drawn[0][1] = 41.0;
    drawn[1][1] = 42.0;
    const test::StudyBuilder builder = afterPieces(drawn, 2, Spending::OBrienFleming);
    const StudyComparison comparison = test::strengthCompared(builder);
    ASSERT_TRUE(comparison.look);
    EXPECT_GT(comparison.look->level, 0.0);
    EXPECT_LT(comparison.claimConfidence(), 1.0);
    ASSERT_TRUE(comparison.rails[1].effect);
    EXPECT_FALSE(comparison.rails[1].effect->isClear());
    EXPECT_TRUE(stopAdvice(builder.study, comparison));
    EXPECT_FALSE(procedureText(comparison, {}).empty());
}

TEST(Looks, ThePlanTakesWhatTheLooksHaveLeftForTheLastOne)
{
    test::StudyBuilder builder = afterPieces({{40, 41, 42, 43}, {44, 45, 46, 47}}, 4, std::nullopt);
    const double once = pieceQuestion(builder.study, {}).power.alpha;
    builder.study.plan.aim.looks = Spending::Pocock;
    const double looked = pieceQuestion(builder.study, {}).power.alpha;
    EXPECT_NEAR(once, 0.05, 1e-12);
    EXPECT_LT(looked, 0.04);
    EXPECT_GT(looked, 0.01);
}

} // namespace inchpeg
