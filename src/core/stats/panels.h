// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/contract.h"

#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>

#include <cstdint>

namespace inchpeg
{

/// Integral by composite Gauss–Legendre rules, 20 points a panel.
template <typename F>
double overPanels(double from, double to, int panels, F f)
{
    using Panel = boost::math::quadrature::gauss<double, 20>;
    const double width = (to - from) / panels;
    double sum = 0.0;
    for (int i = 0; i < panels; ++i)
        sum += Panel::integrate(f, from + i * width, from + (i + 1) * width);
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
