// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/ranks.h"
#include "core/stats/two_groups.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

const std::vector<double> kA{10.0, 11.0, 12.0};
const std::vector<double> kB{14.0, 15.0, 16.0, 17.0};

/// The same by counting every arrangement of the ranks: slow, and plainly right.
double exactByCounting(double u, std::size_t na, std::size_t nb)
{
    std::vector<int> which(na + nb, 0);
    std::fill(which.begin(), which.begin() + static_cast<std::ptrdiff_t>(na), 1);
    std::sort(which.begin(), which.end());
    double total = 0.0;
    double atMost = 0.0;
    const double mirrored = std::min(u, static_cast<double>(na * nb) - u);
    do {
        double rankSum = 0.0;
        for (std::size_t i = 0; i < which.size(); ++i)
            rankSum += which[i] == 1 ? static_cast<double>(i + 1) : 0.0;
        const double own = rankSum - 0.5 * static_cast<double>(na * (na + 1));
        total += 1.0;
        atMost += own <= mirrored ? 1.0 : 0.0;
    } while (std::next_permutation(which.begin(), which.end()));
    return std::min(1.0, 2.0 * atMost / total);
}

} // namespace

TEST(PooledT, HandCalculation)
{
    // Means 11 and 15.5, sums of squares 2 and 5, pooled variance 7/5, standard error √(1.4 (1/3 + 1/4)).
    const auto t = pooledTTest(kA, kB);
    ASSERT_TRUE(t);
    EXPECT_EQ(t->df, 5.0);
    EXPECT_GE(matchingDigits(t->t, 4.5 / std::sqrt(1.4 * (1.0 / 3.0 + 0.25))), 14);
}

TEST(WelchT, SignsFollowBMinusA)
{
    const auto forward = welchTTest(kA, kB);
    const auto backward = welchTTest(kB, kA);
    EXPECT_GT(forward->t, 0.0);
    EXPECT_GE(matchingDigits(forward->t, -backward->t), 14);
    EXPECT_GE(matchingDigits(forward->p, backward->p), 14);
    EXPECT_GE(matchingDigits(forward->ci.low, -backward->ci.high), 14);
}

TEST(WelchT, NeedsTwoValuesAndSomeSpread)
{
    const std::vector<double> one{1.0};
    const std::vector<double> flat{2.0, 2.0};
    EXPECT_FALSE(welchTTest(one, kB));
    EXPECT_FALSE(welchTTest(kA, one));
    EXPECT_FALSE(welchTTest(flat, flat));
    EXPECT_TRUE(welchTTest(flat, kB)) << "one side varies";
    EXPECT_FALSE(pooledTTest(one, one));
    EXPECT_TRUE(pooledTTest(one, kB));
}

TEST(Ratio, DoesNotDependOnTheUnit)
{
    const auto inNewtons = ratioOfMeans(kA, kB);
    std::vector<double> a = kA;
    std::vector<double> b = kB;
    for (std::vector<double> *values : {&a, &b}) {
        for (double &value : *values)
            value *= 0.2248089431; // in lbf
    }
    const auto inPounds = ratioOfMeans(a, b);
    EXPECT_GE(matchingDigits(inNewtons->value, inPounds->value), 13);
    EXPECT_GE(matchingDigits(inNewtons->ci->low, inPounds->ci->low), 12);
    EXPECT_GE(matchingDigits(inNewtons->ci->high, inPounds->ci->high), 12);
}

TEST(Ratio, TheIntervalOfTheInverseIsTheInverseInterval)
{
    // Fieller's set is the same whichever mean stands below, but for the degrees of freedom, which are taken
    // at the estimated ratio and are the same there.
    const auto forward = ratioOfMeans(kA, kB);
    const auto backward = ratioOfMeans(kB, kA);
    EXPECT_GE(matchingDigits(forward->ci->low, 1.0 / backward->ci->high), 11);
    EXPECT_GE(matchingDigits(forward->ci->high, 1.0 / backward->ci->low), 11);
}

