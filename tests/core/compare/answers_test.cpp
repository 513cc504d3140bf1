// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/compare/answers.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

std::vector<std::string> answersOf(const test::StudyBuilder &builder, Comparison asked)
{
    Study study = builder.study;
    study.plan.aim.comparison = asked;
    const StudyComparison comparison =
        compareStudy(study, builder.readings, *findProperty(kTensileReduction, kUsualProperty));
    return textsOf(questionAnswers(study, comparison, {}));
}

/// Three pieces around each mean, 1 % apart.
test::StudyBuilder rails(std::initializer_list<std::pair<const char *, double>> means)
{
    test::StudyBuilder builder;
    for (const auto &[level, mean] : means)
        builder.rail(level, {0.99 * mean, mean, 1.01 * mean});
    return builder;
}

} // namespace

TEST(Answers, TheBestAreNamedWithWhatEachEndCosts)
{
    const test::StudyBuilder builder =
        rails({{"220", 30.0}, {"230", 39.8}, {"240", 40.0}, {"250", 39.6}, {"260", 35.0}});
    const std::vector<std::string> told = answersOf(builder, Comparison::AgainstReference);
    ASSERT_EQ(told.size(), 1U);
    // All CV 1 %: own scatters are the common one, known with (2 + 0.4 · 3/5 · 2) · 2 = 4.96 degrees of
    // freedom; Dunnett's one-sided 5 % value for four comparisons is 2.85 at five (table, from memory):
    // 2.86 · 0.01 · √(2/3) = 2.33 % against the best: ln(39.8/40) - 0.0233 = -2.8 %, ln(39.6/40) - 0.0233 =
    // -3.3 %.
    EXPECT_EQ(told[0],
              "Best may be 230 °C, 240 °C or 250 °C: the lowest, 230 °C, costs at most 2.8 % against the "
              "best, the highest, 250 °C, at most 3.3 %.");
    EXPECT_EQ(answersOf(rails({{"220", 30.0}, {"230", 34.0}, {"240", 40.0}}), Comparison::AgainstReference),
              std::vector<std::string>{"240 °C is the best of the 3."});
    EXPECT_TRUE(answersOf(rails({{"220", 30.0}, {"230", 34.0}}), Comparison::AgainstReference).empty());
}

// Of 250 °C a lower bound is known, and who knows how much more: it may be the best of all, and those are not
// that lie clearly below what is known of it.
TEST(Answers, ARailThatIsNotComparedMayBeBetter)
{
    test::StudyBuilder builder = rails({{"220", 30.0}, {"230", 34.0}, {"240", 40.0}});
    builder.rail("250", {39.5, 40.1, 39.2}, Orientation::Standing, 0, true); // the gauge's end
    EXPECT_EQ(
        answersOf(builder, Comparison::AgainstReference),
        std::vector<std::string>{"Best may be 240 °C or 250 °C: of 250 °C only a lower bound is known."});
    EXPECT_EQ(mayBeBest(builder.study, test::strengthCompared(builder)).size(), 2U);
    test::StudyBuilder above = rails({{"220", 30.0}, {"230", 34.0}, {"240", 40.0}});
    above.rail("250", {50.0, 50.0, 50.0}, Orientation::Standing, 0, true);
    EXPECT_EQ(answersOf(above, Comparison::AgainstReference),
              std::vector<std::string>{"Best is 250 °C, however far above its lower bound it lies."});
    EXPECT_EQ(mayBeBest(above.study, test::strengthCompared(above)),
              std::vector<ConditionId>{above.study.conditions.back().id});
    above.rail("240", {60.0, 61.0, 62.0}, Orientation::Flat);
    EXPECT_EQ(answersOf(above, Comparison::AgainstReference),
              std::vector<std::string>{"Of the rails that can be compared, best is 250 °C, however far above "
                                       "its lower bound it lies."})
        << "one printed otherwise may be better than all";
    // One that lies otherwise answers another question.
    test::StudyBuilder flat = rails({{"220", 30.0}, {"230", 34.0}, {"240", 40.0}});
    flat.rail("240", {50.0, 50.0, 50.0}, Orientation::Flat);
    EXPECT_EQ(answersOf(flat, Comparison::AgainstReference),
              std::vector<std::string>{"Of the rails that can be compared, 240 °C (standing) is the best."});
}

TEST(Answers, ATrendIsToldFromEndToEnd)
{
    // ln 44 - ln 40 over 40 °C, exactly along a line of the logarithms: 10 %.
    const test::StudyBuilder builder = rails({{"220", 40.0}, {"240", std::sqrt(40.0 * 44.0)}, {"260", 44.0}});
    const std::vector<std::string> told = answersOf(builder, Comparison::Trend);
    ASSERT_EQ(told.size(), 2U);
    EXPECT_TRUE(told[0].starts_with("From 220 °C to 260 °C strength rises by 10 % (")) << told[0];
    EXPECT_TRUE(told[0].ends_with("along a straight line.")) << told[0];
    EXPECT_TRUE(answersOf(rails({{"220", 40.0}, {"240", 38.0}, {"260", 36.0}}), Comparison::Trend)
                    .front()
                    .starts_with("From 220 °C to 260 °C strength falls by 10 % ("));
    const std::string flat =
        answersOf(rails({{"220", 40.0}, {"240", 40.1}, {"260", 40.0}}), Comparison::Trend)[0];
    EXPECT_TRUE(flat.starts_with("From 220 °C to 260 °C no straight trend is shown (−")) << flat;
}

