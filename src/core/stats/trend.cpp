// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/trend.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/linear_model.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

/// x = centre + half u with u between -1 and 1, in which the powers are far from each other.
struct Scaling {
    double centre = 0.0;
    double half = 1.0;
};

/// Rows: powers of x, columns: powers of u, so that coefficients of x = matrix times coefficients of u.
Eigen::MatrixXd toPowersOfX(const Scaling &scaling, int degree)
{
    // ((x - c)/h)^j = Σ_i C(j, i) x^i (-c)^(j-i) / h^j
    Eigen::MatrixXd matrix = Eigen::MatrixXd::Zero(degree + 1, degree + 1);
    for (int j = 0; j <= degree; ++j) {
        double binomial = 1.0;
        for (int i = 0; i <= j; ++i) {
            matrix(i, j) = binomial * std::pow(-scaling.centre, j - i) / std::pow(scaling.half, j);
            binomial *= static_cast<double>(j - i) / (i + 1);
        }
    }
    return matrix;
}

/// Residual squares against those of the repeats alone.
std::optional<FTest> lackOfFit(std::span<const double> x, std::span<const double> y, double residualSquares,
                               double df)
{
    std::map<double, std::vector<double>> byX;
    for (std::size_t i = 0; i < x.size(); ++i)
        byX[x[i]].push_back(y[i]);
    double pureSquares = 0.0;
    double pureDf = 0.0;
    for (const auto &[level, values] : byX) {
        if (values.size() < 2)
            continue;
        const auto own = static_cast<double>(values.size() - 1);
        pureDf += own;
        pureSquares += own * varianceOf(values);
    }
    const double lackDf = df - pureDf;
    if (!(pureDf > 0.0) || !(lackDf > 0.0) || !(pureSquares > 0.0))
        return std::nullopt;
    const double f = std::max(0.0, residualSquares - pureSquares) / lackDf / (pureSquares / pureDf);
    return FTest{f, lackDf, pureDf, fisherUpper(f, lackDf, pureDf)};
}

/// Fieller: the places where the slope b + 2cu is not told from 0. covariance: of the coefficients; t2: the
/// squared quantile of t, nothing where there is no residual.
TrendOptimum optimumOf(const Eigen::VectorXd &coefficients, const Eigen::MatrixXd &covariance,
                       const std::optional<double> &t2, const Scaling &scaling)
{
    const double b = coefficients[1];
    const double c = coefficients[2];
    TrendOptimum optimum{scaling.centre + scaling.half * (-b / (2.0 * c)), std::nullopt, c < 0.0};
    if (!t2)
        return optimum;
    // (b + 2cu)² <= t² (vbb + 4u vbc + 4u² vcc): a quadratic in u.
    const double leading = 4.0 * (c * c - *t2 * covariance(2, 2));
    const double middle = 2.0 * (b * c - *t2 * covariance(1, 2));
    const double last = b * b - *t2 * covariance(1, 1);
    if (!(leading > 0.0))
        return optimum;
    const double root = std::sqrt(std::max(0.0, middle * middle - leading * last));
    optimum.ci = Interval{scaling.centre + scaling.half * (-middle - root) / leading,
                          scaling.centre + scaling.half * (-middle + root) / leading};
    return optimum;
}

/// The powers of u, and the values.
struct ScaledDesign {
    Scaling scaling;
    Eigen::MatrixXd design;
    Eigen::VectorXd values;

    ScaledDesign(std::span<const double> x, std::span<const double> y, int degree)
        : design(static_cast<Eigen::Index>(x.size()), degree + 1), values(static_cast<Eigen::Index>(x.size()))
    {
        const auto [least, most] = std::minmax_element(x.begin(), x.end());
        scaling = {0.5 * *least + 0.5 * *most, 0.5 * *most - 0.5 * *least};
        for (Eigen::Index i = 0; i < values.size(); ++i) {
            values[i] = y[static_cast<std::size_t>(i)];
            design.row(i) =
                powersOf((x[static_cast<std::size_t>(i)] - scaling.centre) / scaling.half, degree);
        }
    }

    static Eigen::RowVectorXd powersOf(double u, int degree)
    {
        Eigen::RowVectorXd powers(degree + 1);
        for (int power = 0; power <= degree; ++power)
            powers[power] = std::pow(u, power);
        return powers;
    }
};

