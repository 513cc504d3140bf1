// SPDX-License-Identifier: GPL-3.0-or-later
// What small, constant, huge and shifted samples give, and worked examples that R has no call for.
#include "core/base/random.h"
#include "core/stats/bootstrap.h"
#include "core/stats/equivalence.h"
#include "core/stats/normality.h"
#include "core/stats/outliers.h"
#include "core/stats/paired.h"
#include "core/stats/plateau.h"
#include "core/stats/random_effects.h"
#include "core/stats/staircase.h"
#include "core/stats/survival.h"
#include "core/stats/tolerance_bounds.h"
#include "core/stats/trend.h"
#include "core/stats/two_way.h"
#include "core/stats/weibull.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

using Values = std::vector<double>;

std::vector<BoundedValue> bounded(const Values &values, const std::vector<bool> &bounds)
{
    std::vector<BoundedValue> out;
    for (std::size_t i = 0; i < values.size(); ++i)
        out.push_back({values[i], bounds[i]});
    return out;
}

std::vector<StaircaseTrial> trials(std::initializer_list<std::pair<double, bool>> list)
{
    std::vector<StaircaseTrial> out;
    for (const auto &[level, failed] : list)
        out.push_back({level, failed});
    return out;
}

Values normalSample(Random &random, std::size_t n, double mean, double sd)
{
    Values out;
    for (std::size_t i = 0; i < n; ++i)
        out.push_back(mean + sd * random.normal());
    return out;
}

} // namespace

TEST(StatsEdges, TooFewOrEqualValuesGiveNothing)
{
    for (const Values &values : {Values{}, Values{1.0}, Values{1.0, 2.0}, Values{5.0, 5.0, 5.0, 5.0}}) {
        EXPECT_FALSE(shapiroWilk(values));
        EXPECT_FALSE(andersonDarling(values));
        EXPECT_FALSE(grubbs(values));
        EXPECT_TRUE(rosnerOutliers(values).empty());
    }
    EXPECT_FALSE(maximumNormedResidual(Values{5.0, 5.0, 5.0}));
    EXPECT_FALSE(shapiroWilk(Values(5001, 1.0)));
    EXPECT_FALSE(normalBounds(Values{3.0}).a);
    EXPECT_FALSE(weibullBounds(Values{3.0, 3.0}).a);
    EXPECT_FALSE(weibullBounds(Values{3.0, -1.0, 2.0}).b);
    EXPECT_FALSE(orderStatisticBounds(Values{}).b);
}

TEST(StatsEdges, HugeTinyAndShiftedValuesChangeNothing)
{
    Random random(3);
    const Values values = normalSample(random, 9, 50.0, 2.0);
    for (double scale : {1e-300, 1e-12, 1e6, 1e150}) {
        Values scaled;
        for (double value : values)
            scaled.push_back(value * scale);
        EXPECT_GE(test::matchingDigits(shapiroWilk(scaled)->w, shapiroWilk(values)->w), 11.0) << scale;
        const std::vector<bool> none(values.size(), false);
        const Result<WeibullFit> fit = fitWeibull(bounded(scaled, none));
        ASSERT_TRUE(fit);
        EXPECT_GE(test::matchingDigits(fit->shape.value, fitWeibull(bounded(values, none))->shape.value),
                  10.0);
    }
    Values shifted; // a spread of 1e-6 of the mean
    for (double value : values)
        shifted.push_back(value + 1e6);
    EXPECT_GE(test::matchingDigits(shapiroWilk(shifted)->w, shapiroWilk(values)->w), 7.0);
    EXPECT_GE(test::matchingDigits(grubbs(shifted)->g, grubbs(values)->g), 7.0);
}