TEST(Answers, AnOptimumIsToldWhereTheValuesBend)
{
    // A parabola of the logarithms with its top at 245 °C.
    test::StudyBuilder builder;
    Random random(4);
    for (const double level : {220.0, 230.0, 240.0, 250.0, 260.0}) {
        std::vector<double> values;
        for (int i = 0; i < 5; ++i)
            values.push_back(40.0 *
                             std::exp(-4e-4 * (level - 245.0) * (level - 245.0) + 0.01 * random.normal()));
        builder.rail(std::to_string(static_cast<int>(level)), values);
    }
    const std::string told = answersOf(builder, Comparison::Trend).front();
    EXPECT_NE(told.find("It turns: highest near 245 °C (230 to 260)."), std::string::npos) << told;
    EXPECT_EQ(told.find("along a straight line") == std::string::npos ||
                  told.find("not along a straight line") != std::string::npos,
              true)
        << told;
}

TEST(Answers, PairsAndAnyDifferenceAreToldWhereAsked)
{
    const test::StudyBuilder builder = rails({{"220", 30.0}, {"230", 34.0}, {"240", 34.2}});
    EXPECT_EQ(answersOf(builder, Comparison::AllPairs)[0],
              "Each with each: 230 °C above 220 °C; 240 °C above 220 °C; 1 of 3 pairs not told apart.");
    EXPECT_TRUE(answersOf(builder, Comparison::AnyDifference)[0].starts_with(
        "The rails differ (analysis of variance of 3 rails, p below 0.0001)."))
        << answersOf(builder, Comparison::AnyDifference)[0];
    const test::StudyBuilder alike = rails({{"220", 30.0}, {"230", 30.1}, {"240", 30.05}});
    EXPECT_EQ(answersOf(alike, Comparison::AllPairs)[0],
              "Each with each: none of the 3 pairs is told apart.");
    EXPECT_TRUE(
        answersOf(alike, Comparison::AnyDifference)[0].starts_with("It is not shown that any rail differs"));
}

TEST(Answers, NamesHaveNoTrendAndNoEnds)
{
    test::StudyBuilder builder;
    builder.study.factors.front() = {"infill pattern", "", ChangedPer::Piece};
    for (const auto &[name, mean] :
         {std::pair("lines", 30.0), std::pair("grid", 30.1), std::pair("waves", 25.0)})
        builder.rail(name, {0.99 * mean, mean, 1.01 * mean});
    EXPECT_EQ(answersOf(builder, Comparison::Trend), std::vector<std::string>{"Best may be lines or grid."});
}

TEST(Answers, NothingIsSaidWithoutPieces)
{
    test::StudyBuilder builder;
    EXPECT_TRUE(answersOf(builder, Comparison::AllPairs).empty());
    builder.rail("220", {}, Orientation::Standing, 3).rail("230", {30.0, 31.0});
    EXPECT_TRUE(answersOf(builder, Comparison::Trend).empty());
}

// Three rails of three: what may be best and what is told from the reference never contradict each other.
TEST(Answers, TheBestIsNeverNotToldApartFromTheReference)
{
    Random random(9);
    int spoken = 0;
    for (int run = 0; run < 600; ++run) {
        test::StudyBuilder builder;
        for (const double mean : {30.0, 31.0, 33.0}) {
            std::vector<double> values;
            for (int i = 0; i < 3; ++i)
                values.push_back(mean * (1.0 + 0.03 * random.normal()));
            builder.rail(std::to_string(static_cast<int>(mean)), values);
        }
        builder.study.reference = builder.study.conditions[static_cast<std::size_t>(run) % 3].id;
        const StudyComparison comparison = test::strengthCompared(builder);
        const std::vector<ConditionId> best = mayBeBest(builder.study, comparison);
        if (best.size() != 1)
            continue;
        ++spoken;
        for (const RailComparison &rail : comparison.rails) {
            const bool isBesideBest = (rail.condition == best[0]) != (builder.study.reference == best[0]);
            if (isBesideBest && rail.effect && !rail.isReference) {
                EXPECT_TRUE(rail.effect->isClear()) << run;
            }
        }
    }
    EXPECT_GT(spoken, 50);
}

// Flat pieces do not care for the chamber, standing ones rise from 42 to 77 % of them.
TEST(Answers, WhatStandingPiecesKeepIsToldWhereTheyWereAsked)
{
    test::StudyBuilder builder;
    builder.study.factors.front().name = "chamber mode";
    builder.study.factors.front().unit = "";
    builder.rail("open", {50.0, 51.0, 49.0, 50.5}, Orientation::Flat)
        .rail("heated", {50.2, 49.5, 50.8, 50.1}, Orientation::Flat)
        .rail("open", {21.0, 21.5, 20.5, 21.0}, Orientation::Standing)
        .rail("heated", {38.5, 39.0, 38.0, 38.5}, Orientation::Standing);
    const std::vector<std::string> told = answersOf(builder, Comparison::AgainstReference);
    ASSERT_FALSE(told.empty());
    EXPECT_TRUE(told[0].starts_with("Of flat, standing pieces keep: open 42 % (")) << told[0];
    EXPECT_NE(told[0].find("heated keeps more than open"), std::string::npos) << told[0];
}

} // namespace inchpeg
