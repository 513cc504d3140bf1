// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/many_groups.h"
#include "core/stats/weibull.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

struct SurvivalStep {
    double value = 0.0;
    std::size_t atRisk = 0;   ///< reached this value, bounds at it included
    std::size_t events = 0;   ///< that ended here
    double survival = 1.0;    ///< share that goes beyond
    std::optional<double> se; ///< Greenwood's; nothing at a survival of 0
};

struct SurvivalCurve {
    std::size_t n = 0;
    std::size_t events = 0;
    std::optional<double> median;    ///< first value with a survival of at most one half
    std::vector<SurvivalStep> steps; ///< where something ended, ascending
};

/// Kaplan & Meier (1958), J. Am. Stat. Assoc. 53, 457. At equal values bounds come after those that ended.
SurvivalCurve survivalCurve(std::span<const BoundedValue> values);

struct BoundedGroup {
    std::string name;
    std::vector<BoundedValue> values;
};

/// Log-rank test of equal survival (Mantel 1966; Peto & Peto 1972). Nothing with fewer than two groups that
/// hold a value, or where nothing ended while two of them were at risk.
std::optional<ChiSquaredTest> logRank(std::span<const BoundedGroup> groups);

} // namespace inchpeg
