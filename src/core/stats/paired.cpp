// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/paired.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/ranks.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace inchpeg
{

namespace
{

/// P(V <= v) for n pairs, every sign equally likely: subsets of 1 to n by their sum.
double signedRankCdf(double v, std::size_t n)
{
    std::vector<double> share(n * (n + 1) / 2 + 1, 0.0);
    share[0] = 1.0;
    for (std::size_t rank = 1; rank <= n; ++rank) {
        for (std::size_t sum = share.size(); sum-- > 0;)
            share[sum] = 0.5 * (share[sum] + (sum >= rank ? share[sum - rank] : 0.0));
    }
    double below = 0.0;
    for (std::size_t sum = 0; sum < share.size() && static_cast<double>(sum) <= v; ++sum)
        below += share[sum];
    return below;
}

std::optional<SignedRank> signedRank(std::span<const double> differences)
{
    std::vector<double> sizes;
    std::vector<bool> positive;
    for (double difference : differences) {
        if (difference != 0.0) {
            sizes.push_back(std::abs(difference));
            positive.push_back(difference > 0.0);
        }
    }
    if (sizes.empty())
        return std::nullopt;
    const Ranks ranks = ranksOf(sizes);
    SignedRank result;
    for (std::size_t i = 0; i < sizes.size(); ++i)
        result.v += positive[i] ? ranks.ranks[i] : 0.0;
    const auto n = static_cast<double>(sizes.size());
    const double largest = n * (n + 1.0) / 2.0;
    result.exact =
        sizes.size() == differences.size() && ranks.tieSum == 0.0 && sizes.size() < kExactRankTestBelow;
    if (result.exact) {
        result.p = std::min(1.0, 2.0 * signedRankCdf(std::min(result.v, largest - result.v), sizes.size()));
        return result;
    }
    const double sd = std::sqrt(n * (n + 1.0) * (2.0 * n + 1.0) / 24.0 - ranks.tieSum / 48.0);
    const double off = result.v - largest / 2.0;
    const double corrected = off == 0.0 ? 0.0 : off - std::copysign(0.5, off);
    result.p = std::min(1.0, 2.0 * normalCdf(-std::abs(corrected) / sd));
    return result;
}

} // namespace

PairedComparison comparePaired(std::span<const double> before, std::span<const double> after,
                               double confidence)
{
    require(before.size() == after.size() && !before.empty(), "comparePaired() needs equally many values");
    std::vector<double> differences;
    for (std::size_t i = 0; i < before.size(); ++i)
        differences.push_back(after[i] - before[i]);
    PairedComparison result;
    result.n = differences.size();
    result.meanDifference = meanOf(differences);
    result.wilcoxon = signedRank(differences);
    if (result.n < 2)
        return result;
    const double variance = varianceOf(differences);
    if (!(variance > 0.0))
        return result;
    const double error = std::sqrt(variance / static_cast<double>(result.n));
    result.df = static_cast<double>(result.n) - 1.0;
    result.t = result.meanDifference / error;
    result.p = studentTwoSided(*result.t, *result.df);
    const double half = studentQuantile(0.5 + 0.5 * confidence, *result.df) * error;
    result.ci = Interval{result.meanDifference - half, result.meanDifference + half};
    return result;
}

} // namespace inchpeg
