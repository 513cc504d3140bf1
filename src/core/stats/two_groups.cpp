// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/two_groups.h"

#include "core/stats/distributions.h"
#include "core/stats/ranks.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace inchpeg
{

namespace
{

struct Moments {
    double n = 0.0;
    double mean = 0.0;
    double variance = 0.0;
};

Moments momentsOf(std::span<const double> values)
{
    return {static_cast<double>(values.size()), meanOf(values),
            values.size() >= 2 ? varianceOf(values) : 0.0};
}

TTest tTest(double difference, double standardError, double df, double confidence)
{
    const double half = studentQuantile(0.5 + 0.5 * confidence, df) * standardError;
    const double t = difference / standardError;
    return {t, df, studentTwoSided(t, df), {difference - half, difference + half}};
}

double satterthwaite(double va, double na, double vb, double nb)
{
    return (va + vb) * (va + vb) / (va * va / (na - 1.0) + vb * vb / (nb - 1.0));
}

/// Number of arrangements of na and nb values with each value of U, by the recursion over the largest value.
std::vector<double> uCounts(std::size_t na, std::size_t nb)
{
    // counts[u] for groups (i, nb) is built up one value of a at a time: a value of a has 0 to nb values of b
    // below it, so the generating function is the product of Gaussian binomials.
    std::vector<double> counts(na * nb + 1, 0.0);
    counts[0] = 1.0;
    for (std::size_t i = 1; i <= na; ++i) {
        for (std::size_t u = counts.size(); u-- > nb + i;)
            counts[u] -= counts[u - nb - i];
        for (std::size_t u = i; u < counts.size(); ++u)
            counts[u] += counts[u - i];
    }
    return counts;
}

double exactTwoSided(double u, std::size_t na, std::size_t nb)
{
    const std::vector<double> counts = uCounts(na, nb);
    const double total = std::accumulate(counts.begin(), counts.end(), 0.0);
    const double mirrored = std::min(u, static_cast<double>(na * nb) - u);
    double below = 0.0;
    for (std::size_t k = 0; static_cast<double>(k) <= mirrored; ++k)
        below += counts[k];
    return std::min(1.0, 2.0 * below / total);
}

} // namespace

std::optional<TTest> pooledTTest(std::span<const double> a, std::span<const double> b, double confidence)
{
    if (a.empty() || b.empty() || a.size() + b.size() < 3)
        return std::nullopt;
    const Moments ma = momentsOf(a);
    const Moments mb = momentsOf(b);
    const double df = ma.n + mb.n - 2.0;
    const double pooled = ((ma.n - 1.0) * ma.variance + (mb.n - 1.0) * mb.variance) / df;
    if (!(pooled > 0.0))
        return std::nullopt;
    return tTest(mb.mean - ma.mean, std::sqrt(pooled * (1.0 / ma.n + 1.0 / mb.n)), df, confidence);
}

std::optional<TTest> welchTTest(std::span<const double> a, std::span<const double> b, double confidence)
{
    if (a.size() < 2 || b.size() < 2)
        return std::nullopt;
    const Moments ma = momentsOf(a);
    const Moments mb = momentsOf(b);
    const double va = ma.variance / ma.n;
    const double vb = mb.variance / mb.n;
    if (!(va + vb > 0.0))
        return std::nullopt;
    return tTest(mb.mean - ma.mean, std::sqrt(va + vb), satterthwaite(va, ma.n, vb, mb.n), confidence);
}

std::optional<Estimate> hedgesG(std::span<const double> a, std::span<const double> b, double confidence)
{
    const std::optional<TTest> test = pooledTTest(a, b, confidence);
    if (!test || test->df < 2.0)
        return std::nullopt;
    const double half = 0.5 * test->df;
    const double j = std::exp(std::lgamma(half) - std::lgamma(half - 0.5)) / std::sqrt(half);
    const auto na = static_cast<double>(a.size());
    const auto nb = static_cast<double>(b.size());
    const double scale = j * std::sqrt(1.0 / na + 1.0 / nb);
    const double low = studentNoncentrality(test->t, test->df, 0.5 + 0.5 * confidence);
    const double high = studentNoncentrality(test->t, test->df, 0.5 - 0.5 * confidence);
    return Estimate{test->t * scale, Interval{low * scale, high * scale}};
}

std::optional<Estimate> ratioOfMeans(std::span<const double> a, std::span<const double> b, double confidence)
{
    if (a.size() < 2 || b.size() < 2)
        return std::nullopt;
    const Moments ma = momentsOf(a);
    const Moments mb = momentsOf(b);
    if (ma.mean == 0.0)
        return std::nullopt;
    Estimate ratio{mb.mean / ma.mean, std::nullopt};
    const double va = ma.variance / ma.n;
    const double vb = mb.variance / mb.n;
    const double weighted = ratio.value * ratio.value * va;
    if (!(vb + weighted > 0.0)) {
        ratio.ci = Interval{ratio.value, ratio.value};
        return ratio;
    }
    const double t = studentQuantile(0.5 + 0.5 * confidence, satterthwaite(weighted, ma.n, vb, mb.n));
    // (mb - r ma)² <= t² (vb + r² va): a quadratic in r, bounded only where ma differs clearly from 0.
    const double leading = ma.mean * ma.mean - t * t * va;
    if (!(leading > 0.0))
        return ratio;
    const double middle = ma.mean * mb.mean;
    const double discriminant = middle * middle - leading * (mb.mean * mb.mean - t * t * vb);
    const double root = std::sqrt(std::max(0.0, discriminant));
    ratio.ci = Interval{(middle - root) / leading, (middle + root) / leading};
    return ratio;
}

std::optional<MannWhitney> mannWhitney(std::span<const double> a, std::span<const double> b)
{
    if (a.empty() || b.empty())
        return std::nullopt;
    std::vector<double> all(a.begin(), a.end());
    all.insert(all.end(), b.begin(), b.end());
    const Ranks ranks = ranksOf(all);
    const auto na = static_cast<double>(a.size());
    const auto nb = static_cast<double>(b.size());
    const double rankSum = std::accumulate(ranks.ranks.begin(),
                                           ranks.ranks.begin() + static_cast<std::ptrdiff_t>(a.size()), 0.0);
    MannWhitney result;
    result.u = rankSum - na * (na + 1.0) / 2.0;
    if (ranks.tieSum == 0.0 && a.size() < kExactRankTestBelow && b.size() < kExactRankTestBelow) {
        result.exact = true;
        result.p = exactTwoSided(result.u, a.size(), b.size());
        return result;
    }
    const double n = na + nb;
    const double variance = na * nb / 12.0 * (n + 1.0 - ranks.tieSum / (n * (n - 1.0)));
    if (!(variance > 0.0))
        return std::nullopt;
    const double off = result.u - na * nb / 2.0;
    const double corrected = off == 0.0 ? 0.0 : off - std::copysign(0.5, off);
    result.p = std::min(1.0, 2.0 * normalCdf(-std::abs(corrected) / std::sqrt(variance)));
    return result;
}

std::vector<std::optional<double>> holmAdjusted(std::span<const std::optional<double>> p)
{
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < p.size(); ++i) {
        if (p[i])
            order.push_back(i);
    }
    std::sort(order.begin(), order.end(), [&](std::size_t i, std::size_t j) { return *p[i] < *p[j]; });
    std::vector<std::optional<double>> adjusted(p.size());
    double largest = 0.0;
    for (std::size_t rank = 0; rank < order.size(); ++rank) {
        largest =
            std::max(largest, std::min(1.0, static_cast<double>(order.size() - rank) * *p[order[rank]]));
        adjusted[order[rank]] = largest;
    }
    return adjusted;
}

} // namespace inchpeg
