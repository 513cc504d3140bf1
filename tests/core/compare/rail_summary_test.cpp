// SPDX-License-Identifier: GPL-3.0-or-later
// Rails that are known from a summary: compared as means of so many pieces, never by single values, and said
// so.
#include "core/compare/answers.h"
#include "core/compare/verdict.h"
#include "core/model/rail_summary.h"
#include "core/model/study_check.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

RailSummary sheet(double mean, std::optional<double> sd, std::optional<int> pieces)
{
    return {Method::Tension, "tensile_strength", mean, sd, pieces, "maker's sheet of May", "K.", {}};
}

/// A rail of five pieces, and one that is known from a sheet.
test::StudyBuilder beside(const RailSummary &summary)
{
    test::StudyBuilder builder;
    builder.rail("230", {70.1, 71.4, 69.8, 70.9, 70.3}).rail("250", {});
    EXPECT_TRUE(setSummary(builder.study, builder.study.conditions[1].id, summary));
    return builder;
}

StudyComparison compared(const test::StudyBuilder &builder)
{
    return compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty),
                        {.detail = ComparisonDetail::Tests});
}

bool says(const std::string &text, std::string_view part)
{
    return text.find(part) != std::string::npos;
}

} // namespace

TEST(RailSummary, IsComparedByNumberMeanAndScatter)
{
    const test::StudyBuilder builder = beside(sheet(72.0, 0.8, 6));
    const StudyComparison comparison = compared(builder);
    const RailComparison &rail = comparison.rails[1];
    ASSERT_TRUE(rail.told);
    EXPECT_TRUE(rail.values.empty());
    // scipy 1.10.1: stats.ttest_ind_from_stats(72.0, 0.8, 6, a.mean(), a.std(ddof=1), 5, equal_var=False) and
    // stats.t.interval(0.95, 5, 72.0, 0.8 / sqrt(6)).
    ASSERT_TRUE(rail.welch);
    EXPECT_NEAR(rail.welch->p, 0.007343034933274574, 1e-12);
    ASSERT_TRUE(rail.summary.ci);
    EXPECT_NEAR(rail.summary.ci->low, 71.16045148776367, 1e-9);
    EXPECT_NEAR(rail.summary.ci->high, 72.83954851223633, 1e-9);
    EXPECT_FALSE(rail.ranks) << "ranks of pieces that are not here";
    EXPECT_FALSE(rail.trimmed);

    // The same as pieces with just that mean and scatter.
    test::StudyBuilder pieces;
    const double step = 0.8 * std::sqrt(5.0 / 6.0);
    pieces.rail("230", {70.1, 71.4, 69.8, 70.9, 70.3})
        .rail("250", {72.0 - step, 72.0 + step, 72.0 - step, 72.0 + step, 72.0 - step, 72.0 + step});
    const StudyComparison whole = compared(pieces);
    ASSERT_TRUE(rail.effect);
    EXPECT_NEAR(rail.effect->ci.low, whole.rails[1].effect->ci.low, 1e-12);
    EXPECT_NEAR(rail.effect->ci.high, whole.rails[1].effect->ci.high, 1e-12);
    EXPECT_NEAR(comparison.procedure->scatter, whole.procedure->scatter, 1e-12);

    const StudyVerdict verdict = verdictOf(builder.study, comparison);
    EXPECT_EQ(verdict.rails[1].standing, Standing::Higher);
    EXPECT_TRUE(says(verdict.rails[1].sentence, "a summary of 6 and 5 pieces")) << verdict.rails[1].sentence;
    EXPECT_TRUE(says(verdict.rails[1].sentence, "From a summary: maker's sheet of May."));
    EXPECT_TRUE(says(verdict.headline, "250 °C differs, by less than matters")) << verdict.headline;
}

TEST(RailSummary, WithoutScatterOrNumberItIsShownAndNeverTested)
{
    const std::pair<RailSummary, const char *> cases[] = {
        {sheet(99.0, {}, 6), "without its scatter."},
        {sheet(99.0, 0.8, {}), "without its number of pieces."},
        {sheet(99.0, 0.8, 1), "without its number of pieces."},
        {sheet(99.0, {}, {}), "scatter and number of pieces."}};
    for (const auto &[summary, missing] : cases) {
        const test::StudyBuilder builder = beside(summary);
        const StudyComparison comparison = compared(builder);
        const StudyVerdict verdict = verdictOf(builder.study, comparison);
        EXPECT_FALSE(comparison.rails[1].effect);
        EXPECT_FALSE(comparison.rails[1].welch);
        EXPECT_EQ(verdict.rails[1].standing, Standing::TooFew);
        EXPECT_TRUE(says(verdict.rails[1].meanText, "99")) << verdict.rails[1].meanText;
        EXPECT_TRUE(says(verdict.rails[1].sentence, "shown and not tested")) << verdict.rails[1].sentence;
        EXPECT_TRUE(says(verdict.rails[1].sentence, missing)) << verdict.rails[1].sentence;
        EXPECT_FALSE(says(verdict.headline, "above")) << verdict.headline;
    }
}

