// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/over_df.h"

#include "core/base/contract.h"

#include <cmath>
#include <numbers>

namespace inchpeg
{

OverDegreesOfFreedom::OverDegreesOfFreedom(const std::function<double(double)> &f, double lowestDf,
                                           double highestDf)
{
    require(lowestDf > 0.0 && highestDf > lowestDf, "degrees of freedom are above 0 and in order");
    const double middle = 0.5 * (1.0 / lowestDf + 1.0 / highestDf);
    const double half = 0.5 * (1.0 / lowestDf - 1.0 / highestDf);
    for (std::size_t i = 0; i < kNodes; ++i) {
        const double angle = std::numbers::pi * static_cast<double>(i) / static_cast<double>(kNodes - 1);
        m_inverseDf.push_back(middle + half * std::cos(angle));
        m_logarithm.push_back(std::log(f(1.0 / m_inverseDf.back())));
    }
}

// Barycentric form of Lagrange's polynomial, whose weights at these points are 1, -1, 1 ..., halved at both
// ends: Berrut and Trefethen (2004), SIAM Review 46, 501, formulas 4.2 and 5.4.
double OverDegreesOfFreedom::at(double df) const
{
    double above = 0.0;
    double below = 0.0;
    for (std::size_t i = 0; i < kNodes; ++i) {
        const double away = 1.0 / df - m_inverseDf[i];
        if (away == 0.0)
            return std::exp(m_logarithm[i]);
        const double weight = (i % 2 == 0 ? 1.0 : -1.0) * (i == 0 || i + 1 == kNodes ? 0.5 : 1.0) / away;
        above += weight * m_logarithm[i];
        below += weight;
    }
    return std::exp(above / below);
}

} // namespace inchpeg
