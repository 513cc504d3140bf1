// SPDX-License-Identifier: GPL-3.0-or-later
// With z = (y - location)/scale each value adds ln f(z) - ln scale to the likelihood, a bound ln (1 - F(z)).
// Newton's method over the locations and the logarithm of the scale, halving a step that does not climb.
#include "core/stats/bounded_groups.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr int kMostSteps = 200;
constexpr double kGradientDone = 1e-11; ///< of the likelihood, a value
constexpr double kFarOut = 25.0;        ///< from here on the hazard by its series, to 1e-7 and better

/// ln of a density or a survival, with its derivatives.
struct Term {
    double value = 0.0;
    double slope = 0.0;
    double bend = 0.0;
};

Term normalTerm(double z, bool isBound)
{
    if (!isBound)
        return {-0.5 * z * z - 0.5 * std::log(2.0 * std::numbers::pi), -z, -1.0};
    if (z > kFarOut) {
        const double hazard = z + 1.0 / z - 2.0 / (z * z * z);
        return {-0.5 * z * z - std::log(hazard * std::sqrt(2.0 * std::numbers::pi)), -hazard,
                -hazard * (hazard - z)};
    }
    const double survival = normalUpper(z);
    const double hazard = std::exp(-0.5 * z * z) / (std::sqrt(2.0 * std::numbers::pi) * survival);
    return {std::log(survival), -hazard, -hazard * (hazard - z)};
}

Term extremeTerm(double z, bool isBound)
{
    const double power = std::exp(std::min(z, 700.0));
    return isBound ? Term{-power, -power, -power} : Term{z - power, 1.0 - power, -power};
}

struct Observation {
    double y = 0.0; ///< on the scale that scatters
    bool isBound = false;
    Eigen::Index group = 0;
};

/// A point of the likelihood: its value, gradient and curvature over (locations, ln scale).
struct Likelihood {
    double value = 0.0;
    Eigen::VectorXd gradient;
    Eigen::MatrixXd curvature;
};

Likelihood likelihoodAt(const std::vector<Observation> &observations, const Eigen::VectorXd &at,
                        ScatterLaw law)
{
    const Eigen::Index k = at.size() - 1;
    const double scale = std::exp(at[k]);
    Likelihood sum{0.0, Eigen::VectorXd::Zero(k + 1), Eigen::MatrixXd::Zero(k + 1, k + 1)};
    for (const Observation &one : observations) {
        const double z = (one.y - at[one.group]) / scale;
        const Term term =
            law == ScatterLaw::Weibull ? extremeTerm(z, one.isBound) : normalTerm(z, one.isBound);
        sum.value += term.value - (one.isBound ? 0.0 : at[k]);
        sum.gradient[one.group] -= term.slope / scale;
        sum.gradient[k] -= z * term.slope + (one.isBound ? 0.0 : 1.0);
        sum.curvature(one.group, one.group) += term.bend / (scale * scale);
        sum.curvature(one.group, k) += (term.slope + z * term.bend) / scale;
        sum.curvature(k, k) += z * term.slope + z * z * term.bend;
    }
    sum.curvature.row(k).head(k) = sum.curvature.col(k).head(k).transpose();
    return sum;
}

Error noMaximum()
{
    return {ErrorCode::TooFewPoints,
            "the likelihood has no maximum: two values or more that are no bounds, and that differ within "
            "their group or from a bound, are wanted",
            {}};
}

/// The values on the scale that scatters, of the groups that have a value beside bounds.
Result<std::vector<Observation>> observationsOf(std::span<const BoundedGroup> groups, ScatterLaw law,
                                                std::vector<bool> &isThere)
{
    std::vector<Observation> observations;
    Eigen::Index next = 0;
    for (const BoundedGroup &group : groups) {
        isThere.push_back(std::any_of(group.values.begin(), group.values.end(),
                                      [](const BoundedValue &value) { return !value.isLowerBound; }));
        if (!isThere.back())
            continue;
        for (const BoundedValue &value : group.values) {
            if (law != ScatterLaw::Normal && !(value.value > 0.0))
                return badInput(fmt::format("{:g} is not above 0 and has no logarithm", value.value));
            observations.push_back(
                {law == ScatterLaw::Normal ? value.value : std::log(value.value), value.isLowerBound, next});
        }
        ++next;
    }
    return observations;
}

/// Means and the scatter around them, bounds at face value.
Eigen::VectorXd startFor(const std::vector<Observation> &observations, Eigen::Index groups)
{
    Eigen::VectorXd at = Eigen::VectorXd::Zero(groups + 1);
    Eigen::VectorXd counts = Eigen::VectorXd::Zero(groups);
    for (const Observation &one : observations) {
        at[one.group] += one.y;
        counts[one.group] += 1.0;
    }
    at.head(groups).array() /= counts.array();
    double squares = 0.0;
    for (const Observation &one : observations)
        squares += (one.y - at[one.group]) * (one.y - at[one.group]);
    at[groups] = squares > 0.0 ? 0.5 * std::log(squares / static_cast<double>(observations.size())) : 0.0;
    return at;
}

