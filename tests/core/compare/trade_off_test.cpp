// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/trade_off.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

/// Infill 20 to 80 %: strength flattens behind 40 %, and 60 % came out weaker than 40 %.
test::StudyBuilder infills()
{
    test::StudyBuilder builder;
    builder.study.factors.front().name = "infill";
    builder.study.factors.front().unit = "%";
    builder.rail("20", {19, 20, 21})
        .rail("40", {35, 36, 37})
        .rail("60", {34, 35, 36})
        .rail("80", {38, 39, 40});
    return builder;
}

std::vector<RailCost> grams(const test::StudyBuilder &builder, std::vector<double> perPiece)
{
    std::vector<RailCost> costs;
    for (std::size_t i = 0; i < perPiece.size(); ++i)
        costs.push_back({builder.study.conditions[i].id, perPiece[i]});
    return costs;
}

std::string told(const test::StudyBuilder &builder, const StudyComparison &comparison, const TradeOff &found)
{
    return tradeOffText(builder.study, comparison, found,
                        {"", [](double cost) { return fmt::format("{:.1f} g", cost); }, "lightest", "lighter",
                         "weigh the same", "mass"},
                        {});
}

} // namespace

TEST(TradeOff, TheFrontLeavesOutWhatACheaperOneBeatsAndTheKneeIsTold)
{
    const test::StudyBuilder builder = infills();
    const StudyComparison comparison = test::strengthCompared(builder);
    const TradeOff found = tradeOff(builder.study, comparison, grams(builder, {2.0, 3.0, 4.0, 5.0}));
    ASSERT_EQ(found.points.size(), 4U);
    EXPECT_EQ(found.front, (std::vector<std::size_t>{0, 1, 3}));
    EXPECT_FALSE(found.points[2].isOnFront);
    EXPECT_EQ(found.knee, 1U); // (36 - 20)/19 = 0.84 of the gain for a third of the cost
    EXPECT_EQ(
        told(builder, comparison, found),
        "Worth their mass by their means: 20 %, 40 % and 80 %; each other is beaten by a lighter one. The "
        "gain flattens at 40 %: up to it 16.0 MPa for 1.0 g, beyond it 3.00 MPa for 2.0 g.");
}

TEST(TradeOff, WhereAllCostTheSameTheBestIsNoBargain)
{
    const test::StudyBuilder builder = infills();
    const StudyComparison comparison = test::strengthCompared(builder);
    EXPECT_EQ(told(builder, comparison, tradeOff(builder.study, comparison, grams(builder, {2, 2, 2, 2}))),
              "All weigh the same; 80 % is the best by its mean.");
}

TEST(TradeOff, ALowerIsBetterPropertyTurnsRound)
{
    const test::StudyBuilder builder = infills();
    StudyComparison comparison = test::strengthCompared(builder);
    comparison.property.better = Better::Lower;
    const TradeOff found = tradeOff(builder.study, comparison, grams(builder, {2.0, 3.0, 4.0, 5.0}));
    EXPECT_EQ(found.front, (std::vector<std::size_t>{0}));
    EXPECT_EQ(told(builder, comparison, found), "20 % is the lightest and by its mean the best.");
    comparison.property.better = Better::Neither;
    EXPECT_TRUE(tradeOff(builder.study, comparison, grams(builder, {2.0, 3.0, 4.0, 5.0})).front.empty());
}

TEST(TradeOff, RailsWithoutAResultOrACostAreLeftOut)
{
    test::StudyBuilder builder = infills();
    builder.rail("90", {}, Orientation::Standing, 3);
    builder.rail("100", {60, 61, 62}, Orientation::Flat);
    const StudyComparison comparison = test::strengthCompared(builder);
    const TradeOff found = tradeOff(builder.study, comparison, grams(builder, {2.0, 3.0, 4.0}));
    EXPECT_EQ(found.points.size(), 3U);
    // A straight gain has no knee.
    test::StudyBuilder straight;
    straight.rail("20", {19, 20, 21}).rail("40", {29, 30, 31}).rail("60", {39, 40, 41});
    const StudyComparison even = test::strengthCompared(straight);
    EXPECT_FALSE(tradeOff(straight.study, even, grams(straight, {2.0, 3.0, 4.0})).knee);
}

// 60 % ran out of the gauge: its mean is lower than that of 40 %, its truth may not be.
TEST(TradeOff, ABoundNeverLoses)
{
    test::StudyBuilder builder;
    builder.study.factors.front().name = "infill";
    builder.study.factors.front().unit = "%";
    builder.rail("20", {19, 20, 21})
        .rail("40", {35, 36, 37})
        .rail("60", {30, 30, 30}, Orientation::Standing, 0, true);
    const StudyComparison comparison = test::strengthCompared(builder);
    const TradeOff found = tradeOff(builder.study, comparison, grams(builder, {2.0, 3.0, 4.0}));
    EXPECT_TRUE(found.points[2].mayBeOnFront);
    const std::string text = told(builder, comparison, found);
    EXPECT_NE(text.find("Of 60 % only lower bounds are known: it may be worth it as well."),
              std::string::npos)
        << text;
    EXPECT_EQ(text.find("beaten"), std::string::npos) << text;
}

} // namespace inchpeg