TEST(Ratio, IsUnboundedWhereTheReferenceMayBeZero)
{
    const std::vector<double> aroundZero{-1.0, 1.5, 0.2};
    const auto ratio = ratioOfMeans(aroundZero, kB);
    ASSERT_TRUE(ratio);
    EXPECT_FALSE(ratio->ci);
    const std::vector<double> zero{-1.0, 1.0};
    EXPECT_FALSE(ratioOfMeans(zero, kB));
}

TEST(Ratio, OfGroupsThatDoNotVaryIsAPoint)
{
    const std::vector<double> two{2.0, 2.0};
    const std::vector<double> three{3.0, 3.0};
    const auto ratio = ratioOfMeans(two, three);
    ASSERT_TRUE(ratio && ratio->ci);
    EXPECT_EQ(ratio->ci->low, 1.5);
    EXPECT_EQ(ratio->ci->high, 1.5);
}

TEST(MannWhitney, ExactAgreesWithCounting)
{
    for (const auto &[na, nb] : {std::pair<std::size_t, std::size_t>{2, 3}, {3, 3}, {4, 5}, {5, 6}}) {
        std::vector<double> all(na + nb);
        std::iota(all.begin(), all.end(), 1.0);
        // Every third value goes to a, so that U lies somewhere in the middle.
        std::vector<double> a;
        std::vector<double> b;
        for (double value : all)
            (a.size() < na && (static_cast<int>(value) % 3 == 0 || b.size() == nb) ? a : b).push_back(value);
        const auto test = mannWhitney(a, b);
        ASSERT_TRUE(test);
        EXPECT_TRUE(test->exact);
        EXPECT_GE(matchingDigits(test->p, exactByCounting(test->u, na, nb)), 12) << na << " " << nb;
    }
}

TEST(MannWhitney, ExactStaysTrueUpToFortyNineValues)
{
    std::vector<double> a;
    std::vector<double> b;
    for (int i = 0; i < 49; ++i) {
        a.push_back(2.0 * i);
        b.push_back(2.0 * i + 9.0);
    }
    const auto forward = mannWhitney(a, b);
    const auto backward = mannWhitney(b, a);
    ASSERT_TRUE(forward && backward);
    EXPECT_TRUE(forward->exact);
    // Reference: R 4.2.2, wilcox.test(2*(0:48), 2*(0:48) + 9, exact = TRUE).
    EXPECT_EQ(forward->u, 990.0);
    EXPECT_GE(matchingDigits(forward->p, 0.136146921153376), 9);
    EXPECT_GE(matchingDigits(forward->p, backward->p), 10);
    EXPECT_EQ(forward->u + backward->u, 49.0 * 49.0);
    a.push_back(500.0);
    EXPECT_FALSE(mannWhitney(a, b)->exact) << "fifty values";
    EXPECT_NEAR(mannWhitney(a, b)->p, forward->p, 0.15);
}

TEST(MannWhitney, TiesTakeTheNormalWay)
{
    const std::vector<double> tied{10.0, 11.0, 14.0};
    EXPECT_FALSE(mannWhitney(tied, kB)->exact);
    const std::vector<double> same{1.0, 1.0};
    EXPECT_FALSE(mannWhitney(same, same));
}

TEST(Ranks, TiesShareTheirMeanRank)
{
    const std::vector<double> values{3.0, 1.0, 3.0, 2.0, 3.0};
    const Ranks ranks = ranksOf(values);
    EXPECT_EQ(ranks.ranks, (std::vector<double>{4.0, 1.0, 4.0, 2.0, 4.0}));
    EXPECT_EQ(ranks.tieSum, 24.0);
}

TEST(HedgesG, IsSmallerThanTheRawEffectAndHoldsZeroWhereThereIsNone)
{
    const auto g = hedgesG(kA, kB);
    ASSERT_TRUE(g && g->ci);
    const double raw = 4.5 / std::sqrt(1.4);
    EXPECT_LT(g->value, raw);
    EXPECT_GT(g->value, 0.8 * raw);
    EXPECT_LT(g->ci->low, g->value);
    EXPECT_GT(g->ci->high, g->value);
    const std::vector<double> c{10.2, 11.4, 11.6};
    EXPECT_LT(hedgesG(kA, c)->ci->low, 0.0);
    EXPECT_GT(hedgesG(kA, c)->ci->high, 0.0);
}

} // namespace inchpeg
