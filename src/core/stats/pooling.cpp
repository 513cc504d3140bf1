// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/pooling.h"

#include "core/stats/distributions.h"

#include <boost/math/tools/minima.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace inchpeg
{

namespace
{

struct Weighted {
    double weights = 0.0;
    double mean = 0.0;
    double squares = 0.0; ///< weighted, around the mean
};

Weighted weighted(std::span<const StudyEstimate> studies, double betweenVariance)
{
    Weighted sum;
    const auto weight = [&](const StudyEstimate &study) {
        return 1.0 / (study.standardError * study.standardError + betweenVariance);
    };
    for (const StudyEstimate &study : studies) {
        sum.weights += weight(study);
        sum.mean += weight(study) * study.value;
    }
    sum.mean /= sum.weights;
    for (const StudyEstimate &study : studies)
        sum.squares += weight(study) * (study.value - sum.mean) * (study.value - sum.mean);
    return sum;
}

/// -2 ln of the restricted likelihood, without its constant.
double deviance(std::span<const StudyEstimate> studies, double betweenVariance)
{
    const Weighted sum = weighted(studies, betweenVariance);
    double logs = std::log(sum.weights);
    for (const StudyEstimate &study : studies)
        logs += std::log(study.standardError * study.standardError + betweenVariance);
    return logs + sum.squares;
}

/// The likelihood may have more than one top: the best of a coarse walk, then Brent's method around it.
double betweenVariance(std::span<const StudyEstimate> studies)
{
    const auto [least, most] =
        std::minmax_element(studies.begin(), studies.end(),
                            [](const StudyEstimate &a, const StudyEstimate &b) { return a.value < b.value; });
    const double range = most->value - least->value;
    const double widest = range * range;
    if (!(widest > 0.0))
        return 0.0;
    constexpr int kSteps = 200;
    double best = 0.0;
    double bestDeviance = deviance(studies, 0.0);
    double low = 0.0;
    double high = widest * 1e-6;
    const auto at = [&](int step) { return widest * std::pow(10.0, -6.0 + 6.0 * step / kSteps); };
    for (int step = 0; step <= kSteps; ++step) {
        const double there = deviance(studies, at(step));
        if (there >= bestDeviance)
            continue;
        bestDeviance = there;
        best = at(step);
        low = step == 0 ? 0.0 : at(step - 1);
        high = at(step + 1);
    }
    const auto [found, foundDeviance] =
        boost::math::tools::brent_find_minima([&](double variance) { return deviance(studies, variance); },
                                              low, high, std::numeric_limits<double>::digits / 2);
    return foundDeviance <= bestDeviance ? found : best;
}

} // namespace

Result<PooledEstimate> poolStudies(std::span<const StudyEstimate> studies, double confidence)
{
    if (studies.size() < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("{} stud{}; two or more are wanted", studies.size(),
                                 studies.size() == 1 ? "y" : "ies"),
                     {}};
    for (const StudyEstimate &study : studies) {
        if (!(study.standardError > 0.0))
            return invalidArgument(
                fmt::format("a standard error of {:g}; above 0 is wanted", study.standardError));
    }
    const auto k = static_cast<double>(studies.size());
    const double between = betweenVariance(studies);
    const Weighted sum = weighted(studies, between);
    PooledEstimate pooled;
    pooled.studies = studies.size();
    pooled.value = sum.mean;
    pooled.between = std::sqrt(between);
    pooled.standardError = std::sqrt(std::max(1.0, sum.squares / (k - 1.0)) / sum.weights);
    const double half = studentQuantile(0.5 + 0.5 * confidence, k - 1.0) * pooled.standardError;
    pooled.ci = {pooled.value - half, pooled.value + half};
    pooled.q = weighted(studies, 0.0).squares;
    pooled.qP = chiSquaredUpper(pooled.q, k - 1.0);
    if (studies.size() >= 3) {
        const double wide = studentQuantile(0.5 + 0.5 * confidence, k - 2.0) *
                            std::sqrt(between + pooled.standardError * pooled.standardError);
        pooled.next = Interval{pooled.value - wide, pooled.value + wide};
    }
    return pooled;
}

} // namespace inchpeg
