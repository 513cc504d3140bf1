// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"

#include "core/base/contract.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>

namespace inchpeg
{

namespace
{

using Panel = boost::math::quadrature::gauss<double, 20>;

/// What lies outside the integrated range, as a probability; far below the promised 1e-8.
constexpr double kTail = 1e-15;
/// |z| beyond which the normal density is below 1e-16.
constexpr double kNormalReach = 8.5;
constexpr int kNormalPanels = 8;
constexpr double kScalePanelWidth = 1.0;
constexpr int kLeastScalePanels = 6;

double normalDensity(double z)
{
    return std::exp(-0.5 * z * z) / std::sqrt(2.0 * std::numbers::pi);
}

template <typename F>
double overPanels(double from, double to, int panels, F f)
{
    const double width = (to - from) / panels;
    double sum = 0.0;
    for (int i = 0; i < panels; ++i)
        sum += Panel::integrate(f, from + i * width, from + (i + 1) * width);
    return sum;
}

/// P(range of k standard normal values <= w).
double normalRangeCdf(double w, double k)
{
    if (w <= 0.0)
        return 0.0;
    const auto integrand = [w, k](double z) {
        return normalDensity(z) * std::pow(normalCdf(z) - normalCdf(z - w), k - 1.0);
    };
    return std::min(1.0, k * overPanels(-kNormalReach, kNormalReach, kNormalPanels, integrand));
}

/// Probability that all k differences from a common control stay below their limits, the sd being known.
template <typename Share>
double overControl(std::span<const double> loading, Share share)
{
    // With equal groups all factors are the same: one power instead of many factors.
    const bool equal =
        std::all_of(loading.begin(), loading.end(), [&](double lambda) { return lambda == loading.front(); });
    const auto factorAt = [&](double lambda, double z) {
        return share(lambda * z, std::sqrt(1.0 - lambda * lambda));
    };
    const auto integrand = [&](double z) {
        if (equal)
            return normalDensity(z) *
                   std::pow(factorAt(loading.front(), z), static_cast<double>(loading.size()));
        double product = normalDensity(z);
        for (double lambda : loading)
            product *= factorAt(lambda, z);
        return product;
    };
    return std::min(1.0, overPanels(-kNormalReach, kNormalReach, kNormalPanels, integrand));
}

/// Root of a growing function that passes probability; the bracket is widened upwards from 1.
template <typename Cdf>
double quantileByRoot(double probability, double low, Cdf cdf)
{
    require(probability > 0.0 && probability < 1.0, "a probability between 0 and 1 is needed");
    double high = 1.0;
    while (cdf(high) < probability) {
        low = high;
        high *= 2.0;
        require(high < 1e12, "quantile beyond reach");
    }
    std::uintmax_t steps = 200;
    const auto bracket =
        boost::math::tools::toms748_solve([&](double x) { return cdf(x) - probability; }, low, high,
                                          boost::math::tools::eps_tolerance<double>(40), steps);
    return 0.5 * (bracket.first + bracket.second);
}

} // namespace

double normalCdf(double z)
{
    return 0.5 * std::erfc(-z / std::numbers::sqrt2);
}

double normalQuantile(double probability)
{
    return boost::math::quantile(boost::math::normal(), probability);
}

double studentQuantile(double probability, double df)
{
    return boost::math::quantile(boost::math::students_t(df), probability);
}

double studentTwoSided(double t, double df)
{
    return 2.0 * boost::math::cdf(boost::math::complement(boost::math::students_t(df), std::abs(t)));
}

double fisherUpper(double f, double df1, double df2)
{
    return boost::math::cdf(boost::math::complement(boost::math::fisher_f(df1, df2), std::max(0.0, f)));
}

double fisherQuantileUpper(double probability, double df1, double df2)
{
    return boost::math::quantile(boost::math::complement(boost::math::fisher_f(df1, df2), probability));
}

double noncentralFisherUpper(double f, double df1, double df2, double noncentrality)
{
    return boost::math::cdf(
        boost::math::complement(boost::math::non_central_f(df1, df2, noncentrality), std::max(0.0, f)));
}

double noncentralStudentBeyond(double t, double df, double noncentrality)
{
    return meanOverScale(df, [t, noncentrality](double s) {
        return normalCdf(noncentrality - t * s) + normalCdf(-noncentrality - t * s);
    });
}

double chiSquaredUpper(double x, double df)
{
    return boost::math::cdf(boost::math::complement(boost::math::chi_squared(df), std::max(0.0, x)));
}

double noncentralStudentCdf(double t, double df, double noncentrality)
{
    return boost::math::cdf(boost::math::non_central_t(df, noncentrality), t);
}

double noncentralStudentQuantile(double probability, double df, double noncentrality)
{
    return quantileByRoot(probability, 0.0, [df, noncentrality](double t) {
        return meanOverScale(df, [t, noncentrality](double s) { return normalCdf(t * s - noncentrality); });
    });
}

double studentNoncentrality(double t, double df, double probability)
{
    // P(T <= t) falls as the noncentrality grows; a noncentrality this far off leaves no doubt.
    double reach = 2.0 + 0.5 * std::abs(t);
    while (noncentralStudentCdf(t, df, t - reach) < probability ||
           noncentralStudentCdf(t, df, t + reach) > probability)
        reach *= 2.0;
    std::uintmax_t steps = 200;
    const auto bracket = boost::math::tools::toms748_solve(
        [&](double delta) { return noncentralStudentCdf(t, df, delta) - probability; }, t - reach, t + reach,
        boost::math::tools::eps_tolerance<double>(45), steps);
    return 0.5 * (bracket.first + bracket.second);
}

double meanOverScale(double df, const std::function<double(double)> &f)
{
    const boost::math::chi_squared distribution(df);
    const double low = 0.5 * std::log(boost::math::quantile(distribution, kTail) / df);
    const double high =
        0.5 * std::log(boost::math::quantile(boost::math::complement(distribution, kTail)) / df);
    const double half = 0.5 * df;
    const double logConstant = std::numbers::ln2 + half * std::log(half) - std::lgamma(half);
    const auto integrand = [&](double u) {
        const double density = std::exp(logConstant + df * u - half * std::exp(2.0 * u));
        return density * f(std::exp(u));
    };
    const int panels =
        std::max(kLeastScalePanels, static_cast<int>(std::ceil((high - low) / kScalePanelWidth)));
    return std::min(1.0, overPanels(low, high, panels, integrand));
}

double studentisedRangeCdf(double q, double k, double df)
{
    require(k >= 2.0 && df > 0.0, "studentised range needs two groups and a positive df");
    if (q <= 0.0)
        return 0.0;
    return meanOverScale(df, [q, k](double s) { return normalRangeCdf(q * s, k); });
}

double studentisedRangeQuantile(double probability, double k, double df)
{
    return quantileByRoot(probability, 0.0, [k, df](double q) { return studentisedRangeCdf(q, k, df); });
}

double dunnettTwoSidedCdf(double c, std::span<const double> loading, double df)
{
    if (c <= 0.0)
        return 0.0;
    return meanOverScale(df, [c, loading](double s) {
        return overControl(loading, [limit = c * s](double shift, double rest) {
            return normalCdf((shift + limit) / rest) - normalCdf((shift - limit) / rest);
        });
    });
}

double dunnettTwoSidedQuantile(double probability, std::span<const double> loading, double df)
{
    return quantileByRoot(probability, 0.0,
                          [loading, df](double c) { return dunnettTwoSidedCdf(c, loading, df); });
}

double dunnettOneSidedCdf(double c, std::span<const double> loading, double df)
{
    return meanOverScale(df, [c, loading](double s) {
        return overControl(loading, [limit = c * s](double shift, double rest) {
            return normalCdf((shift + limit) / rest);
        });
    });
}

double dunnettOneSidedQuantile(double probability, std::span<const double> loading, double df)
{
    double low = 0.0;
    while (dunnettOneSidedCdf(low, loading, df) > probability)
        low = 2.0 * low - 1.0;
    return quantileByRoot(probability, low,
                          [loading, df](double c) { return dunnettOneSidedCdf(c, loading, df); });
}

} // namespace inchpeg
