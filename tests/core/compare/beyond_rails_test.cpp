// SPDX-License-Identifier: GPL-3.0-or-later
// What a comparison says beyond each rail beside the reference: pairs, good enough, factors, masses, plates,
// advice, graphs and text.
#include "core/base/random.h"
#include "core/compare/adviser.h"
#include "core/compare/answers.h"
#include "core/compare/comparison_graphs.h"
#include "core/compare/factor_effects.h"
#include "core/compare/responses.h"
#include "core/compare/trade_off_graph.h"
#include "core/compare/values_text.h"
#include "core/compare/verdict.h"
#include "core/logbook/log_answers.h"
#include "core/logbook/rail_costs.h"
#include "support/study_builder.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

StudyComparison strengthsOf(const test::StudyBuilder &builder)
{
    return compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, kUsualProperty));
}

test::StudyBuilder asked(test::StudyBuilder builder, Comparison comparison)
{
    builder.study.plan.aim.comparison = comparison;
    return builder;
}

std::string joined(const std::vector<std::string> &sentences)
{
    std::string text;
    for (const std::string &sentence : sentences)
        text += sentence + "\n";
    return text;
}

bool says(const std::string &text, std::string_view part)
{
    return text.find(part) != std::string::npos;
}

/// Two factors crossed, three pieces a rail around each mean.
test::StudyBuilder crossed(const std::vector<std::vector<double>> &means)
{
    test::StudyBuilder builder;
    const char *temperatures[] = {"220", "240", "260"};
    const char *fans[] = {"0", "50", "100"};
    std::vector<std::vector<std::string>> levels;
    for (std::size_t t = 0; t < means.size(); ++t) {
        for (std::size_t f = 0; f < means[t].size(); ++f) {
            builder.rail(std::to_string(100 * t + f), {0.99 * means[t][f], means[t][f], 1.01 * means[t][f]});
            levels.push_back({temperatures[t], fans[f]});
        }
    }
    builder.study.factors.push_back({"fan", "%", ChangedPer::Plate});
    for (std::size_t i = 0; i < levels.size(); ++i)
        builder.study.conditions[i].levels = levels[i];
    return builder;
}

/// Masses by rail and piece, in g.
void weigh(test::StudyBuilder &builder, const std::vector<std::vector<double>> &grams)
{
    for (std::size_t rail = 0; rail < grams.size(); ++rail) {
        std::size_t i = 0;
        for (Piece &piece : builder.study.pieces) {
            if (piece.condition == builder.study.conditions[rail].id && i < grams[rail].size())
                piece.log.mass_g = grams[rail][i++];
        }
    }
}

/// Puts the pieces of each rail on plates; a number a piece.
void print(test::StudyBuilder &builder, const std::vector<std::vector<int>> &plates)
{
    std::map<int, PrintedPlate> printed;
    for (std::size_t rail = 0; rail < plates.size(); ++rail) {
        std::size_t i = 0;
        for (const Piece &piece : builder.study.pieces) {
            if (piece.condition != builder.study.conditions[rail].id || i >= plates[rail].size())
                continue;
            PrintedPlate &plate = printed[plates[rail][i]];
            plate.number = plates[rail][i++];
            plate.pieces.push_back({piece.id, 0, 0, 10, 10, 1});
        }
    }
    for (auto &[number, plate] : printed)
        builder.study.plan.print.printed.push_back(std::move(plate));
}

} // namespace