TEST(StatsEdges, ThreeValuesInARowHaveTheLargestW)
{
    // Three equally spaced values: W is 1 and p is 1 (Shapiro & Wilk 1965).
    EXPECT_NEAR(shapiroWilk(Values{1.0, 2.0, 3.0})->w, 1.0, 1e-12);
    EXPECT_NEAR(shapiroWilk(Values{1.0, 2.0, 3.0})->p, 1.0, 1e-6);
}

TEST(StatsEdges, AValueFarOutIsTakenOutAgainAndAgain)
{
    // Two outliers of different size: a single look finds the larger; the repeated ones find both.
    const Values values{10.1, 9.9, 10.0, 10.2, 9.8, 10.05, 9.95, 30.0, 18.0, 10.1, 9.9, 10.0};
    EXPECT_EQ(grubbs(values)->position, 7U);
    EXPECT_EQ(maximumNormedResidual(values)->outliers, (std::vector<std::size_t>{7, 8}));
    EXPECT_EQ(rosnerOutliers(values), (std::vector<std::size_t>{7, 8}));
}

TEST(StatsEdges, NormalFactorsAreThoseOfTheTables)
{
    // CMH-17 vol. 1, table 8.5.10 (B basis) and 8.5.11 (A basis), from memory: three decimals.
    EXPECT_NEAR(normalToleranceFactor(5, 0.90), 3.407, 6e-4);
    EXPECT_NEAR(normalToleranceFactor(10, 0.90), 2.355, 6e-4);
    EXPECT_NEAR(normalToleranceFactor(30, 0.90), 1.777, 6e-4);
    EXPECT_NEAR(normalToleranceFactor(10, 0.99), 3.981, 6e-4);
    EXPECT_NEAR(normalToleranceFactor(30, 0.99), 3.064, 6e-4);
    // Far beyond where R's noncentral t ends: large samples tend to z + z_conf sqrt((1 + z²/2)/n).
    const double z = 2.3263478740408408;
    EXPECT_NEAR(normalToleranceFactor(100000, 0.99),
                z + 1.6448536269514722 * std::sqrt((1.0 + 0.5 * z * z) / 100000.0), 1e-4);
}

TEST(StatsEdges, OrderStatisticsNeed29And299Values)
{
    Values values;
    for (int i = 1; i <= 298; ++i) {
        values.push_back(i);
        const ToleranceBounds bounds = orderStatisticBounds(values);
        EXPECT_EQ(bounds.b.has_value(), i >= 29) << i;
        EXPECT_FALSE(bounds.a) << i;
        if (bounds.b && i < 50) { // the smallest, until 46 values let the second one stand
            EXPECT_EQ(*bounds.b, i < 46 ? 1.0 : 2.0) << i;
        }
    }
    values.push_back(299);
    EXPECT_EQ(*orderStatisticBounds(values).a, 1.0);
}

TEST(StatsEdges, BoundsKeepTheirPromise)
{
    // The b bound of six pieces lies below the true 10 % point in 95 of 100 samples; three standard errors of
    // such a share are 0.015 of 2,000 samples and 0.027 of 600.
    Random random(11);
    const double factor = normalToleranceFactor(6, 0.90);
    int below = 0;
    for (int i = 0; i < 2000; ++i) {
        const Values sample = normalSample(random, 6, 40.0, 3.0);
        if (meanOf(sample) - factor * std::sqrt(varianceOf(sample)) < 40.0 - 3.0 * 1.2815515655446004)
            ++below;
    }
    EXPECT_NEAR(below / 2000.0, 0.95, 0.015);
    below = 0;
    for (int i = 0; i < 600; ++i) {
        Values sample;
        for (int j = 0; j < 6; ++j)
            sample.push_back(20.0 * std::pow(-std::log(random.uniform()), 1.0 / 8.0));
        if (*weibullBounds(sample).b < 20.0 * std::pow(-std::log(0.9), 1.0 / 8.0))
            ++below;
    }
    EXPECT_NEAR(below / 600.0, 0.95, 0.027);
}