Status checkTrend(std::span<const double> x, int degree)
{
    if (degree < 1 || degree > kMostTrendDegree)
        return invalidArgument(fmt::format("the degree is {}; 1 to {} is wanted", degree, kMostTrendDegree));
    const std::set<double> different(x.begin(), x.end());
    if (different.size() < static_cast<std::size_t>(degree) + 1)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("x has {} different value{}; a trend of degree {} wants at least {}",
                                 different.size(), different.size() == 1 ? "" : "s", degree, degree + 1),
                     {}};
    return ok();
}

} // namespace

Result<Trend> fitTrend(std::span<const double> x, std::span<const double> y, int degree, double confidence)
{
    require(x.size() == y.size(), "fitTrend() needs as many x as y");
    if (const Status usable = checkTrend(x, degree); !usable)
        return usable.error();
    const ScaledDesign scaled(x, y, degree);
    const auto &[scaling, design, values] = scaled;
    const Eigen::Index n = values.size();
    const LinearModel model(design);
    const Eigen::VectorXd own = model.coefficients(values);
    const double residualSquares = (values - model.fitted(values)).squaredNorm();
    const double totalSquares = (values.array() - values.mean()).square().sum();

    Trend trend;
    trend.df = static_cast<double>(n - degree - 1);
    const Eigen::MatrixXd toX = toPowersOfX(scaling, degree);
    const Eigen::VectorXd coefficients = toX * own;
    for (int power = 0; power <= degree; ++power)
        trend.coefficients.push_back({power, coefficients[power], {}, {}, {}, {}});
    if (totalSquares > 0.0)
        trend.r2 = 1.0 - residualSquares / totalSquares;
    std::optional<double> t2;
    Eigen::MatrixXd scaledCovariance;
    if (trend.df > 0.0) {
        const double variance = residualSquares / trend.df;
        trend.residualSd = std::sqrt(variance);
        if (trend.r2)
            trend.adjustedR2 = 1.0 - (1.0 - *trend.r2) * static_cast<double>(n - 1) / trend.df;
        scaledCovariance = variance * model.unscaledCovariance();
        const Eigen::MatrixXd covariance = toX * scaledCovariance * toX.transpose();
        const double quantile = studentQuantile(0.5 + 0.5 * confidence, trend.df);
        t2 = quantile * quantile;
        for (TrendCoefficient &coefficient : trend.coefficients) {
            const double se = std::sqrt(std::max(0.0, covariance(coefficient.power, coefficient.power)));
            coefficient.se = se;
            coefficient.ci = Interval{coefficient.value - quantile * se, coefficient.value + quantile * se};
            if (se > 0.0) {
                coefficient.t = coefficient.value / se;
                coefficient.p = studentTwoSided(*coefficient.t, trend.df);
            }
        }
        if (variance > 0.0) {
            trend.f = std::max(0.0, totalSquares - residualSquares) / degree / variance;
            trend.p = fisherUpper(*trend.f, degree, trend.df);
        }
        trend.lackOfFit = lackOfFit(x, y, residualSquares, trend.df);
    }
    if (degree == 2 && own[2] != 0.0)
        trend.optimum = optimumOf(own, scaledCovariance, t2, scaling);
    return trend;
}

Result<std::vector<TrendPoint>> trendCurve(std::span<const double> x, std::span<const double> y, int degree,
                                           int places, double confidence)
{
    require(x.size() == y.size() && places >= 2, "trendCurve() needs as many x as y, and two places");
    if (const Status usable = checkTrend(x, degree); !usable)
        return usable.error();
    const ScaledDesign scaled(x, y, degree);
    const LinearModel model(scaled.design);
    const Eigen::VectorXd coefficients = model.coefficients(scaled.values);
    const auto df = static_cast<double>(scaled.values.size() - degree - 1);
    double times = 0.0; // of the standard error
    Eigen::MatrixXd covariance;
    if (df > 0.0) {
        const double k = degree + 1.0;
        times = std::sqrt(k * fisherQuantileUpper(1.0 - confidence, k, df));
        covariance =
            (scaled.values - model.fitted(scaled.values)).squaredNorm() / df * model.unscaledCovariance();
    }
    std::vector<TrendPoint> curve;
    for (int i = 0; i < places; ++i) {
        const double u = 2.0 * i / (places - 1) - 1.0;
        const Eigen::VectorXd at = ScaledDesign::powersOf(u, degree).transpose();
        TrendPoint point{scaled.scaling.centre + scaled.scaling.half * u, at.dot(coefficients), {}};
        if (df > 0.0) {
            const double half = times * std::sqrt(at.dot(covariance * at));
            point.band = Interval{point.value - half, point.value + half};
        }
        curve.push_back(point);
    }
    return curve;
}

} // namespace inchpeg
