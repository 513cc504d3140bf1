// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"

#include "core/stats/panels.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numbers>

namespace inchpeg
{

namespace
{

/// What lies outside the integrated range, as a probability; far below the promised 1e-8.
constexpr double kTail = 1e-15;
constexpr double kScalePanelWidth = 1.0;
constexpr int kLeastScalePanels = 6;

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

} // namespace inchpeg
