// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/many_groups.h"

#include "core/stats/distributions.h"
#include "core/stats/ranks.h"
#include "core/stats/studentised.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <numeric>

namespace inchpeg
{

namespace
{

double sizeOf(const Group &group)
{
    return static_cast<double>(group.values.size());
}

double totalSize(std::span<const Group> groups)
{
    return std::accumulate(groups.begin(), groups.end(), 0.0,
                           [](double sum, const Group &group) { return sum + sizeOf(group); });
}

double variance(const Group &group)
{
    return group.values.size() >= 2 ? varianceOf(group.values) : 0.0;
}

/// The groups with every value replaced by its distance from the group's centre.
std::vector<Group> deviations(std::span<const Group> groups,
                              const std::function<double(const Group &)> &centre)
{
    std::vector<Group> out(groups.begin(), groups.end());
    for (Group &group : out) {
        const double middle = centre(group);
        for (double &value : group.values)
            value = std::abs(value - middle);
    }
    return out;
}

std::optional<ChiSquaredTest> bartlett(std::span<const Group> groups)
{
    const auto k = static_cast<double>(groups.size());
    const double df = totalSize(groups) - k;
    double pooled = 0.0;
    double logs = 0.0;
    double inverses = 0.0;
    for (const Group &group : groups) {
        if (group.values.size() < 2 || !(variance(group) > 0.0))
            return std::nullopt;
        const double own = sizeOf(group) - 1.0;
        pooled += own * variance(group);
        logs += own * std::log(variance(group));
        inverses += 1.0 / own;
    }
    pooled /= df;
    const double statistic =
        (df * std::log(pooled) - logs) / (1.0 + (inverses - 1.0 / df) / (3.0 * (k - 1.0)));
    return ChiSquaredTest{statistic, k - 1.0, chiSquaredUpper(statistic, k - 1.0)};
}

struct PooledScale {
    double meanSquare = 0.0;
    double df = 0.0;
    std::vector<double> means;
    [[nodiscard]] double standardError(const Group &a, const Group &b) const
    {
        return std::sqrt(meanSquare * (1.0 / sizeOf(a) + 1.0 / sizeOf(b)));
    }
};

/// Nothing where no group varies.
std::optional<PooledScale> pooledScale(std::span<const Group> groups)
{
    const Anova anova = oneWayAnova(groups);
    if (!(anova.df2 > 0.0) || !(anova.ssWithin > 0.0))
        return std::nullopt;
    PooledScale scale{anova.ssWithin / anova.df2, anova.df2, {}};
    for (const Group &group : groups)
        scale.means.push_back(meanOf(group.values));
    return scale;
}

/// critical: the quantile of the range for the confidence and df.
RangeTest rangeTest(double difference, double scale, double df, const StudentisedDistribution &range,
                    double critical)
{
    const double q = std::abs(difference) / scale;
    const double half = critical * scale;
    return {q, df, 1.0 - range.cdf(q, df), {difference - half, difference + half}};
}

std::optional<RangeTest> gamesHowell(const PairComparison &pair, std::span<const Group> groups,
                                     const StudentisedDistribution &range, double confidence)
{
    if (!pair.welch)
        return std::nullopt;
    const Group &a = groups[pair.a];
    const Group &b = groups[pair.b];
    const double scale = std::sqrt(0.5 * (variance(a) / sizeOf(a) + variance(b) / sizeOf(b)));
    return rangeTest(pair.difference, scale, pair.welch->df, range,
                     range.quantile(confidence, pair.welch->df));
}

std::vector<double> loadings(std::span<const Group> groups, std::size_t control)
{
    std::vector<double> out;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        if (i != control)
            out.push_back(std::sqrt(sizeOf(groups[i]) / (sizeOf(groups[i]) + sizeOf(groups[control]))));
    }
    return out;
}

} // namespace