TEST(BeforeAfter, PairsTellWhatTheirScatterHides)
{
    // Each piece gains 5 %; pieces differ from each other by far more.
    test::StudyBuilder builder;
    builder.rail("220", {20.0, 26.0, 33.0, 41.0}).rail("240", {21.1, 27.2, 34.7, 43.0});
    const StudyComparison apart = strengthsOf(builder);
    EXPECT_FALSE(apart.rails[1].effect->isClear());
    const test::StudyBuilder paired = asked(builder, Comparison::BeforeAfter);
    const StudyComparison together = strengthsOf(paired);
    ASSERT_EQ(together.rails[1].pairs.size(), 4U);
    ASSERT_TRUE(together.rails[1].effect);
    EXPECT_TRUE(together.rails[1].effect->isClear());
    // Mean of ln(21.1/20), ln(27.2/26), ln(34.7/33), ln(43/41): 0.04919; e^ = 1.0504.
    EXPECT_NEAR(together.rails[1].effect->estimate, 1.0504, 5e-5);
    const StudyVerdict told = verdictOf(paired.study, together);
    EXPECT_TRUE(says(told.rails[1].sentence, "5.0 % more")) << told.rails[1].sentence;
    EXPECT_TRUE(says(told.rails[1].sentence, "4 pairs")) << told.rails[1].sentence;
    EXPECT_TRUE(says(told.procedure, "piece by piece")) << told.procedure;
    EXPECT_TRUE(says(told.procedure, "Student's for pairs")) << told.procedure;
}

TEST(BeforeAfter, ALeftOutPieceTakesItsPairWithIt)
{
    test::StudyBuilder builder;
    builder.rail("220", {20.0, 26.0, 33.0, 41.0}).rail("240", {21.1, 27.2, 34.7, 43.0});
    builder.study.pieces[1].exclusion = Exclusion{"cracked", "me", ""};
    const test::StudyBuilder paired = asked(builder, Comparison::BeforeAfter);
    const StudyComparison comparison = strengthsOf(paired);
    ASSERT_EQ(comparison.rails[1].pairs.size(), 3U);
    for (const PiecePair &pair : comparison.rails[1].pairs)
        EXPECT_NE(pair.before, 26.0);
    test::StudyBuilder one = paired;
    one.study.pieces[2].exclusion = one.study.pieces[3].exclusion = Exclusion{"cracked", "me", ""};
    // Reference: one value left; the rails cannot be compared, and nobody says that they read alike.
    EXPECT_EQ(verdictOf(one.study, strengthsOf(one)).rails[1].standing, Standing::TooFew);
}

TEST(GoodEnough, IsSaidWithHowMuchWorseAtMost)
{
    test::StudyBuilder builder;
    builder.rail("220", {39.6, 40.0, 40.4, 40.2, 39.8})
        .rail("230", {39.2, 39.6, 40.0, 39.8, 39.4})
        .rail("240", {36.2, 36.6, 37.0, 36.8, 36.4});
    builder.study.smallestDifference = 0.05;
    const test::StudyBuilder enough = asked(builder, Comparison::GoodEnough);
    const std::string text = joined(textsOf(questionAnswers(enough.study, strengthsOf(enough), {})));
    // Means 40, 39.6, 36.6; common scatter by hand 0.316/40 = 0.79 to 0.86 %, 12 degrees of freedom;
    // one-sided Dunnett for two 2.11 (tables, from memory) times 0.0082 √(2/5) = 1.1 %: at most 2.1 and 9.5 %
    // worse.
    EXPECT_TRUE(
        says(text, "Good enough, no worse by more than 5.0 %: 230 °C (2.1 % worse at most, 5 and 5 pieces)."))
        << text;
    EXPECT_TRUE(says(text,
                     "Not shown to be good enough (no worse by more than 5.0 %): 240 °C (9.5 % worse at "
                     "most, 5 and 5 pieces)."))
        << text;
}

TEST(FactorEffects, TellFactorsThatHangOnEachOther)
{
    const test::StudyBuilder builder = crossed({{30.0, 30.0}, {40.0, 30.0}});
    const std::string text = joined(factorAnswers(builder.study, strengthsOf(builder), {}));
    EXPECT_TRUE(says(text, "What one does hangs on the other: nozzle temperature and fan")) << text;
    EXPECT_FALSE(says(text, "each by itself")) << text;
}

