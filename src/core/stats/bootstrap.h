// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"

#include <cstdint>
#include <functional>
#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// Intervals by drawing the sample again, with replacement, within each group (Efron & Tibshirani 1993, An
/// Introduction to the Bootstrap, ch. 13, 14). Formulas: docs/methods.md, "Bootstrap".

/// Of one or several samples; nothing where it does not exist (a ratio to a mean of 0).
using Statistic = std::function<std::optional<double>(std::span<const std::vector<double>> samples)>;

struct BootstrapSettings {
    double confidence = 0.95;
    int resamples = 9999;
    std::uint64_t seed = 1;
};

struct BootstrapEstimate {
    std::optional<double> estimate;
    std::optional<Interval> percentile;
    std::optional<Interval> bca; ///< bias-corrected and accelerated; nothing where no drawing differs
};

/// Only groups of two or more values give intervals.
BootstrapEstimate bootstrap(std::span<const std::vector<double>> samples, const Statistic &statistic,
                            const BootstrapSettings &settings);

Statistic meanStatistic();
Statistic medianStatistic();
Statistic sdStatistic();
Statistic ratioStatistic(); ///< mean of the second sample over that of the first

} // namespace inchpeg