Anova oneWayAnova(std::span<const Group> groups)
{
    Anova anova;
    const double n = totalSize(groups);
    double sum = 0.0;
    for (const Group &group : groups)
        sum += sizeOf(group) * meanOf(group.values);
    const double grandMean = sum / n;
    for (const Group &group : groups) {
        const double off = meanOf(group.values) - grandMean;
        anova.ssBetween += sizeOf(group) * off * off;
        anova.ssWithin += std::max(0.0, sizeOf(group) - 1.0) * variance(group);
    }
    anova.df1 = static_cast<double>(groups.size()) - 1.0;
    anova.df2 = n - static_cast<double>(groups.size());
    const double total = anova.ssBetween + anova.ssWithin;
    if (total > 0.0)
        anova.eta2 = anova.ssBetween / total;
    if (anova.df2 > 0.0 && anova.ssWithin > 0.0) {
        const double meanSquare = anova.ssWithin / anova.df2;
        const double f = anova.ssBetween / anova.df1 / meanSquare;
        anova.test = FTest{f, anova.df1, anova.df2, fisherUpper(f, anova.df1, anova.df2)};
        anova.omega2 = (anova.ssBetween - anova.df1 * meanSquare) / (total + meanSquare);
    }
    return anova;
}

std::optional<FTest> welchAnova(std::span<const Group> groups)
{
    const auto k = static_cast<double>(groups.size());
    double weights = 0.0;
    double weighted = 0.0;
    for (const Group &group : groups) {
        if (group.values.size() < 2 || !(variance(group) > 0.0))
            return std::nullopt;
        const double w = sizeOf(group) / variance(group);
        weights += w;
        weighted += w * meanOf(group.values);
    }
    const double centre = weighted / weights;
    double between = 0.0;
    double lambda = 0.0;
    for (const Group &group : groups) {
        const double w = sizeOf(group) / variance(group);
        const double off = meanOf(group.values) - centre;
        between += w * off * off;
        lambda += (1.0 - w / weights) * (1.0 - w / weights) / (sizeOf(group) - 1.0);
    }
    lambda /= k * k - 1.0;
    const double f = between / (k - 1.0) / (1.0 + 2.0 * (k - 2.0) * lambda);
    const double df2 = 1.0 / (3.0 * lambda);
    return FTest{f, k - 1.0, df2, fisherUpper(f, k - 1.0, df2)};
}

std::optional<ChiSquaredTest> kruskalWallis(std::span<const Group> groups)
{
    std::vector<double> all;
    for (const Group &group : groups)
        all.insert(all.end(), group.values.begin(), group.values.end());
    const Ranks ranks = ranksOf(all);
    const auto n = static_cast<double>(all.size());
    double squares = 0.0;
    auto next = ranks.ranks.begin();
    for (const Group &group : groups) {
        const auto end = next + static_cast<std::ptrdiff_t>(group.values.size());
        const double sum = std::accumulate(next, end, 0.0);
        squares += sum * sum / sizeOf(group);
        next = end;
    }
    const double correction = 1.0 - ranks.tieSum / (n * n * n - n);
    if (!(correction > 0.0))
        return std::nullopt;
    const double h = (12.0 * squares / (n * (n + 1.0)) - 3.0 * (n + 1.0)) / correction;
    const double df = static_cast<double>(groups.size()) - 1.0;
    return ChiSquaredTest{h, df, chiSquaredUpper(h, df)};
}

VarianceTests varianceTests(std::span<const Group> groups)
{
    VarianceTests tests;
    tests.bartlett = bartlett(groups);
    tests.levene =
        oneWayAnova(deviations(groups, [](const Group &group) { return meanOf(group.values); })).test;
    tests.brownForsythe =
        oneWayAnova(deviations(groups, [](const Group &group) { return medianOf(group.values); })).test;
    return tests;
}

std::vector<DunnettComparison> dunnett(std::span<const Group> groups, std::size_t reference,
                                       double confidence)
{
    require(reference < groups.size() && groups.size() >= 2, "dunnett() needs a reference and another group");
    const std::optional<PooledScale> scale = pooledScale(groups);
    if (!scale)
        return {};
    const std::vector<double> loading = loadings(groups, reference);
    const auto distribution = StudentisedDistribution::sharedDunnett(loading);
    const double critical = distribution->quantile(confidence, scale->df);
    std::vector<DunnettComparison> out;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        if (i == reference)
            continue;
        DunnettComparison comparison;
        comparison.level = i;
        comparison.difference = scale->means[i] - scale->means[reference];
        const double error = scale->standardError(groups[i], groups[reference]);
        comparison.t = comparison.difference / error;
        comparison.p = 1.0 - distribution->cdf(std::abs(comparison.t), scale->df);
        comparison.ci = {comparison.difference - critical * error, comparison.difference + critical * error};
        out.push_back(comparison);
    }
    return out;
}