TEST(FactorEffects, TellEachFactorWhereTheyDoNot)
{
    // The fan costs a tenth at each temperature; temperature does nothing.
    const test::StudyBuilder builder = crossed({{40.0, 36.0}, {40.0, 36.0}, {40.0, 36.0}});
    const StudyComparison comparison = strengthsOf(builder);
    const std::string text = joined(factorAnswers(builder.study, comparison, {}));
    EXPECT_TRUE(says(text, "It is not shown that factors work together")) << text;
    EXPECT_TRUE(says(text, "fan 50 % beside 0 %: −10 % (")) << text;
    EXPECT_TRUE(says(text, "nozzle temperature is not shown to matter")) << text;
    const Graph graph = comparisonGraph(ComparisonGraph::Interaction, builder.study, comparison, {});
    ASSERT_EQ(graph.series.size(), 4U) << "a line and its points for each of two fans";
    EXPECT_EQ(graph.series[0].name, "fan 0 %");
    // The same mean as in every table: scatter of logarithms does not lower it.
    for (const RailComparison &rail : comparison.rails) {
        const std::vector<std::string> &levels = findCondition(builder.study, rail.condition)->levels;
        if (levels == std::vector<std::string>{"240", "0"}) {
            EXPECT_NEAR(graph.series[0].points[1].y, *rail.summary.mean, 1e-9);
        }
    }
    EXPECT_EQ(graph.x.ticks[2].text, "260 °C");
}

TEST(FactorEffects, AreNoneOfOneFactorOrWithoutACrossing)
{
    test::StudyBuilder one;
    one.rail("220", {39, 40, 41}).rail("240", {42, 43, 44});
    EXPECT_FALSE(factorEffects(one.study, strengthsOf(one)));
    test::StudyBuilder star = crossed({{40.0, 36.0}, {41.0}});
    star.study.conditions.pop_back(); // 220/0 and 220/50 alone
    EXPECT_FALSE(factorEffects(star.study, strengthsOf(star)));
}

