// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"
#include "core/stats/many_groups.h"
#include "core/stats/studentised.h"
#include "core/stats/summary.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

std::vector<double> numAcc4()
{
    // NIST StRD, univariate, NumAcc4: 10000000.2 and then 10000000.1, 10000000.3 five hundred times.
    std::vector<double> values{10000000.2};
    for (int i = 0; i < 500; ++i) {
        values.push_back(10000000.1);
        values.push_back(10000000.3);
    }
    return values;
}

} // namespace

TEST(Summary, KeepsTheSpreadOfNumAcc4)
{
    // Reference: NIST StRD NumAcc4: mean 10000000.2, s = 0.1, both exact.
    const Summary summary = summarise(numAcc4());
    EXPECT_GE(matchingDigits(*summary.mean, 10000000.2), 14);
    EXPECT_GE(matchingDigits(*summary.sd, 0.1), 8); // rounding the data to double costs the rest
}

TEST(Summary, SaysOnlyWhatASampleOfItsSizeCanGive)
{
    const Summary none = summarise({});
    EXPECT_EQ(none.n, 0U);
    EXPECT_FALSE(none.mean || none.median || none.sd);
    const std::vector<double> oneValue{4.0};
    const Summary one = summarise(oneValue);
    EXPECT_EQ(one.mean, 4.0);
    EXPECT_EQ(one.median, 4.0);
    EXPECT_FALSE(one.sd || one.ci || one.cv);
    const std::vector<double> twoValues{1.0, 3.0};
    const Summary two = summarise(twoValues);
    EXPECT_TRUE(two.sd && two.ci);
    EXPECT_FALSE(two.skewness || two.kurtosis);
}

TEST(Summary, HasNoCvAroundZeroAndNoSkewnessWithoutSpread)
{
    const std::vector<double> around{-1.0, 1.0};
    EXPECT_FALSE(summarise(around).cv);
    const std::vector<double> flat{2.0, 2.0, 2.0, 2.0};
    EXPECT_FALSE(summarise(flat).skewness || summarise(flat).kurtosis);
}

TEST(Summary, DoesNotDependOnTheOrder)
{
    const std::vector<double> a{3.0, 1.0, 2.5, 7.0};
    const std::vector<double> b{7.0, 2.5, 1.0, 3.0};
    EXPECT_GE(matchingDigits(*summarise(a).mean, *summarise(b).mean), 15);
    EXPECT_GE(matchingDigits(*summarise(a).sd, *summarise(b).sd), 14);
}

TEST(Summary, IntervalGrowsWithConfidence)
{
    const std::vector<double> a{3.0, 1.0, 2.5, 7.0};
    EXPECT_LT(summarise(a, 0.99).ci->low, summarise(a, 0.95).ci->low);
}

TEST(Distributions, StudentisedRangeAgreesWithTheTables)
{
    // Reference: Pearson & Hartley, Biometrika Tables for Statisticians vol. 1, table 29 (upper 5 % points;
    // from memory).
    EXPECT_NEAR(StudentisedDistribution::range(3).quantile(0.95, 10), 3.88, 0.005);
    EXPECT_NEAR(StudentisedDistribution::range(5).quantile(0.95, 20), 4.23, 0.005);
    EXPECT_NEAR(StudentisedDistribution::range(2).quantile(0.95, 5), 3.64, 0.005);
}

TEST(Distributions, TwoGroupsMakeTheRangeAStudentT)
{
    // With two groups q = t sqrt(2), whatever the degrees of freedom.
    for (double df : {1.0, 2.0, 5.0, 30.0, 400.0}) {
        for (double t : {0.3, 1.0, 2.5, 6.0})
            EXPECT_NEAR(1.0 - StudentisedDistribution::range(2).cdf(t * std::sqrt(2.0), df),
                        studentTwoSided(t, df), 1e-9)
                << df << " " << t;
    }
}

TEST(Distributions, OneComparisonMakesDunnettAStudentT)
{
    const std::vector<double> loading{std::sqrt(0.5)};
    for (double df : {2.0, 8.0, 60.0})
        EXPECT_GE(matchingDigits(StudentisedDistribution::dunnettTwoSided(loading).quantile(0.95, df),
                                 studentQuantile(0.975, df)),
                  8)
            << df;
}

TEST(Distributions, DunnettAgreesWithTheTables)
{
    // Reference: Dunnett (1964), Biometrics 20, 482, two-sided 5 % points, equal n (from memory).
    const std::vector<double> three(3, std::sqrt(0.5));
    EXPECT_NEAR(StudentisedDistribution::dunnettTwoSided(three).quantile(0.95, 20), 2.54, 0.005);
    // One-sided: Dunnett (1955), table 1a.
    EXPECT_NEAR(StudentisedDistribution::dunnettOneSided(three).quantile(0.95, 20), 2.19, 0.005);
}

TEST(Holm, AdjustsInOrderAndNeverFalls)
{
    // Hand calculation: 0.01*3, max(0.03, 0.02*2), max(0.04, 0.04*1).
    const std::vector<std::optional<double>> p{0.04, 0.01, std::nullopt, 0.02};
    const auto adjusted = holmAdjusted(p);
    EXPECT_NEAR(*adjusted[1], 0.03, 1e-15);
    EXPECT_NEAR(*adjusted[3], 0.04, 1e-15);
    EXPECT_NEAR(*adjusted[0], 0.04, 1e-15);
    EXPECT_FALSE(adjusted[2]);
}

TEST(Compare, RefusesASingleGroup)
{
    const std::vector<Group> one{{"a", {1.0, 2.0}}};
    const Result<GroupComparison> comparison = compareGroups(one);
    ASSERT_FALSE(comparison);
    EXPECT_EQ(comparison.error().code, ErrorCode::TooFewPoints);
}

TEST(Compare, HasNoTestWhereNothingVaries)
{
    const std::vector<Group> flat{{"a", {1.0, 1.0}}, {"b", {2.0, 2.0}}};
    const Result<GroupComparison> comparison = compareGroups(flat);
    ASSERT_TRUE(comparison);
    EXPECT_FALSE(comparison->anova.test || comparison->welch);
    EXPECT_FALSE(comparison->pairs[0].welch || comparison->pairs[0].tukey || comparison->pairs[0].hedgesG);
    EXPECT_EQ(comparison->pairs[0].difference, 1.0);
}

TEST(Compare, BestLevelsHoldTheTruth)
{
    const std::vector<Group> groups{
        {"low", {1.0, 1.2, 0.9}}, {"high", {5.0, 5.2, 4.9}}, {"near", {4.9, 5.1, 5.0}}};
    const std::vector<BestLevel> levels = comparisonWithBest(groups);
    EXPECT_FALSE(levels[0].mayBeBest);
    EXPECT_TRUE(levels[1].mayBeBest);
    EXPECT_TRUE(levels[2].mayBeBest);
    EXPECT_LE(levels[0].ci.high, 0.0);
    const std::vector<BestLevel> smaller = comparisonWithBest(groups, false);
    EXPECT_TRUE(smaller[0].mayBeBest);
    EXPECT_FALSE(smaller[1].mayBeBest);
}

} // namespace inchpeg