std::vector<BestLevel>
comparisonWithBest(std::vector<double> means, bool largerIsBetter,
                   const std::function<double(std::size_t control, std::size_t other)> &margin)
{
    if (!largerIsBetter) {
        for (double &mean : means)
            mean = -mean;
    }
    std::vector<double> upper; // ends without the constraint
    for (std::size_t i = 0; i < means.size(); ++i) {
        double least = std::numeric_limits<double>::infinity();
        for (std::size_t j = 0; j < means.size(); ++j) {
            if (j != i)
                least = std::min(least, means[i] - means[j] + margin(i, j));
        }
        upper.push_back(least);
    }
    std::vector<BestLevel> out;
    for (std::size_t i = 0; i < means.size(); ++i) {
        double lowest = 0.0;
        for (std::size_t j = 0; j < means.size(); ++j) {
            if (j != i && upper[j] > 0.0)
                lowest = std::min(lowest, means[i] - means[j] - margin(j, i));
        }
        const Interval better{lowest, std::max(0.0, upper[i])};
        out.push_back({i, largerIsBetter ? better : Interval{-better.high, -better.low}, upper[i] > 0.0});
    }
    return out;
}

std::vector<BestLevel> comparisonWithBest(std::span<const Group> groups, bool largerIsBetter,
                                          double confidence)
{
    require(groups.size() >= 2, "comparisonWithBest() needs two groups");
    const std::optional<PooledScale> scale = pooledScale(groups);
    if (!scale)
        return {};
    std::map<std::vector<double>, double> known; // equal groups have one critical value
    std::vector<double> critical;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        std::vector<double> loading = loadings(groups, i);
        std::sort(loading.begin(), loading.end());
        const auto [entry, isNew] = known.try_emplace(std::move(loading), 0.0);
        if (isNew)
            entry->second =
                StudentisedDistribution::sharedDunnettOneSided(entry->first)->quantile(confidence, scale->df);
        critical.push_back(entry->second);
    }
    return comparisonWithBest(scale->means, largerIsBetter, [&](std::size_t control, std::size_t other) {
        return critical[control] * scale->standardError(groups[control], groups[other]);
    });
}

Error tooFewGroups(std::size_t count)
{
    return Error{
        ErrorCode::TooFewPoints,
        fmt::format("{} group{} with values; a comparison wants at least two", count, count == 1 ? "" : "s"),
        {}};
}

Result<GroupComparison> compareGroups(std::span<const Group> groups, double confidence)
{
    if (groups.size() < 2)
        return tooFewGroups(groups.size());
    GroupComparison out;
    out.anova = oneWayAnova(groups);
    out.welch = welchAnova(groups);
    out.kruskalWallis = kruskalWallis(groups);
    out.variances = varianceTests(groups);
    const std::optional<PooledScale> scale = pooledScale(groups);
    const auto range = StudentisedDistribution::sharedRange(groups.size());
    const double tukeyCritical = scale ? range->quantile(confidence, scale->df) : 0.0;
    std::vector<std::optional<double>> welchP;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        for (std::size_t j = i + 1; j < groups.size(); ++j) {
            const std::vector<double> &a = groups[i].values;
            const std::vector<double> &b = groups[j].values;
            PairComparison pair;
            pair.a = i;
            pair.b = j;
            pair.difference = meanOf(b) - meanOf(a);
            pair.pooled = pooledTTest(a, b, confidence);
            pair.welch = welchTTest(a, b, confidence);
            if (scale)
                pair.tukey =
                    rangeTest(pair.difference, scale->standardError(groups[i], groups[j]) / std::sqrt(2.0),
                              scale->df, *range, tukeyCritical);
            pair.gamesHowell = gamesHowell(pair, groups, *range, confidence);
            pair.mannWhitney = mannWhitney(a, b);
            pair.hedgesG = hedgesG(a, b, confidence);
            pair.ratio = ratioOfMeans(a, b, confidence);
            welchP.push_back(pair.welch ? std::optional(pair.welch->p) : std::nullopt);
            out.pairs.push_back(pair);
        }
    }
    const std::vector<std::optional<double>> adjusted = holmAdjusted(welchP);
    for (std::size_t i = 0; i < out.pairs.size(); ++i)
        out.pairs[i].welchHolm = adjusted[i];
    return out;
}

} // namespace inchpeg
