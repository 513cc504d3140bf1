// SPDX-License-Identifier: GPL-3.0-or-later
// With z = (y - location)/scale each value adds ln f(z) - ln scale to the likelihood, a bound ln (1 - F(z)).
// Newton's method over the locations and the logarithm of the scale, halving a step that does not climb.
#include "core/stats/bounded_likelihood.h"

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

/// A point of the likelihood: its value, gradient and curvature over (locations, ln scale).
struct Likelihood {
    double value = 0.0;
    Eigen::VectorXd gradient;
    Eigen::MatrixXd curvature;
};

Likelihood likelihoodAt(const std::vector<BoundedObservation> &observations, const Eigen::VectorXd &at,
                        ScatterLaw law)
{
    const Eigen::Index k = at.size() - 1;
    const double scale = std::exp(at[k]);
    Likelihood sum{0.0, Eigen::VectorXd::Zero(k + 1), Eigen::MatrixXd::Zero(k + 1, k + 1)};
    for (const BoundedObservation &one : observations) {
        double location = 0.0;
        for (const LocationWeight &part : one.row)
            location += part.weight * at[part.coefficient];
        const double z = (one.y - location) / scale;
        const Term term =
            law == ScatterLaw::Weibull ? extremeTerm(z, one.isBound) : normalTerm(z, one.isBound);
        sum.value += term.value - (one.isBound ? 0.0 : at[k]);
        sum.gradient[k] -= z * term.slope + (one.isBound ? 0.0 : 1.0);
        for (const LocationWeight &part : one.row) {
            sum.gradient[part.coefficient] -= part.weight * term.slope / scale;
            sum.curvature(part.coefficient, k) += part.weight * (term.slope + z * term.bend) / scale;
            for (const LocationWeight &other : one.row)
                sum.curvature(part.coefficient, other.coefficient) +=
                    part.weight * other.weight * term.bend / (scale * scale);
        }
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

/// Least squares and the scatter around them, bounds at face value.
Eigen::VectorXd startFor(const std::vector<BoundedObservation> &observations, Eigen::Index k)
{
    Eigen::MatrixXd squaresOfRows = Eigen::MatrixXd::Zero(k, k);
    Eigen::VectorXd products = Eigen::VectorXd::Zero(k);
    for (const BoundedObservation &one : observations) {
        for (const LocationWeight &part : one.row) {
            products[part.coefficient] += part.weight * one.y;
            for (const LocationWeight &other : one.row)
                squaresOfRows(part.coefficient, other.coefficient) += part.weight * other.weight;
        }
    }
    Eigen::VectorXd at(k + 1);
    at.head(k) = squaresOfRows.ldlt().solve(products);
    double squares = 0.0;
    for (const BoundedObservation &one : observations) {
        double left = one.y;
        for (const LocationWeight &part : one.row)
            left -= part.weight * at[part.coefficient];
        squares += left * left;
    }
    at[k] = squares > 0.0 ? 0.5 * std::log(squares / static_cast<double>(observations.size())) : 0.0;
    return at;
}

/// A step that climbs; the gradient's own direction where the curvature points nowhere.
bool climb(const std::vector<BoundedObservation> &observations, ScatterLaw law, Eigen::VectorXd &at,
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

Result<BoundedMaximum> maximiseBounded(std::vector<BoundedObservation> observations,
                                       Eigen::Index coefficients, ScatterLaw law)
{
    const Eigen::Index k = coefficients;
    const auto broken = std::count_if(observations.begin(), observations.end(),
                                      [](const BoundedObservation &one) { return !one.isBound; });
    if (broken < 2)
        return noMaximum();
    Eigen::VectorXd at = startFor(observations, k);
    // In units of the first guess at the scatter, so that "small" means the same for N and for MPa.
    const double unit = std::exp(at[k]);
    for (BoundedObservation &one : observations)
        one.y /= unit;
    at.head(k) /= unit;
    at[k] = 0.0;
    Likelihood here = likelihoodAt(observations, at, law);
    const double enough = kGradientDone * static_cast<double>(observations.size());
    int steps = 0;
    while (here.gradient.cwiseAbs().maxCoeff() > enough && steps++ < kMostSteps) {
        if (!climb(observations, law, at, here) || at[k] < -30.0)
            break;
    }
    const double nearEnough = 1e-8 * static_cast<double>(observations.size());
    const Eigen::LDLT<Eigen::MatrixXd> information(-here.curvature);
    if (here.gradient.cwiseAbs().maxCoeff() > nearEnough || at[k] < -25.0 ||
        information.info() != Eigen::Success || !information.isPositive())
        return noMaximum();
    BoundedMaximum maximum;
    maximum.coefficients = unit * at.head(k);
    maximum.scale = std::exp(at[k]) * unit;
    maximum.covariance =
        unit * unit * information.solve(Eigen::MatrixXd::Identity(k + 1, k + 1)).topLeftCorner(k, k);
    maximum.logLikelihood = here.value - static_cast<double>(broken) * std::log(unit);
    return maximum;
}

Result<double> onScatterScale(double value, ScatterLaw law)
{
    if (law == ScatterLaw::Normal)
        return value;
    if (!(value > 0.0))
        return badInput(fmt::format("{:g} is not above 0 and has no logarithm", value));
    return std::log(value);
}

} // namespace inchpeg
