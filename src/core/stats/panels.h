// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/contract.h"

#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>

#include <cstddef>
#include <cstdint>

namespace inchpeg
{

/// Points and weights of composite Gauss–Legendre rules, 20 points a panel: use(point, weight) for each.
template <typename Use>
void forPanelPoints(double from, double to, int panels, Use use)
{
    using Panel = boost::math::quadrature::gauss<double, 20>;
    const double half = 0.5 * (to - from) / panels;
    for (int panel = 0; panel < panels; ++panel) {
        const double middle = from + (2.0 * panel + 1.0) * half;
        for (std::size_t i = 0; i < Panel::abscissa().size(); ++i) {
            use(middle - half * Panel::abscissa()[i], half * Panel::weights()[i]);
            use(middle + half * Panel::abscissa()[i], half * Panel::weights()[i]);
        }
    }
}

/// Integral by these rules.
template <typename F>
double overPanels(double from, double to, int panels, F f)
{
    double sum = 0.0;
    forPanelPoints(from, to, panels, [&](double point, double weight) { sum += weight * f(point); });
    return sum;
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

} // namespace inchpeg
