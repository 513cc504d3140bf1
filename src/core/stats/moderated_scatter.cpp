// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/moderated_scatter.h"

#include "core/base/contract.h"

#include <boost/math/special_functions/digamma.hpp>
#include <boost/math/special_functions/polygamma.hpp>
#include <boost/math/special_functions/trigamma.hpp>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kMostOfOwnDf = 0.4;

/// x with trigamma(x) = y, y above 0: Newton's method on 1/trigamma, which is nearly straight (Smyth 2004,
/// appendix).
double trigammaInverse(double y)
{
    constexpr int kMostSteps = 50;
    double x = 0.5 + 1.0 / y;
    for (int i = 0; i < kMostSteps; ++i) {
        const double value = boost::math::trigamma(x);
        const double step = value * (1.0 - value / y) / boost::math::polygamma(2, x);
        x += step;
        if (std::abs(step) < 1e-10 * x)
            break;
    }
    return x;
}

} // namespace

ModeratedScatters moderatedScatters(std::span<const double> variances, std::span<const double> dfs)
{
    require(variances.size() == dfs.size() && variances.size() >= 2, "moderatedScatters() needs two groups");
    const auto k = static_cast<double>(variances.size());
    double squares = 0.0;
    double allDf = 0.0;
    double logs = 0.0;
    double byChance = 0.0; // how much the logarithms of equal variances would scatter
    std::vector<double> unbiased;
    for (std::size_t g = 0; g < variances.size(); ++g) {
        require(variances[g] > 0.0 && dfs[g] > 0.0, "moderatedScatters() needs variances above 0");
        squares += dfs[g] * variances[g];
        allDf += dfs[g];
        unbiased.push_back(std::log(variances[g]) - boost::math::digamma(0.5 * dfs[g]) +
                           std::log(0.5 * dfs[g]));
        logs += unbiased.back() / k;
        byChance += boost::math::trigamma(0.5 * dfs[g]) / k;
    }
    const double common = squares / allDf;
    const double towards = std::sqrt(common * std::min(common, std::exp(logs)));
    const double most = kMostOfOwnDf * (1.0 - 2.0 / k) * allDf / k;
    ModeratedScatters moderated;
    if (most > 0.0) {
        double scatter = 0.0;
        for (const double one : unbiased)
            scatter += (one - logs) * (one - logs) / (k - 1.0);
        const double beyond = scatter - byChance;
        const bool isMost = beyond <= boost::math::trigamma(0.5 * most);
        moderated.more_df = isMost ? most : 2.0 * trigammaInverse(beyond);
    }
    for (std::size_t g = 0; g < variances.size(); ++g)
        moderated.variances.push_back((moderated.more_df * towards + dfs[g] * variances[g]) /
                                      (moderated.more_df + dfs[g]));
    return moderated;
}

} // namespace inchpeg
