// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/survival.h"

#include "core/stats/distributions.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

/// Room for rounding in a product of shares that is one half exactly.
constexpr double kHalf = 0.5 + 1e-12;

std::set<double> endedValues(std::span<const BoundedValue> values)
{
    std::set<double> ended;
    for (const BoundedValue &value : values) {
        if (!value.isLowerBound)
            ended.insert(value.value);
    }
    return ended;
}

std::size_t atRisk(std::span<const BoundedValue> values, double at)
{
    return static_cast<std::size_t>(std::count_if(
        values.begin(), values.end(), [at](const BoundedValue &value) { return value.value >= at; }));
}

std::size_t endedAt(std::span<const BoundedValue> values, double at)
{
    return static_cast<std::size_t>(std::count(values.begin(), values.end(), BoundedValue{at, false}));
}

} // namespace

SurvivalCurve survivalCurve(std::span<const BoundedValue> values)
{
    SurvivalCurve curve;
    curve.n = values.size();
    double survival = 1.0;
    double greenwood = 0.0;
    for (double at : endedValues(values)) {
        SurvivalStep step{at, atRisk(values, at), endedAt(values, at), 0.0, std::nullopt};
        const auto n = static_cast<double>(step.atRisk);
        const auto d = static_cast<double>(step.events);
        survival *= (n - d) / n;
        step.survival = survival;
        if (n > d) {
            greenwood += d / (n * (n - d));
            step.se = survival * std::sqrt(greenwood);
        }
        if (!curve.median && survival <= kHalf)
            curve.median = at;
        curve.events += step.events;
        curve.steps.push_back(step);
    }
    return curve;
}

std::optional<ChiSquaredTest> logRank(std::span<const BoundedGroup> groups)
{
    std::vector<const BoundedGroup *> filled;
    std::vector<BoundedValue> all;
    for (const BoundedGroup &group : groups) {
        if (group.values.empty())
            continue;
        filled.push_back(&group);
        all.insert(all.end(), group.values.begin(), group.values.end());
    }
    if (filled.size() < 2)
        return std::nullopt;
    const auto k = static_cast<Eigen::Index>(filled.size());
    Eigen::VectorXd off = Eigen::VectorXd::Zero(k);
    Eigen::MatrixXd covariance = Eigen::MatrixXd::Zero(k, k);
    for (double at : endedValues(all)) {
        const auto n = static_cast<double>(atRisk(all, at));
        const auto d = static_cast<double>(endedAt(all, at));
        Eigen::VectorXd share(k);
        for (Eigen::Index g = 0; g < k; ++g) {
            const std::vector<BoundedValue> &own = filled[static_cast<std::size_t>(g)]->values;
            share[g] = static_cast<double>(atRisk(own, at)) / n;
            off[g] += static_cast<double>(endedAt(own, at)) - d * share[g];
        }
        if (n > 1.0) {
            Eigen::MatrixXd spread = -share * share.transpose();
            spread.diagonal() += share;
            covariance += d * (n - d) / (n - 1.0) * spread;
        }
    }
    // Rows add up to 0: the last group says nothing that the others do not. A group that was never at risk
    // beside another leaves a row of zeros, and is no group to compare.
    std::vector<Eigen::Index> compared;
    for (Eigen::Index g = 0; g < k; ++g) {
        if (covariance(g, g) > 0.0)
            compared.push_back(g);
    }
    if (compared.size() < 2)
        return std::nullopt;
    compared.pop_back();
    const Eigen::MatrixXd used = covariance(compared, compared);
    const Eigen::VectorXd usedOff = off(compared);
    const double statistic = usedOff.dot(used.ldlt().solve(usedOff));
    const auto df = static_cast<double>(compared.size());
    return ChiSquaredTest{statistic, df, chiSquaredUpper(statistic, df)};
}

} // namespace inchpeg