TEST(StatsEdges, AWeibullFitSaysWhyThereIsNone)
{
    EXPECT_EQ(fitWeibull(bounded({1.0, 0.0}, {false, false})).error().code, ErrorCode::BadInput);
    EXPECT_EQ(fitWeibull(bounded({1.0, 2.0}, {true, true})).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(fitWeibull(bounded({2.0, 2.0}, {false, false})).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(fitWeibull(bounded({2.0, 1.0}, {false, true})).error().code, ErrorCode::TooFewPoints);
    // One broke, another held more: there is a likeliest shape.
    EXPECT_TRUE(fitWeibull(bounded({1.0, 2.0}, {false, true})));
}

TEST(StatsEdges, WeibullFindsWhatWasDrawnDespiteBounds)
{
    Random random(5);
    std::vector<BoundedValue> sample;
    for (int i = 0; i < 4000; ++i) {
        const double value = 30.0 * std::pow(-std::log(random.uniform()), 1.0 / 6.0);
        sample.push_back({std::min(value, 31.0), value > 31.0}); // a gauge that ends at 31
    }
    const Result<WeibullFit> fit = fitWeibull(sample);
    ASSERT_TRUE(fit);
    EXPECT_GT(fit->bounds, 1000U);
    EXPECT_NEAR(fit->shape.value, 6.0, 0.25);
    EXPECT_NEAR(fit->scale.value, 30.0, 0.3);
    EXPECT_LT(fit->shape.ci->low, 6.0);
    EXPECT_GT(fit->shape.ci->high, 6.0);
}

TEST(StatsEdges, SurvivalCountsBoundsAfterThoseThatEnded)
{
    const SurvivalCurve curve = survivalCurve(bounded({5.0, 5.0, 5.0, 8.0}, {true, false, true, true}));
    ASSERT_EQ(curve.steps.size(), 1U);
    EXPECT_EQ(curve.steps[0].atRisk, 4U);
    EXPECT_DOUBLE_EQ(curve.steps[0].survival, 0.75);
    EXPECT_FALSE(curve.median);
    EXPECT_FALSE(logRank(std::vector<BoundedGroup>{{"a", bounded({1.0}, {false})}, {"b", {}}}));
    EXPECT_FALSE(
        logRank(std::vector<BoundedGroup>{{"a", bounded({1.0}, {true})}, {"b", bounded({2.0}, {true})}}));
    // Two values, two equal groups of one: half of them is left at the first.
    EXPECT_EQ(survivalCurve(bounded({1.0, 2.0}, {false, false})).median, 1.0);
}

TEST(StatsEdges, StaircaseByHand)
{
    // Levels 10, 12, 14, 16; 10 failures and 10 survivals: failures count, from 12 upwards
    // n = 2, 5, 3: A = 5 + 6 = 11, B = 5 + 12 = 17, mean = 12 + 2 (11/10 - 1/2) = 13.2,
    // (10·17 - 121)/100 = 0.49, sd = 1.62·2·(0.49 + 0.029) = 1.68156 (Dixon & Mood 1948).
    std::vector<StaircaseTrial> list;
    const auto add = [&](double level, int failed, int held) {
        for (int i = 0; i < failed; ++i)
            list.push_back({level, true});
        for (int i = 0; i < held; ++i)
            list.push_back({level, false});
    };
    add(10.0, 0, 2);
    add(12.0, 2, 5);
    add(14.0, 5, 3);
    add(16.0, 3, 0);
    const Result<Staircase> found = evaluateStaircase(list);
    ASSERT_TRUE(found);
    EXPECT_EQ(found->used, 10U);
    EXPECT_NEAR(*found->mean, 13.2, 1e-12);
    EXPECT_TRUE(found->isValid);
    EXPECT_NEAR(*found->sd, 1.68156, 1e-12);
    EXPECT_NEAR(*found->seMean, (6.0 * 1.68156 + 2.0) / (7.0 * std::sqrt(10.0)), 1e-12);
    // Without the three failures at 16 they are the rarer: 7; with the survivals rarer the mean lies above.
    list.pop_back();
    EXPECT_EQ(evaluateStaircase(list)->used, 9U);
    const Result<Staircase> bySurvivals =
        evaluateStaircase(trials({{1, false}, {2, true}, {1, false}, {2, true}, {2, true}}));
    EXPECT_EQ(bySurvivals->used, 2U);
    EXPECT_DOUBLE_EQ(*bySurvivals->mean, 1.5);
    EXPECT_FALSE(bySurvivals->isValid);
    EXPECT_FALSE(bySurvivals->sd);
}

TEST(StatsEdges, AStaircaseWantsEvenSteps)
{
    EXPECT_EQ(evaluateStaircase(trials({{1, true}, {1, false}})).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(evaluateStaircase(trials({{1, true}, {2, false}, {3.5, true}})).error().code,
              ErrorCode::BadInput);
    EXPECT_TRUE(evaluateStaircase(trials({{0.1, true}, {0.2, false}, {0.3, true}, {0.5, true}})));
    EXPECT_FALSE(evaluateStaircase(trials({{1, true}, {2, true}}))->mean);
}

TEST(StatsEdges, AStaircaseFindsWhatWasDrawn)
{
    // 300 pieces whose limits are normal, 50 and 4, in steps of 4: mean within three standard errors, sd to a
    // fifth.
    Random random(8);
    std::vector<StaircaseTrial> list;
    double level = 46.0;
    for (int i = 0; i < 300; ++i) {
        const bool failed = 50.0 + 4.0 * random.normal() < level;
        list.push_back({level, failed});
        level += failed ? -4.0 : 4.0;
    }
    const Result<Staircase> found = evaluateStaircase(list);
    EXPECT_NEAR(*found->mean, 50.0, 3.0 * *found->seMean);
    EXPECT_LT(*found->seMean, 0.5);
    EXPECT_NEAR(*found->sd, 4.0, 0.8);
}

TEST(StatsEdges, PairsWithoutADifferenceSayNothing)
{
    const PairedComparison same = comparePaired(Values{1.0, 2.0}, Values{1.0, 2.0});
    EXPECT_EQ(same.meanDifference, 0.0);
    EXPECT_FALSE(same.t);
    EXPECT_FALSE(same.wilcoxon);
    const PairedComparison one = comparePaired(Values{1.0}, Values{3.0});
    EXPECT_EQ(one.meanDifference, 2.0);
    EXPECT_FALSE(one.p);
    EXPECT_DOUBLE_EQ(one.wilcoxon->p, 1.0);
    // Five pairs all upwards: the smallest exact p is 2/32.
    EXPECT_DOUBLE_EQ(comparePaired(Values{1, 2, 3, 4, 5}, Values{2, 4, 6, 8, 10}).wilcoxon->p, 0.0625);
}

TEST(StatsEdges, TwoFactorsRefuseWhatTheyCannotTell)
{
    const std::vector<TwoWayValue> oneLevel{{1.0, 0, 0}, {2.0, 0, 1}, {3.0, 0, 1}};
    EXPECT_EQ(twoWayAnova(oneLevel).error().code, ErrorCode::TooFewPoints);
    const std::vector<TwoWayValue> hole{{1.0, 0, 0}, {1.5, 0, 0}, {2.0, 0, 1},
                                        {2.2, 0, 1}, {3.0, 1, 0}, {3.3, 1, 0}};
    EXPECT_EQ(twoWayAnova(hole, SquaresType::Third).error().code, ErrorCode::InvalidArgument);
    const Result<TwoWayAnova> second = twoWayAnova(hole);
    ASSERT_TRUE(second);
    EXPECT_EQ(second->interaction.df, 0.0);
    EXPECT_FALSE(second->interaction.f);
    // One piece a cell: no residual, no F, and the squares are still told.
    const std::vector<TwoWayValue> single{{1.0, 0, 0}, {2.0, 0, 1}, {3.0, 1, 0}, {5.0, 1, 1}};
    EXPECT_EQ(twoWayAnova(single)->residual.df, 0.0);
    EXPECT_FALSE(twoWayAnova(single)->a.f);
    EXPECT_NEAR(twoWayAnova(single)->a.squares, 6.25, 1e-12);
}

TEST(StatsEdges, TwoFactorsDoNotMindALargeMean)
{
    std::vector<TwoWayValue> plain;
    std::vector<TwoWayValue> lifted;
    Random random(2);
    for (int i = 0; i < 24; ++i) {
        const double value = random.normal() + (i % 2) + 0.5 * (i % 3);
        plain.push_back({value, static_cast<std::size_t>(i % 2), static_cast<std::size_t>(i % 3)});
        lifted.push_back({value + 1e6, plain.back().a, plain.back().b});
    }
    EXPECT_GE(test::matchingDigits(twoWayAnova(lifted)->interaction.squares,
                                   twoWayAnova(plain)->interaction.squares),
              7.0);
}

TEST(StatsEdges, ATrendSaysWhenThereAreTooFewLevels)
{
    EXPECT_EQ(fitTrend(Values{2, 2, 2}, Values{1, 2, 3}, 1).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(fitTrend(Values{1, 2, 2}, Values{1, 2, 3}, 2).error().code, ErrorCode::TooFewPoints);
    EXPECT_EQ(fitTrend(Values{1, 2, 3}, Values{1, 2, 3}, 4).error().code, ErrorCode::InvalidArgument);
    const Result<Trend> exact = fitTrend(Values{1, 2, 3}, Values{1, 4, 9}, 2);
    ASSERT_TRUE(exact);
    EXPECT_NEAR(exact->coefficients[2].value, 1.0, 1e-12);
    EXPECT_FALSE(exact->coefficients[2].se);
    EXPECT_FALSE(exact->residualSd);
    EXPECT_NEAR(exact->optimum->x, 0.0, 1e-9);
    EXPECT_FALSE(exact->optimum->isMaximum);
    EXPECT_FALSE(exact->optimum->ci);
}

TEST(StatsEdges, TheOptimumOfAClearParabolaIsBracketed)
{
    Values x;
    Values y;
    Random random(9);
    for (int i = 0; i < 40; ++i) {
        x.push_back(200.0 + 10.0 * (i % 8));
        y.push_back(40.0 - 0.01 * (x.back() - 238.0) * (x.back() - 238.0) + 0.5 * random.normal());
    }
    const Result<Trend> fit = fitTrend(x, y, 2);
    ASSERT_TRUE(fit->optimum && fit->optimum->ci);
    EXPECT_TRUE(fit->optimum->isMaximum);
    EXPECT_NEAR(fit->optimum->x, 238.0, 2.0);
    EXPECT_LT(fit->optimum->ci->low, 238.0);
    EXPECT_GT(fit->optimum->ci->high, 238.0);
    EXPECT_TRUE(fit->lackOfFit);
}

TEST(StatsEdges, ThePlateauTakesTheWantedEnd)
{
    const Values x{220, 230, 240, 250};
    const std::vector<Group> groups{{"220", {20, 21, 20.5}},
                                    {"230", {30, 31, 30.5}},
                                    {"240", {30.4, 31.2, 30.6}},
                                    {"250", {29.9, 30.8, 30.2}}};
    const Result<Plateau> low = findPlateau(x, groups, {true, true, 0.95});
    EXPECT_EQ(low->best, 2U);
    EXPECT_EQ(*low->chosen, 1U);
    EXPECT_EQ(*findPlateau(x, groups, {false, true, 0.95})->chosen, 3U);
    EXPECT_EQ(*findPlateau(x, groups, {true, false, 0.95})->chosen, 0U);
    const std::vector<Group> flat{{"220", {20, 20}}, {"230", {30, 30}}};
    EXPECT_FALSE(findPlateau(Values{220, 230}, flat, {})->chosen);
    EXPECT_EQ(findPlateau(Values{220, 230}, flat, {})->best, 1U);
    EXPECT_FALSE(findPlateau(Values{220}, std::vector<Group>{{"220", {20}}}, {}));
}

TEST(StatsEdges, EquivalenceIsItsInterval)
{
    // Equivalent exactly where the 90 % interval lies within the margin.
    Random random(21);
    for (int i = 0; i < 200; ++i) {
        const Values a = normalSample(random, 5, 10.0, 1.0);
        const Values b = normalSample(random, 4, 10.3, 0.6);
        const Equivalence found = testEquivalence(a, b, 1.2);
        EXPECT_EQ(*found.equivalent, found.ci90->low > -1.2 && found.ci90->high < 1.2);
    }
    EXPECT_FALSE(testEquivalence(Values{1.0}, Values{1.0, 2.0}, 1.0).equivalent);
    EXPECT_DOUBLE_EQ(*absoluteMargin(0.1, true, Values{-20.0, -20.0}), 2.0);
    EXPECT_FALSE(absoluteMargin(0.1, true, Values{-1.0, 1.0}));
    EXPECT_FALSE(absoluteMargin(0.0, false, Values{1.0}));
}

TEST(StatsEdges, ResamplingRepeatsForItsSeedAndCoversAboutAsPromised)
{
    const std::vector<Values> pair{{10, 11, 12}, {13, 14, 16}};
    const BootstrapSettings settings{0.95, 999, 4};
    EXPECT_EQ(bootstrap(pair, ratioStatistic(), settings).bca,
              bootstrap(pair, ratioStatistic(), settings).bca);
    EXPECT_FALSE(bootstrap(std::vector<Values>{{0.0, 0.0}, {1.0, 2.0}}, ratioStatistic(), settings).estimate);
    const BootstrapEstimate one = bootstrap(std::vector<Values>{{3.0}}, meanStatistic(), settings);
    EXPECT_EQ(one.estimate, 3.0);
    EXPECT_FALSE(one.percentile);
    const BootstrapEstimate same = bootstrap(std::vector<Values>{{3.0, 3.0}}, meanStatistic(), settings);
    EXPECT_EQ(same.percentile, (Interval{3.0, 3.0}));
    EXPECT_FALSE(same.bca);
    // 400 samples of 20: a percentile interval of the mean is known to fall a little short of 95 %.
    Random random(17);
    int covered = 0;
    for (int i = 0; i < 400; ++i) {
        const std::vector<Values> sample{normalSample(random, 20, 5.0, 1.0)};
        const BootstrapEstimate found =
            bootstrap(sample, meanStatistic(), {0.95, 500, static_cast<std::uint64_t>(i)});
        covered += found.bca->low <= 5.0 && found.bca->high >= 5.0 ? 1 : 0;
    }
    EXPECT_GT(covered, 350);
    EXPECT_LT(covered, 396);
}

TEST(StatsEdges, ComponentsOfSingleValuesAreNotKnown)
{
    const std::vector<Group> single{{"a", {1.0}}, {"b", {2.0}}};
    EXPECT_FALSE(varianceComponents(single)->repeatability);
    EXPECT_FALSE(varianceComponents(std::vector<Group>{{"a", {1.0, 2.0}}}));
    // Groups nearer to each other than their scatter allows: no component between them.
    const std::vector<Group> close{{"a", {1.0, 3.0}}, {"b", {1.0, 3.0}}};
    EXPECT_EQ(varianceComponents(close)->between, 0.0);
    EXPECT_DOUBLE_EQ(*varianceComponents(close)->reproducibility, std::sqrt(2.0));
}

} // namespace inchpeg
