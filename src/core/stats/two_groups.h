// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// Comparisons of two groups a and b; every sign follows b - a. Each is empty where the groups are too small
/// or do not vary. Formulas and sources: docs/methods.md, "Two groups".

struct TTest {
    double t = 0.0;
    double df = 0.0;
    double p = 0.0; ///< two-sided
    Interval ci;    ///< of mean(b) - mean(a)
};

/// Student's test with the two groups' pooled variance.
std::optional<TTest> pooledTTest(std::span<const double> a, std::span<const double> b,
                                 double confidence = 0.95);

/// Welch's test: own variances, Satterthwaite's df.
std::optional<TTest> welchTTest(std::span<const double> a, std::span<const double> b,
                                double confidence = 0.95);

struct Estimate {
    double value = 0.0;
    std::optional<Interval> ci; ///< nothing where the interval is unbounded
};

/// Hedges' g: difference over the pooled sd times the exact small-sample factor
/// J = Γ(df/2) / (sqrt(df/2) Γ((df-1)/2)); interval from the noncentral t, times J (Hedges 1981).
std::optional<Estimate> hedgesG(std::span<const double> a, std::span<const double> b,
                                double confidence = 0.95);

/// mean(b) / mean(a) with Fieller's interval, own variances, Satterthwaite's df at the estimated ratio.
/// Empty where mean(a) is 0 or a group has one value.
std::optional<Estimate> ratioOfMeans(std::span<const double> a, std::span<const double> b,
                                     double confidence = 0.95);

struct MannWhitney {
    double u = 0.0; ///< of group a
    double p = 0.0; ///< two-sided
    bool exact = false;
};

/// Exact without ties and below 50 values a group, else normal with tie and continuity correction
/// (Hollander & Wolfe, Nonparametric Statistical Methods, ch. 4).
std::optional<MannWhitney> mannWhitney(std::span<const double> a, std::span<const double> b);

/// Holm's adjustment of p values, in the given order; an empty entry stays empty and does not count.
std::vector<std::optional<double>> holmAdjusted(std::span<const std::optional<double>> p);

} // namespace inchpeg