/// A step that climbs; the gradient's own direction where the curvature points nowhere.
bool climb(const std::vector<Observation> &observations, ScatterLaw law, Eigen::VectorXd &at,
           Likelihood &here)
{
    const Eigen::LDLT<Eigen::MatrixXd> downhill(-here.curvature);
    const bool isDownhill = downhill.info() == Eigen::Success && downhill.isPositive();
    Eigen::VectorXd step = isDownhill ? Eigen::VectorXd(downhill.solve(here.gradient)) : here.gradient;
    const double longest =
        std::max(1.0, step.cwiseAbs().maxCoeff() / (5.0 * std::exp(at[at.size() - 1]) + 5.0));
    step /= longest;
    for (int halvings = 0; halvings < 60; ++halvings, step *= 0.5) {
        const Eigen::VectorXd next = at + step;
        Likelihood there = likelihoodAt(observations, next, law);
        // Near the top the likelihood is flat to its last digits, and only the gradient tells.
        if (std::isfinite(there.value) && there.value >= here.value - 1e-13 * std::abs(here.value)) {
            at = next;
            here = std::move(there);
            return true;
        }
    }
    return false;
}

} // namespace

Eigen::Index BoundedFit::placeOf(std::size_t group) const
{
    require(group < location.size() && location[group], "this group has no location");
    return std::count_if(location.begin(), location.begin() + static_cast<std::ptrdiff_t>(group),
                         [](const std::optional<double> &one) { return one.has_value(); });
}

double BoundedFit::standardError(std::size_t group) const
{
    const Eigen::Index i = placeOf(group);
    return std::sqrt(covariance(i, i));
}

double BoundedFit::difference(std::size_t a, std::size_t b) const
{
    return location.at(b).value() - location.at(a).value();
}

double BoundedFit::differenceError(std::size_t a, std::size_t b) const
{
    const Eigen::Index i = placeOf(a);
    const Eigen::Index j = placeOf(b);
    return std::sqrt(covariance(i, i) + covariance(j, j) - 2.0 * covariance(i, j));
}

Result<BoundedFit> fitBoundedGroups(std::span<const BoundedGroup> groups, ScatterLaw law)
{
    std::vector<bool> isThere;
    const Result<std::vector<Observation>> observations = observationsOf(groups, law, isThere);
    if (!observations)
        return observations.error();
    const auto broken = static_cast<std::size_t>(std::count_if(
        observations->begin(), observations->end(), [](const Observation &one) { return !one.isBound; }));
    const Eigen::Index k = std::count(isThere.begin(), isThere.end(), true);
    if (broken < 2)
        return noMaximum();
    Eigen::VectorXd at = startFor(*observations, k);
    // In units of the first guess at the scatter, so that "small" means the same for N and for MPa.
    const double unit = std::exp(at[k]);
    std::vector<Observation> scaled = *observations;
    for (Observation &one : scaled)
        one.y /= unit;
    at.head(k) /= unit;
    at[k] = 0.0;
    Likelihood here = likelihoodAt(scaled, at, law);
    const double enough = kGradientDone * static_cast<double>(scaled.size());
    int steps = 0;
    while (here.gradient.cwiseAbs().maxCoeff() > enough && steps++ < kMostSteps) {
        if (!climb(scaled, law, at, here) || at[k] < -30.0)
            break;
    }
    const double nearEnough = 1e-8 * static_cast<double>(scaled.size());
    const Eigen::LDLT<Eigen::MatrixXd> information(-here.curvature);
    if (here.gradient.cwiseAbs().maxCoeff() > nearEnough || at[k] < -25.0 ||
        information.info() != Eigen::Success || !information.isPositive())
        return noMaximum();
    BoundedFit fit;
    fit.values = scaled.size();
    fit.broken = broken;
    fit.scale = std::exp(at[k]) * unit;
    fit.covariance =
        unit * unit * information.solve(Eigen::MatrixXd::Identity(k + 1, k + 1)).topLeftCorner(k, k);
    fit.logLikelihood = here.value - static_cast<double>(broken) * std::log(unit);
    for (const Observation &one : *observations)
        fit.logLikelihood -= law != ScatterLaw::Normal && !one.isBound ? one.y : 0.0;
    Eigen::Index next = 0;
    for (const bool there : isThere)
        fit.location.push_back(there ? std::optional(at[next++] * unit) : std::nullopt);
    return fit;
}

Result<std::optional<LikelihoodRatio>> testBoundedGroups(std::span<const BoundedGroup> groups, ScatterLaw law)
{
    const Result<BoundedFit> each = fitBoundedGroups(groups, law);
    if (!each)
        return each.error();
    BoundedGroup all;
    std::size_t there = 0;
    for (std::size_t g = 0; g < groups.size(); ++g) {
        if (!each->location[g])
            continue;
        ++there;
        all.values.insert(all.values.end(), groups[g].values.begin(), groups[g].values.end());
    }
    if (there < 2)
        return std::optional<LikelihoodRatio>();
    const Result<BoundedFit> one = fitBoundedGroups(std::span(&all, 1), law);
    if (!one)
        return one.error();
    LikelihoodRatio test;
    test.chi2 = std::max(0.0, 2.0 * (each->logLikelihood - one->logLikelihood));
    test.df = static_cast<double>(there) - 1.0;
    test.p = chiSquaredUpper(test.chi2, test.df);
    return std::optional(test);
}

} // namespace inchpeg
