// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/tolerance_bounds.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/panels.h"
#include "core/stats/summary.h"
#include "core/stats/weibull.h"

#include <boost/math/distributions/binomial.hpp>
#include <boost/math/special_functions/gamma.hpp>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr double kShareA = 0.99;
constexpr double kShareB = 0.90;
constexpr double kConfidence = 0.95;
/// Of the logarithm of a density below its top: what lies farther out is less than 1e-17 of it.
constexpr double kReach = 40.0;
constexpr int kPanels = 24;

/// The spread of z = fitted over true width of the logarithms, given the sample's shape: Lawless' density
/// z^(n-2) e^(z Σa) / (Σ e^(az))^n with the standardised logarithms a, over v = ln z.
class ConditionalSpread
{
public:
    explicit ConditionalSpread(std::vector<double> standardised)
        : m_standardised(std::move(standardised)), m_n(static_cast<double>(m_standardised.size())),
          m_sum(std::accumulate(m_standardised.begin(), m_standardised.end(), 0.0)),
          m_largest(*std::max_element(m_standardised.begin(), m_standardised.end()))
    {
        // The density has one top, near z = 1.
        double at = 0.0;
        for (double step = 1.0; step > 1e-3; step *= 0.5) {
            while (logDensity(at + step) > logDensity(at))
                at += step;
            while (logDensity(at - step) > logDensity(at))
                at -= step;
        }
        const double top = logDensity(at);
        double low = at;
        double high = at;
        while (logDensity(low) > top - kReach)
            low -= 0.25;
        while (logDensity(high) > top - kReach)
            high += 0.25;
        placeNodes(low, high, top);
    }

    /// Chance that the true quantile lies above (fitted location - q fitted width); w: of the quantile in
    /// the standard extreme value distribution.
    [[nodiscard]] double confidenceOf(double q, double w) const
    {
        double chance = 0.0;
        for (const Node &node : m_nodes)
            chance += node.weight * boost::math::gamma_p(m_n, std::exp(node.logSum + q * node.z + w));
        return chance;
    }

private:
    /// ln Σ e^(az)
    [[nodiscard]] double logSum(double z) const
    {
        double sum = 0.0;
        for (double a : m_standardised)
            sum += std::exp((a - m_largest) * z);
        return m_largest * z + std::log(sum);
    }
    /// Of v = ln z, without the constant.
    [[nodiscard]] double logDensity(double v) const
    {
        const double z = std::exp(v);
        return (m_n - 1.0) * v + z * m_sum - m_n * logSum(z);
    }
    /// Lays Gauss–Legendre panels over the density, from one end of its reach to the other.
    void placeNodes(double low, double high, double top)
    {
        double total = 0.0;
        forPanelPoints(low, high, kPanels, [&](double v, double weight) {
            const double z = std::exp(v);
            m_nodes.push_back({z, logSum(z), weight * std::exp(logDensity(v) - top)});
            total += m_nodes.back().weight;
        });
        for (Node &node : m_nodes)
            node.weight /= total;
    }

    struct Node {
        double z = 0.0;
        double logSum = 0.0;
        double weight = 0.0; ///< all together 1
    };

    std::vector<double> m_standardised;
    double m_n;
    double m_sum;
    double m_largest;
    std::vector<Node> m_nodes;
};

/// The q with the wanted confidence.
double conditionalFactor(const ConditionalSpread &spread, double share)
{
    const double w = std::log(-std::log(share));
    const auto off = [&](double q) { return spread.confidenceOf(q, w) - kConfidence; };
    double high = -w;
    double step = 1.0;
    while (off(high) < 0.0) {
        high += step;
        step *= 2.0;
    }
    double low = -w - 1.0;
    while (off(low) > 0.0) {
        low -= step;
        step *= 2.0;
    }
    std::uintmax_t steps = 200;
    const auto bracket = boost::math::tools::toms748_solve(
        off, low, high, boost::math::tools::eps_tolerance<double>(45), steps);
    return 0.5 * (bracket.first + bracket.second);
}

/// The largest order statistic that lies below the share with the wanted confidence.
std::optional<double> orderStatisticBound(std::span<const double> sorted, double share)
{
    const boost::math::binomial below(static_cast<double>(sorted.size()), 1.0 - share);
    std::optional<double> bound;
    for (std::size_t r = 1; r <= sorted.size(); ++r) {
        const double atLeast = boost::math::cdf(boost::math::complement(below, static_cast<double>(r) - 1.0));
        if (atLeast < kConfidence)
            break;
        bound = sorted[r - 1];
    }
    return bound;
}

} // namespace

double normalToleranceFactor(std::size_t n, double share, double confidence)
{
    require(n >= 2, "a tolerance factor needs two values");
    const double root = std::sqrt(static_cast<double>(n));
    const double noncentrality = normalQuantile(share) * root;
    return noncentralStudentQuantile(confidence, static_cast<double>(n) - 1.0, noncentrality) / root;
}

double safeToleranceFactor(std::size_t n)
{
    constexpr double kSafeShare = 0.92;
    constexpr double kSafeConfidence = 0.97;
    return normalToleranceFactor(n, kSafeShare, kSafeConfidence);
}

double leastToleranceFactor(std::size_t n, double share, double chance)
{
    require(n >= 2, "leastToleranceFactor(): fewer than two values");
    const auto count = static_cast<double>(n);
    const double noncentrality = normalQuantile(share) * std::sqrt(count);
    const EstimatedScale scale(count - 1.0);
    double low = -10.0;
    double high = 10.0 + 2.0 * noncentrality;
    constexpr int kHalvings = 50;
    for (int i = 0; i < kHalvings; ++i) {
        const double middle = 0.5 * (low + high);
        (noncentralStudentCdf(middle, scale, noncentrality) < chance ? low : high) = middle;
    }
    return 0.5 * (low + high) / std::sqrt(count);
}

NormalBounds normalBounds(std::span<const double> values)
{
    NormalBounds bounds;
    if (values.size() < 2)
        return bounds;
    const double mean = meanOf(values);
    const double sd = std::sqrt(varianceOf(values));
    bounds.kA = normalToleranceFactor(values.size(), kShareA, kConfidence);
    bounds.kB = normalToleranceFactor(values.size(), kShareB, kConfidence);
    bounds.a = mean - *bounds.kA * sd;
    bounds.b = mean - *bounds.kB * sd;
    return bounds;
}

ToleranceBounds weibullBounds(std::span<const double> values)
{
    std::vector<BoundedValue> sample;
    for (double value : values)
        sample.push_back({value, false});
    const Result<WeibullFit> fit = fitWeibull(sample);
    if (!fit)
        return {};
    const double location = std::log(fit->scale.value);
    const double width = 1.0 / fit->shape.value;
    std::vector<double> standardised;
    for (double value : values)
        standardised.push_back((std::log(value) - location) / width);
    const ConditionalSpread spread(std::move(standardised));
    return {std::exp(location - conditionalFactor(spread, kShareA) * width),
            std::exp(location - conditionalFactor(spread, kShareB) * width)};
}

ToleranceBounds orderStatisticBounds(std::span<const double> values)
{
    std::vector<double> sorted(values.begin(), values.end());
    std::sort(sorted.begin(), sorted.end());
    if (sorted.empty())
        return {};
    return {orderStatisticBound(sorted, kShareA), orderStatisticBound(sorted, kShareB)};
}

} // namespace inchpeg
