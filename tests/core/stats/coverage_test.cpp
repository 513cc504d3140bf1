// SPDX-License-Identifier: GPL-3.0-or-later
// How often intervals hold the truth, against what they promise. The table of docs/validation.md is this test
// with INCHPEG_CALIBRATION=10000.
#include "core/base/random.h"
#include "core/stats/bootstrap.h"
#include "core/stats/factorial.h"
#include "core/stats/many_groups.h"
#include "core/stats/pooling.h"
#include "core/stats/simultaneous.h"
#include "core/stats/summary.h"
#include "core/stats/tolerance_bounds.h"
#include "core/stats/trend.h"
#include "core/stats/two_groups.h"
#include "core/stats/weibull.h"
#include "support/calibration.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr double kMean = 40.0;

std::vector<double> normalValues(Random &random, int n, double mean, double sd)
{
    std::vector<double> values;
    for (int i = 0; i < n; ++i)
        values.push_back(mean + sd * random.normal());
    return values;
}

/// Skewed to the right, with this mean; the scatter of logarithms is a fifth.
std::vector<double> skewedValues(Random &random, int n, double mean)
{
    constexpr double kSd = 0.2;
    std::vector<double> values;
    for (int i = 0; i < n; ++i)
        values.push_back(mean * std::exp(kSd * random.normal() - 0.5 * kSd * kSd));
    return values;
}

std::vector<Group> normalGroups(Random &random, int groups, int n, double firstSd, double sd)
{
    std::vector<Group> out;
    for (int g = 0; g < groups; ++g)
        out.push_back({{}, normalValues(random, n, kMean, g == 0 ? firstSd : sd)});
    return out;
}

bool holds(const Interval &ci, double truth)
{
    return ci.low <= truth && truth <= ci.high;
}

/// All intervals of a family hold no difference.
template <typename Pairs, typename Ci>
bool allHold(const Pairs &pairs, Ci ci)
{
    return std::all_of(pairs.begin(), pairs.end(), [&](const auto &pair) { return holds(ci(pair), 0.0); });
}

} // namespace

TEST(Coverage, OfOneAndTwoGroups)
{
    Random random(test::simulationSeed(11));
    test::simulatedShare("Student's t of a mean, 3 values", test::near(0.95, 0.005), [&] {
        const Summary summary = summarise(normalValues(random, 3, kMean, 2.0));
        return holds(*summary.ci, kMean);
    });
    test::simulatedShare("Welch's difference, 4 and 8 values, sd 1 and 4", test::near(0.95, 0.01), [&] {
        const auto a = normalValues(random, 4, kMean, 1.0);
        const auto b = normalValues(random, 8, kMean, 4.0);
        return holds(welchTTest(a, b, 0.95)->ci, 0.0);
    });
    test::simulatedShare("Fieller's ratio, 5 and 5 values, 10 %", test::near(0.9575, 0.0225), [&] {
        const auto a = normalValues(random, 5, kMean, 4.0);
        const auto b = normalValues(random, 5, 1.3 * kMean, 5.2);
        const auto ratio = ratioOfMeans(a, b, 0.95);
        return !ratio->ci || holds(*ratio->ci, 1.3);
    });
    test::simulatedShare("BCa bootstrap of a mean, 12 skewed values", test::near(0.91, 0.04), [&] {
        const std::vector<std::vector<double>> sample{skewedValues(random, 12, kMean)};
        const BootstrapEstimate found =
            bootstrap(sample, meanStatistic(), {.confidence = 0.95, .resamples = 999});
        return holds(*found.bca, kMean);
    });
    test::simulatedShare("paired ratio, 4 pairs", test::near(0.95, 0.005), [&] {
        const auto a = skewedValues(random, 4, kMean);
        std::vector<double> b;
        for (const double value : a)
            b.push_back(1.2 * value * std::exp(0.03 * random.normal()));
        return holds(pairedEffect(a, b, true, 0.95, 1)->ci, 1.2);
    });
}