TEST(RailSummary, OfTheReferenceSaysSoInEachSentence)
{
    test::StudyBuilder builder;
    builder.rail("230", {}).rail("250", {70.1, 71.4, 69.8, 70.9, 70.3}).rail("270", {50.0});
    ASSERT_TRUE(setSummary(builder.study, builder.study.conditions[0].id, sheet(60.0, 1.2, 10)));
    const StudyComparison comparison = compared(builder);
    const StudyVerdict verdict = verdictOf(builder.study, comparison);
    EXPECT_TRUE(says(verdict.rails[0].sentence, "measured against it (a summary of 10). From a summary:"))
        << verdict.rails[0].sentence;
    EXPECT_TRUE(says(verdict.rails[1].sentence, "5 pieces and a summary of 10")) << verdict.rails[1].sentence;
    EXPECT_EQ(verdict.rails[1].standing, Standing::Higher);
    EXPECT_EQ(verdict.rails[2].standing, Standing::TooFew);
    // No rail is called the best where one of them has no pieces here.
    EXPECT_TRUE(mayBeBest(builder.study, comparison).empty());
}

TEST(RailSummary, PiecesTakeItsPlace)
{
    test::StudyBuilder builder;
    builder.rail("230", {70.1, 71.4, 69.8}).rail("250", {60.0, 61.0, 62.0});
    ASSERT_TRUE(setSummary(builder.study, builder.study.conditions[1].id, sheet(99.0, 0.8, 6)));
    const StudyComparison comparison = compared(builder);
    EXPECT_FALSE(comparison.rails[1].told);
    EXPECT_NEAR(*comparison.rails[1].summary.mean, 61.0, 1e-12);
    EXPECT_FALSE(says(verdictOf(builder.study, comparison).rails[1].sentence, "summary"));
}

TEST(RailSummary, WhatCannotBeIsRefusedAndMended)
{
    test::StudyBuilder builder;
    builder.rail("230", {70.1, 71.4}).rail("250", {});
    const ConditionId rail = builder.study.conditions[1].id;
    RailSummary nothing = sheet(52.0, 0.8, 6);
    nothing.source = "  ";
    RailSummary unknown = sheet(52.0, 0.8, 6);
    unknown.property = "colour";
    for (const RailSummary &wrong : {nothing, unknown, sheet(52.0, 0.0, 6), sheet(52.0, -1.0, 6),
                                     sheet(52.0, 0.8, 0), sheet(std::nan(""), 0.8, 6)})
        EXPECT_FALSE(setSummary(builder.study, rail, wrong));
    EXPECT_TRUE(builder.study.conditions[1].summaries.empty());
    EXPECT_FALSE(setSummary(builder.study, ConditionId{999}, sheet(52.0, 0.8, 6)));
    EXPECT_FALSE(clearSummary(builder.study, rail, Method::Tension, "tensile_strength"));
    ASSERT_TRUE(setSummary(builder.study, rail, sheet(52.0, 0.8, 6)));
    ASSERT_TRUE(setSummary(builder.study, rail, sheet(53.0, 0.8, 6)));
    EXPECT_EQ(builder.study.conditions[1].summaries.size(), 1U) << "one of each property";
    // As a damaged file holds it.
    Study damaged = builder.study;
    damaged.conditions[1].summaries.push_back(sheet(54.0, 0.8, 6));
    damaged.conditions[1].summaries.push_back(unknown);
    EXPECT_EQ(checkStudy(damaged).mendable.size(), 2U);
    mendStudy(damaged);
    EXPECT_EQ(damaged, builder.study);
    EXPECT_TRUE(checkStudy(damaged).isSound());
}

TEST(RailSummary, ComesBackAsItWasWritten)
{
    const std::vector<RailSummary> all{sheet(1.0 / 3.0, 0.1, 7), sheet(-4.0, {}, {})};
    const Result<std::vector<RailSummary>> back = summariesFromText(summariesText(all));
    ASSERT_TRUE(back) << back.error().message;
    EXPECT_EQ(*back, all);
    EXPECT_TRUE(summariesFromText("")->empty());
    for (const char *wrong :
         {"{}x", "[1]", R"([{"test": "knitting"}])", R"([{"test": "tension", "pieces": 2.5}])"})
        EXPECT_FALSE(summariesFromText(wrong)) << wrong;
}

} // namespace inchpeg
