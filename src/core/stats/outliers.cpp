// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/outliers.h"

#include "core/stats/distributions.h"
#include "core/stats/summary.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace inchpeg
{

namespace
{

/// A sample from which values are taken out one by one.
struct Remaining {
    std::vector<double> values;
    std::vector<std::size_t> positions; ///< in the whole sample
};

struct Farthest {
    double distance_sd = 0.0; ///< from the mean, over the sd
    std::size_t at = 0;       ///< among those that remain
};

Remaining wholeOf(std::span<const double> values)
{
    Remaining all{{values.begin(), values.end()}, std::vector<std::size_t>(values.size())};
    std::iota(all.positions.begin(), all.positions.end(), std::size_t{0});
    return all;
}

std::optional<Farthest> farthestOf(const Remaining &sample)
{
    if (sample.values.size() < 2)
        return std::nullopt;
    const double mean = meanOf(sample.values);
    const double sd = std::sqrt(varianceOf(sample.values));
    if (!(sd > 0.0))
        return std::nullopt;
    const auto found =
        std::max_element(sample.values.begin(), sample.values.end(),
                         [mean](double a, double b) { return std::abs(a - mean) < std::abs(b - mean); });
    return Farthest{std::abs(*found - mean) / sd, static_cast<std::size_t>(found - sample.values.begin())};
}

std::size_t takeOut(Remaining &sample, std::size_t at)
{
    const std::size_t position = sample.positions[at];
    sample.values.erase(sample.values.begin() + static_cast<std::ptrdiff_t>(at));
    sample.positions.erase(sample.positions.begin() + static_cast<std::ptrdiff_t>(at));
    return position;
}

/// The distance that the farthest of n normal values exceeds with a chance of alpha, by Bonferroni.
double criticalDistance_sd(std::size_t count, double alpha)
{
    const auto n = static_cast<double>(count);
    const double t = studentQuantile(1.0 - alpha / (2.0 * n), n - 2.0);
    return (n - 1.0) / std::sqrt(n) * std::sqrt(t * t / (n - 2.0 + t * t));
}

} // namespace

std::optional<GrubbsTest> grubbs(std::span<const double> values, double alpha)
{
    const std::optional<Farthest> farthest = farthestOf(wholeOf(values));
    if (!farthest || values.size() < 3)
        return std::nullopt;
    const auto n = static_cast<double>(values.size());
    const double g2 = farthest->distance_sd * farthest->distance_sd;
    GrubbsTest test{farthest->distance_sd, criticalDistance_sd(values.size(), alpha), 0.0, farthest->at,
                    false};
    // At the largest distance that n values allow, t is without bound and p is 0.
    const double room = (n - 1.0) * (n - 1.0) - n * g2;
    if (room > 0.0)
        test.p = std::min(1.0, n * studentTwoSided(std::sqrt(g2 * n * (n - 2.0) / room), n - 2.0));
    test.outlier = test.g > test.critical;
    return test;
}

std::optional<NormedResidual> maximumNormedResidual(std::span<const double> values, double alpha)
{
    Remaining sample = wholeOf(values);
    std::optional<NormedResidual> result;
    while (sample.values.size() >= 3) {
        const std::optional<Farthest> farthest = farthestOf(sample);
        if (!farthest)
            break;
        const double critical = criticalDistance_sd(sample.values.size(), alpha);
        if (!result)
            result = NormedResidual{farthest->distance_sd, critical, {}};
        if (farthest->distance_sd <= critical)
            break;
        result->outliers.push_back(takeOut(sample, farthest->at));
    }
    return result;
}

std::vector<std::size_t> rosnerOutliers(std::span<const double> values, double alpha)
{
    Remaining sample = wholeOf(values);
    std::vector<std::size_t> taken;
    std::size_t found = 0;
    for (std::size_t i = 0; i < values.size() / 2 && sample.values.size() >= 3; ++i) {
        const std::optional<Farthest> farthest = farthestOf(sample);
        if (!farthest)
            break;
        // The same limit as Rosner's λ, with the size that remains.
        const double critical = criticalDistance_sd(sample.values.size(), alpha);
        taken.push_back(takeOut(sample, farthest->at));
        if (farthest->distance_sd > critical)
            found = taken.size();
    }
    taken.resize(found);
    return taken;
}

} // namespace inchpeg
