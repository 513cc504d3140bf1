// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

struct Interval {
    double low = 0.0;
    double high = 0.0;
    bool operator==(const Interval &) const = default;
};

/// Measured values that belong together: one condition, one material.
struct Group {
    std::string name;
    std::vector<double> values;
};

/// Describes a sample. What a sample of its size cannot give is empty. Formulas: docs/methods.md,
/// "Summaries".
struct Summary {
    std::size_t n = 0;
    std::optional<double> mean;
    std::optional<double> sd;   ///< n - 1 in the denominator
    std::optional<double> cv;   ///< sd / |mean|, a fraction
    std::optional<double> se;   ///< of the mean
    std::optional<Interval> ci; ///< of the mean, Student's t
    std::optional<double> median;
    std::optional<double> q1; ///< quartiles: linear between order statistics (Hyndman & Fan 1996, type 7)
    std::optional<double> q3;
    std::optional<double> min;
    std::optional<double> max;
    std::optional<double> skewness; ///< adjusted Fisher–Pearson G1
    std::optional<double> kurtosis; ///< adjusted G2, excess
    std::optional<double> mad;      ///< median absolute deviation, unscaled
    bool operator==(const Summary &) const = default;
};

/// values: finite, any number of them. confidence: between 0 and 1.
Summary summarise(std::span<const double> values, double confidence = 0.95);

/// Precondition: values not empty.
double meanOf(std::span<const double> values);

/// Variance with n - 1, in two passes with the rounding of the mean corrected (Chan, Golub & LeVeque 1983).
/// Precondition: at least two values.
double varianceOf(std::span<const double> values);

/// Quantile by linear interpolation between order statistics (type 7). sorted: ascending, not empty.
double quantileOf(std::span<const double> sorted, double probability);

double medianOf(std::vector<double> values);

} // namespace inchpeg
