// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/summary.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// Adjusted Fisher–Pearson coefficients (Joanes & Gill 1998, G1 and G2).
void addShape(Summary &summary, std::span<const double> values)
{
    const auto n = static_cast<double>(values.size());
    double m2 = 0.0;
    double m3 = 0.0;
    double m4 = 0.0;
    for (double value : values) {
        const double d = value - *summary.mean;
        m2 += d * d;
        m3 += d * d * d;
        m4 += d * d * d * d;
    }
    m2 /= n;
    m3 /= n;
    m4 /= n;
    if (!(m2 > 0.0))
        return;
    if (values.size() >= 3)
        summary.skewness = std::sqrt(n * (n - 1.0)) / (n - 2.0) * m3 / std::pow(m2, 1.5);
    if (values.size() >= 4)
        summary.kurtosis = (n - 1.0) / ((n - 2.0) * (n - 3.0)) * ((n + 1.0) * (m4 / (m2 * m2) - 3.0) + 6.0);
}

void addOrderStatistics(Summary &summary, std::span<const double> values)
{
    std::vector<double> sorted(values.begin(), values.end());
    std::sort(sorted.begin(), sorted.end());
    summary.min = sorted.front();
    summary.max = sorted.back();
    summary.median = quantileOf(sorted, 0.5);
    summary.q1 = quantileOf(sorted, 0.25);
    summary.q3 = quantileOf(sorted, 0.75);
    for (double &value : sorted)
        value = std::abs(value - *summary.median);
    summary.mad = medianOf(std::move(sorted));
}

} // namespace

double meanOf(std::span<const double> values)
{
    require(!values.empty(), "meanOf() of no values");
    const auto n = static_cast<double>(values.size());
    double sum = 0.0;
    for (double value : values)
        sum += value;
    const double mean = sum / n;
    double rest = 0.0; // a second pass takes back what the first lost by rounding
    for (double value : values)
        rest += value - mean;
    return mean + rest / n;
}

double varianceOf(std::span<const double> values)
{
    require(values.size() >= 2, "varianceOf() needs two values");
    const double mean = meanOf(values);
    double squares = 0.0;
    double rest = 0.0;
    for (double value : values) {
        squares += (value - mean) * (value - mean);
        rest += value - mean;
    }
    const auto n = static_cast<double>(values.size());
    return std::max(0.0, (squares - rest * rest / n) / (n - 1.0));
}

double quantileOf(std::span<const double> sorted, double probability)
{
    require(!sorted.empty(), "quantileOf() of no values");
    const double at = probability * static_cast<double>(sorted.size() - 1);
    const auto below = std::min(static_cast<std::size_t>(at), sorted.size() - 1);
    const std::size_t above = std::min(below + 1, sorted.size() - 1);
    return std::lerp(sorted[below], sorted[above], at - static_cast<double>(below));
}

double medianOf(std::vector<double> values)
{
    std::sort(values.begin(), values.end());
    return quantileOf(values, 0.5);
}

Summary summarise(std::span<const double> values, double confidence)
{
    Summary summary;
    summary.n = values.size();
    if (values.empty())
        return summary;
    summary.mean = meanOf(values);
    addOrderStatistics(summary, values);
    if (values.size() < 2)
        return summary;
    const auto n = static_cast<double>(values.size());
    summary.sd = std::sqrt(varianceOf(values));
    if (*summary.mean != 0.0)
        summary.cv = *summary.sd / std::abs(*summary.mean);
    summary.se = *summary.sd / std::sqrt(n);
    const double half = studentQuantile(0.5 + 0.5 * confidence, n - 1.0) * *summary.se;
    summary.ci = Interval{*summary.mean - half, *summary.mean + half};
    addShape(summary, values);
    return summary;
}

} // namespace inchpeg
