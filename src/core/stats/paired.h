// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// Two readings of the same specimens, before and after; every sign follows after - before.

struct SignedRank {
    double v = 0.0; ///< sum of the ranks of the positive differences
    double p = 0.0; ///< two-sided
    bool exact = false;
};

struct PairedComparison {
    std::size_t n = 0;
    double meanDifference = 0.0;
    std::optional<double> t; ///< t, df, p and interval: nothing for one pair or where no difference varies
    std::optional<double> df;
    std::optional<double> p;
    std::optional<Interval> ci;
    std::optional<SignedRank> wilcoxon; ///< nothing where no pair differs
};

/// Student's paired test and Wilcoxon's signed ranks: zeros are dropped; exact below 50 pairs without ties
/// or zeros, else normal with tie and continuity correction (Hollander & Wolfe, Nonparametric Statistical
/// Methods, ch. 3).
/// before, after: same length of at least 1.
PairedComparison comparePaired(std::span<const double> before, std::span<const double> after,
                               double confidence = 0.95);

} // namespace inchpeg
