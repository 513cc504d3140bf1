// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/distributions.h"

#include "core/stats/panels.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_f.hpp>
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

/// Of the logarithm of the density below its top, at the ends of the integrated range: what lies outside is
/// far below the promised 1e-8.
constexpr double kScaleDrop = 37.0;
constexpr double kScalePanelWidth = 1.0;
constexpr int kLeastScalePanels = 3;

/// Where, between 0 and beyond, the density of the logarithm of an estimated scale has fallen by kScaleDrop
/// from its top at 0; the chi-squared quantiles would say the same a hundred times slower.
double endOfScale(double df, double beyond)
{
    double within = 0.0;
    for (int step = 0; step < 40; ++step) {
        const double middle = 0.5 * (within + beyond);
        (df * (middle - 0.5 * std::expm1(2.0 * middle)) > -kScaleDrop ? within : beyond) = middle;
    }
    return beyond;
}

} // namespace

double normalUpper(double z)
{
    return 0.5 * std::erfc(z / std::numbers::sqrt2);
}

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
    return noncentralStudentBeyond(t, EstimatedScale(df), noncentrality);
}

double noncentralStudentBeyond(double t, const EstimatedScale &scale, double noncentrality)
{
    return scale.mean([t, noncentrality](double s) {
        return normalCdf(noncentrality - t * s) + normalCdf(-noncentrality - t * s);
    });
}

double chiSquaredUpper(double x, double df)
{
    return boost::math::cdf(boost::math::complement(boost::math::chi_squared(df), std::max(0.0, x)));
}

double noncentralStudentCdf(double t, double df, double noncentrality)
{
    return noncentralStudentCdf(t, EstimatedScale(df), noncentrality);
}

double noncentralStudentCdf(double t, const EstimatedScale &scale, double noncentrality)
{
    return scale.mean([t, noncentrality](double s) { return normalCdf(t * s - noncentrality); });
}

double noncentralStudentQuantile(double probability, double df, double noncentrality)
{
    return quantileByRoot(probability, 0.0, [df, noncentrality](double t) {
        return noncentralStudentCdf(t, df, noncentrality);
    });
}

double studentNoncentrality(double t, double df, double probability)
{
    // P(T <= t) falls as the noncentrality grows; a noncentrality this far off leaves no doubt.
    const EstimatedScale scale(df);
    const auto cdf = [&](double delta) { return noncentralStudentCdf(t, scale, delta); };
    double reach = 2.0 + 0.5 * std::abs(t);
    while (cdf(t - reach) < probability || cdf(t + reach) > probability)
        reach *= 2.0;
    std::uintmax_t steps = 200;
    const auto bracket =
        boost::math::tools::toms748_solve([&](double delta) { return cdf(delta) - probability; }, t - reach,
                                          t + reach, boost::math::tools::eps_tolerance<double>(45), steps);
    return 0.5 * (bracket.first + bracket.second);
}

EstimatedScale::EstimatedScale(double df)
{
    const double low = endOfScale(df, -(kScaleDrop / df + 1.0));
    const double high = endOfScale(df, std::sqrt(kScaleDrop / df));
    const double half = 0.5 * df;
    const double logConstant = std::numbers::ln2 + half * std::log(half) - std::lgamma(half);
    const int panels =
        std::max(kLeastScalePanels, static_cast<int>(std::ceil((high - low) / kScalePanelWidth)));
    forPanelPoints(low, high, panels, [&](double u, double weight) {
        const double scale = std::exp(u);
        m_nodes.push_back({scale, weight * std::exp(logConstant + df * u - half * scale * scale)});
    });
}

} // namespace inchpeg