TEST(Coverage, OfFamilies)
{
    Random random(test::simulationSeed(12));
    test::simulatedShare("Tukey, 4 groups of 5", test::near(0.95, 0.005), [&] {
        const auto groups = normalGroups(random, 4, 5, 2.0, 2.0);
        return allHold(compareGroups(groups)->pairs,
                       [](const PairComparison &pair) { return pair.tukey->ci; });
    });
    test::simulatedShare("Dunnett, 5 groups of 4", test::near(0.95, 0.005), [&] {
        const auto groups = normalGroups(random, 5, 4, 2.0, 2.0);
        return allHold(dunnett(groups, 0), [](const DunnettComparison &one) { return one.ci; });
    });
    test::simulatedShare("Games and Howell, 4 groups of 6, one scatters 4 times as much",
                         test::near(0.945, 0.025), [&] {
                             const auto groups = normalGroups(random, 4, 6, 8.0, 2.0);
                             return allHold(compareGroups(groups)->pairs,
                                            [](const PairComparison &pair) { return pair.gamesHowell->ci; });
                         });
    test::simulatedShare("Hsu: the best is among those that may be, 5 groups of 4", test::atLeast(0.95), [&] {
        auto groups = normalGroups(random, 5, 4, 2.0, 2.0);
        for (double &value : groups[2].values)
            value += 0.5;
        return comparisonWithBest(groups)[2].mayBeBest;
    });
    test::simulatedShare("band of Working and Hotelling, 4 levels of 3", test::near(0.95, 0.005), [&] {
        std::vector<double> x;
        std::vector<double> y;
        for (int i = 0; i < 12; ++i) {
            x.push_back(220.0 + 10.0 * (i % 4));
            y.push_back(0.2 * x.back() + random.normal());
        }
        const auto curve = trendCurve(x, y, 1, 21);
        return std::all_of(curve->begin(), curve->end(),
                           [](const TrendPoint &point) { return holds(*point.band, 0.2 * point.x); });
    });
    test::simulatedShare("difference of adjusted means, covariate, 2 groups of 5", test::near(0.95, 0.005),
                         [&] {
                             std::vector<FactorialValue> values;
                             for (std::size_t i = 0; i < 10; ++i) {
                                 const double mass = 4.0 + 0.2 * random.normal() + (i % 2 == 0 ? 0.0 : 0.3);
                                 values.push_back({10.0 * mass + random.normal(), {i % 2}, {mass}});
                             }
                             return holds(*factorialAnova(values)->differences[0].ci, 0.0);
                         });
}

TEST(Coverage, OfDistributionsAndBounds)
{
    Random random(test::simulationSeed(13));
    const auto weibullSample = [&](int n) {
        std::vector<double> values;
        for (int i = 0; i < n; ++i)
            values.push_back(kMean * std::pow(-std::log(random.uniform()), 1.0 / 12.0));
        return values;
    };
    test::simulatedShare("Weibull scale, 10 values, those above the scale bounds", test::near(0.925, 0.045),
                         [&] {
                             std::vector<BoundedValue> values;
                             for (const double value : weibullSample(10))
                                 values.push_back({std::min(value, kMean), value >= kMean});
                             const Result<WeibullFit> fit = fitWeibull(values);
                             return !fit || (fit->scale.ci && holds(*fit->scale.ci, kMean));
                         });
    const double tenth = kMean - 1.2815515655446004 * 2.0;
    test::simulatedShare("lower bound of nine in ten, normal, 6 values", test::near(0.95, 0.005),
                         [&] { return *normalBounds(normalValues(random, 6, kMean, 2.0)).b <= tenth; });
    const double weibullTenth = kMean * std::pow(-std::log(0.9), 1.0 / 12.0);
    test::simulatedShare("lower bound of nine in ten, Weibull, 6 values", test::near(0.95, 0.005),
                         [&] { return *weibullBounds(weibullSample(6)).b <= weibullTenth; });
    test::simulatedShare("lower bound of nine in ten, order statistics, 30 skewed values",
                         test::atLeast(0.95), [&] {
                             const double truth = kMean * std::exp(-0.02 - 1.2815515655446004 * 0.2);
                             return *orderStatisticBounds(skewedValues(random, 30, kMean)).b <= truth;
                         });
    test::simulatedShare("studies together, 4 studies, truths scatter by their error",
                         test::atLeast(0.95, 0.015), [&] {
                             std::vector<StudyEstimate> studies;
                             for (int i = 0; i < 4; ++i) {
                                 const double se = 0.02 + 0.01 * i;
                                 studies.push_back({0.1 + 0.03 * random.normal() + se * random.normal(), se});
                             }
                             return holds(poolStudies(studies)->ci, 0.1);
                         });
}

} // namespace inchpeg