TEST(LogAnswers, MassThatExplainsTheDifferenceTakesTheClaimAway)
{
    // Strength goes with mass, in each rail and between them.
    test::StudyBuilder builder;
    builder.rail("220", {38.1, 40.0, 41.9, 40.9}).rail("240", {43.9, 45.8, 47.9, 47.2});
    weigh(builder, {{3.81, 4.0, 4.19, 4.08}, {4.41, 4.6, 4.79, 4.7}});
    const StudyComparison comparison = strengthsOf(builder);
    ASSERT_TRUE(comparison.rails[1].effect->isClear());
    const std::vector<LogAnswer> told = logAnswers(builder.study, comparison, {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_TRUE(told[0].changesClaims) << told[0].text;
    EXPECT_TRUE(
        says(told[0].text, "Heavier pieces of a rail read higher. At equal mass, beside 220 °C: 240 °C"))
        << told[0].text;
    EXPECT_TRUE(says(told[0].text, "not all claims stand")) << told[0].text;
}

TEST(LogAnswers, MassThatDoesNotExplainItLeavesTheClaim)
{
    test::StudyBuilder builder;
    builder.rail("220", {38.1, 40.0, 41.9, 40.9}).rail("240", {52.0, 49.0, 51.2, 50.0});
    weigh(builder, {{4.0, 3.9, 4.0, 4.1}, {4.6, 4.6, 4.5, 4.7}});
    const std::vector<LogAnswer> told = logAnswers(builder.study, strengthsOf(builder), {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_FALSE(told[0].changesClaims);
    EXPECT_TRUE(says(told[0].text, "mass is not shown to be the reason")) << told[0].text;
    test::StudyBuilder unweighed;
    unweighed.rail("220", {38.1, 40.0}).rail("240", {52.0, 49.0});
    EXPECT_TRUE(logAnswers(unweighed.study, strengthsOf(unweighed), {}).empty());
}

TEST(LogAnswers, PlatesThatAreSharedAreTakenOut)
{
    // Every plate lifts both rails alike: 240 is 5 % above on each, hidden by the plates.
    test::StudyBuilder builder;
    builder.rail("220", {36.0, 36.1, 40.0, 40.2, 44.0, 44.1})
        .rail("240", {37.8, 37.9, 42.0, 42.1, 46.3, 46.2});
    print(builder, {{1, 1, 2, 2, 3, 3}, {1, 1, 2, 2, 3, 3}});
    const StudyComparison comparison = strengthsOf(builder);
    EXPECT_FALSE(comparison.rails[1].effect->isClear());
    const std::vector<LogAnswer> told = logAnswers(builder.study, comparison, {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_TRUE(told[0].changesClaims);
    EXPECT_TRUE(says(told[0].text, "With the plates taken out, beside 220 °C: 240 °C +5.0 %"))
        << told[0].text;
}

TEST(LogAnswers, PlatesOfTheirOwnAreTheUnitsOrCannotBeTold)
{
    test::StudyBuilder builder;
    builder.rail("220", {36.0, 36.1, 44.0, 44.1}).rail("240", {41.0, 41.2, 48.0, 48.3});
    print(builder, {{1, 1, 2, 2}, {3, 3, 4, 4}});
    std::vector<LogAnswer> told = logAnswers(builder.study, strengthsOf(builder), {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_TRUE(says(told[0].text, "With the 4 plates as the units")) << told[0].text;
    test::StudyBuilder single;
    single.rail("220", {36.0, 36.1}).rail("240", {41.0, 41.2});
    print(single, {{1, 1}, {2, 2}});
    told = logAnswers(single.study, strengthsOf(single), {});
    ASSERT_EQ(told.size(), 1U);
    EXPECT_TRUE(says(told[0].text, "2 of 2 rails were printed on a single plate each")) << told[0].text;
}

TEST(Adviser, SaysWhyAndWhatElseCouldBeDone)
{
    test::StudyBuilder builder;
    builder.rail("220", {40, 41, 42}).rail("240", {42, 42, 43}).rail("260", {44, 44, 44.5});
    const std::string text = adviceText(builder.study, strengthsOf(builder));
    EXPECT_TRUE(says(text, "ratios are compared")) << text;
    EXPECT_TRUE(says(text, "drawn a little towards that of all")) << text;
    EXPECT_TRUE(says(text, "asked as a trend")) << text;
    EXPECT_TRUE(says(text, "3 rails are looked at together")) << text;
    test::StudyBuilder coarse;
    coarse.rail("220", {40, 40, 41, 41}).rail("240", {42, 42, 43, 43});
    EXPECT_TRUE(says(adviceText(coarse.study, strengthsOf(coarse)), "the gauge's steps"));
    test::StudyBuilder uneven;
    uneven.rail("220", {40, 40.1, 40.2, 39.9, 40.05, 39.95}).rail("240", {42, 50, 36, 45, 39, 58});
    EXPECT_TRUE(says(adviceText(uneven.study, strengthsOf(uneven)), "each rail counts with its own scatter"));
    EXPECT_TRUE(adviceText({}, StudyComparison{}).empty());
}

TEST(Answers, UnevenScatterOfFewPiecesIsToldWhereClaimsAreMade)
{
    test::StudyBuilder builder;
    builder.rail("220", {30.0, 30.1, 30.3}).rail("230", {39.0, 40.0, 41.0}).rail("240", {35.0, 35.4, 35.7});
    const StudyComparison comparison = strengthsOf(builder);
    ASSERT_EQ(comparison.procedure->spread, Spread::Moderated);
    const std::string text = joined(textsOf(questionAnswers(builder.study, comparison, {})));
    EXPECT_TRUE(says(text, "230 °C scatters 4.9 times as much as 220 °C")) << text;
}

TEST(Answers, ATrendCountsBoundsAsBounds)
{
    test::StudyBuilder builder;
    builder.rail("10", {20, 21, 22})
        .rail("20", {30, 31, 32})
        .rail("30", {45, 45, 45}, Orientation::Standing, 0, true);
    const test::StudyBuilder trend = asked(builder, Comparison::Trend);
    const std::string text = joined(textsOf(questionAnswers(trend.study, strengthsOf(trend), {})));
    EXPECT_TRUE(says(text, "From 10 °C to 30 °C along a straight line, each bound counted as one: +"))
        << text;
    EXPECT_TRUE(says(text, "9 pieces, 3 of them bounds")) << text;
}

TEST(LeastCost, IsNamedAmongThoseThatMayBeBest)
{
    test::StudyBuilder builder;
    builder.rail("220", {30, 31, 32}).rail("230", {40, 41, 42}).rail("240", {40.2, 41, 42.1});
    weigh(builder, {{4.0, 4.0, 4.0}, {4.5, 4.5, 4.5}, {4.2, 4.2, 4.2}});
    const std::vector<ConditionId> best = mayBeBest(builder.study, strengthsOf(builder));
    ASSERT_EQ(best.size(), 2U);
    const std::string text = leastCostAnswer(builder.study, best, Method::Tension, {}, {});
    EXPECT_TRUE(says(text, "Of those that may be best the lightest is 240 °C (4.20 g)")) << text;
    EXPECT_TRUE(leastCostAnswer(builder.study, {best[0]}, Method::Tension, {}, {}).empty());
}

TEST(Graphs, EachKindIsOfferedWhereItCanBeFilled)
{
    test::StudyBuilder builder;
    builder.rail("220", {30, 31, 32}).rail("230", {40, 41, 42}).rail("240", {36.0, 37, 38});
    const StudyComparison comparison = strengthsOf(builder);
    const std::vector<ComparisonGraph> kinds = graphsFor(builder.study, comparison);
    EXPECT_EQ(kinds,
              (std::vector{ComparisonGraph::Trend, ComparisonGraph::Survival, ComparisonGraph::Weibull}));
    for (const ComparisonGraph kind :
         {ComparisonGraph::Trend, ComparisonGraph::Interaction, ComparisonGraph::Pairs,
          ComparisonGraph::Weibull, ComparisonGraph::Survival}) {
        const Graph graph = comparisonGraph(kind, builder.study, comparison, {});
        const bool isOffered = std::find(kinds.begin(), kinds.end(), kind) != kinds.end();
        EXPECT_EQ(graph.isEmpty(), !isOffered) << graphName(kind);
        EXPECT_FALSE(graph.sentence.empty()) << graphName(kind);
    }
    const StudyComparison nothing = strengthsOf(test::StudyBuilder());
    EXPECT_TRUE(graphsFor(test::StudyBuilder().study, nothing).empty());
}

TEST(Graphs, ATrendDrawsEveryPieceAndTheTurn)
{
    test::StudyBuilder builder;
    builder.rail("220", {29.7, 30, 30.3}).rail("230", {39.6, 40, 40.4}).rail("240", {29.8, 30, 30.2});
    builder.rail("230", {60, 61}, Orientation::Flat);
    const Graph graph = comparisonGraph(ComparisonGraph::Trend, builder.study, strengthsOf(builder), {});
    std::size_t pieces = 0;
    for (const GraphSeries &series : graph.series)
        pieces += series.shape == GraphShape::Dots ? series.points.size() : 0U;
    EXPECT_EQ(pieces, 9U) << "the flat pieces answer another question";
    ASSERT_TRUE(graph.stretch);
    EXPECT_NEAR(graph.stretch->at, 230.0, 0.1);
    EXPECT_EQ(graph.stretch->low, 220.0);
    EXPECT_EQ(graph.stretch->high, 240.0);
    // Any three means lie on a parabola: it is none that was shown to fit.
    EXPECT_EQ(graph.series.front().shape, GraphShape::Line);
    EXPECT_EQ(graph.series.front().name, "means of the levels");

    test::StudyBuilder straight;
    straight.rail("220", {29.7, 30, 30.3}).rail("230", {34.6, 35, 35.4}).rail("240", {39.8, 40.4, 40.2});
    const Graph line = comparisonGraph(ComparisonGraph::Trend, straight.study, strengthsOf(straight), {});
    EXPECT_FALSE(line.stretch);
    const GraphSeries &band = line.series.front();
    ASSERT_EQ(band.shape, GraphShape::Band);
    for (const GraphPoint &point : band.points) {
        EXPECT_LT(point.yRange->low, point.y);
        EXPECT_GT(point.yRange->high, point.y);
    }
}

TEST(Graphs, SharesCountBounds)
{
    test::StudyBuilder builder;
    builder.rail("220", {30, 31, 32, 33}).rail("230", {45, 45, 45, 45}, Orientation::Standing, 0, true);
    const StudyComparison comparison = strengthsOf(builder);
    EXPECT_EQ(graphsFor(builder.study, comparison).front(), ComparisonGraph::Survival);
    const Graph graph = comparisonGraph(ComparisonGraph::Survival, builder.study, comparison, {});
    ASSERT_EQ(graph.series.size(), 2U);
    EXPECT_EQ(graph.series[0].points.back().y, 0.0);
    EXPECT_EQ(graph.series[1].points.back().y, 100.0) << "none ended";
    EXPECT_TRUE(graph.series[1].points.back().isBound);
}

TEST(Graphs, TextHoldsEveryPoint)
{
    test::StudyBuilder builder;
    builder.rail("220", {30, 31, 32}).rail("230", {40, 41, 42}).rail("240", {36.0, 37, 38});
    const StudyComparison comparison = strengthsOf(builder);
    const Graph graph = comparisonGraph(ComparisonGraph::Weibull, builder.study, comparison, {});
    const std::string text = graphText(graph);
    std::size_t points = 0;
    for (const GraphSeries &series : graph.series)
        points += series.points.size();
    EXPECT_EQ(static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n')), points + 4U)
        << "sentence, two axes and the heading above";
    const std::string values = valuesText(builder.study, comparison, {});
    EXPECT_EQ(std::count(values.begin(), values.end(), '\n'), 10);
    EXPECT_TRUE(says(values, "Strength in MPa"));
}

TEST(TwoResponses, ARailThatIsBeatenInBothIsHollow)
{
    test::StudyBuilder builder;
    builder.rail("220", {30, 31}).rail("230", {40, 41}).rail("240", {36.0, 37});
    const double moduli[] = {2000.0, 1900.0, 1800.0};
    std::size_t rail = 0;
    for (const Condition &condition : builder.study.conditions) {
        for (const Piece *piece : piecesOf(builder.study, condition.id)) {
            PieceReading reading = builder.readings[piece->id]->value();
            reading.result.values.push_back({"toughness", moduli[rail], "", BoundReason::None});
            builder.readings[piece->id] = std::make_shared<const Result<PieceReading>>(reading);
        }
        ++rail;
    }
    const StudyComparison over =
        compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, "toughness"));
    const Graph graph = responsesGraph(builder.study, strengthsOf(builder), over, nullptr, {});
    EXPECT_EQ(graph.sentence, "By their means not beaten in both: 220 °C and 230 °C.");
    for (const GraphSeries &series : graph.series) {
        const GraphPoint &first = series.points.front();
        EXPECT_TRUE(series.shape != GraphShape::Dots || first.isHollow == (first.title == "240 °C"))
            << first.title;
    }
}

namespace
{

/// Strengths given, and other properties of each rail as given: all its pieces alike.
test::StudyBuilder withResponses(const std::vector<double> &strengths, const char *second,
                                 const std::vector<double> &seconds, const char *third,
                                 const std::vector<double> &thirds)
{
    test::StudyBuilder builder;
    for (std::size_t rail = 0; rail < strengths.size(); ++rail)
        builder.rail(std::to_string(220 + 10 * rail), {strengths[rail], strengths[rail] + 1.0});
    std::size_t rail = 0;
    for (const Condition &condition : builder.study.conditions) {
        for (const Piece *piece : piecesOf(builder.study, condition.id)) {
            PieceReading reading = builder.readings[piece->id]->value();
            reading.result.values.push_back({second, seconds[rail], "", BoundReason::None});
            reading.result.values.push_back({third, thirds[rail], "", BoundReason::None});
            builder.readings[piece->id] = std::make_shared<const Result<PieceReading>>(reading);
        }
        ++rail;
    }
    return builder;
}

StudyComparison valuesOf(const test::StudyBuilder &builder, const char *property)
{
    return compareStudy(builder.study, builder.readings, *findProperty(kTensileReduction, property),
                        {.detail = ComparisonDetail::Values});
}

} // namespace

TEST(ThreeResponses, WhatIsBeatenInTwoMayBeTheBestInTheThird)
{
    // 240 is weaker and less tough than 230, but uses the least energy of all; 250 is beaten by 230 in all
    // three.
    const test::StudyBuilder builder =
        withResponses({30, 40, 36, 38}, "toughness", {5, 4, 3, 3.5}, "energy_to_break", {2, 3, 9, 2.5});
    const StudyComparison over = valuesOf(builder, "toughness");
    const StudyComparison third = valuesOf(builder, "energy_to_break");
    EXPECT_EQ(responsesGraph(builder.study, strengthsOf(builder), over, nullptr, {}).sentence,
              "By their means not beaten in both: 220 °C and 230 °C.");
    const Graph graph = responsesGraph(builder.study, strengthsOf(builder), over, &third, {});
    EXPECT_EQ(graph.sentence, "By their means not beaten in all three: 220 °C, 230 °C and 240 °C. Beside "
                              "each: Energy to break in J.");
    bool isNamed = false;
    for (const GraphSeries &series : graph.series) {
        EXPECT_EQ(series.shape, GraphShape::Dots) << "a front in three directions is no line";
        const GraphPoint &point = series.points.front();
        EXPECT_EQ(point.isHollow, point.title.starts_with("250 °C")) << point.title;
        isNamed = isNamed || point.title == "240 °C: 9.00 J";
    }
    EXPECT_TRUE(isNamed);
}

TEST(TwoResponses, TheBendOfTheFrontIsSaid)
{
    // From 220 to 230 ten MPa for 0.5 MJ/m³, from there to 240 one more for 3.5.
    const test::StudyBuilder builder =
        withResponses({30, 40, 41}, "toughness", {8, 7.5, 4}, "energy_to_break", {1, 1, 1});
    const Graph graph =
        responsesGraph(builder.study, strengthsOf(builder), valuesOf(builder, "toughness"), nullptr, {});
    EXPECT_EQ(graph.sentence,
              "By their means no rail is beaten in both. The front bends at 230 °C: up to it 10.0 MPa for "
              "0.500 MJ/m³, beyond it 1.00 MPa for 3.50 MJ/m³.");
}

TEST(Responses, ClaimsAreCountedOverAllAnswersTogether)
{
    // One response with a claim that barely stands, and many without any: together it is lost.
    test::StudyBuilder builder;
    builder.rail("220", {29.0, 30, 31}).rail("230", {32.2, 33.2, 34.2});
    const std::vector<Response> responses = responsesOf(builder.study);
    ASSERT_GE(responses.size(), 4U);
    Random random(3);
    for (auto &[id, read] : builder.readings) {
        PieceReading reading = read->value();
        for (const Response &response : responses) {
            if (response.property.name != kUsualProperty)
                reading.result.values.push_back({std::string(response.property.name),
                                                 10.0 * std::exp(0.05 * random.normal()), "",
                                                 BoundReason::None});
        }
        builder.readings[id] = std::make_shared<const Result<PieceReading>>(reading);
    }
    const std::vector<ResponseColumn> table = responseTable(builder.study, builder.readings);
    const std::string headline = responsesHeadline(builder.study, table);
    EXPECT_TRUE(says(headline, "these do not stand: 230 °C in Strength")) << headline;
}

} // namespace inchpeg
