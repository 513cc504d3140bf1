// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/many_groups.h"

#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

struct TrendCoefficient {
    int power = 0;
    double value = 0.0;
    std::optional<double> se; ///< this and what follows: nothing without a residual degree of freedom
    std::optional<double> t;
    std::optional<double> p;
    std::optional<Interval> ci;
};

/// Where a parabola turns.
struct TrendOptimum {
    double x = 0.0;
    std::optional<Interval> ci; ///< Fieller's; nothing where it is unbounded
    bool isMaximum = false;
};

struct Trend {
    std::vector<TrendCoefficient> coefficients; ///< from the constant upwards, of the powers of x itself
    std::optional<double> r2;                   ///< nothing where y does not vary
    std::optional<double> adjustedR2;
    std::optional<double> residualSd;
    double df = 0.0; ///< of the residual
    std::optional<double> f;
    std::optional<double> p;
    std::optional<FTest> lackOfFit;      ///< nothing without repeated x
    std::optional<TrendOptimum> optimum; ///< of degree 2, where it is curved
};

inline constexpr int kMostTrendDegree = 3;

/// Polynomial regression by least squares. Source: docs/methods.md, "Trend".
/// x, y: same length. Errors: InvalidArgument for a degree outside 1 to kMostTrendDegree; TooFewPoints where
/// x is constant or has fewer different values than the polynomial has coefficients.
Result<Trend> fitTrend(std::span<const double> x, std::span<const double> y, int degree,
                       double confidence = 0.95);

/// The fitted polynomial at one x, with a band that holds the whole curve.
struct TrendPoint {
    double x = 0.0;
    double value = 0.0;
    std::optional<Interval> band; ///< nothing without a residual degree of freedom
};

/// The curve at equally spaced places from the lowest x to the highest; band by Working and Hotelling (1929).
/// Errors: as fitTrend().
Result<std::vector<TrendPoint>> trendCurve(std::span<const double> x, std::span<const double> y, int degree,
                                           int places, double confidence = 0.95);

} // namespace inchpeg
