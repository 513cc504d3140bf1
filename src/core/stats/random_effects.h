// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// How much of the scatter lies within groups (operators, days, plates) and how much between them.
struct VarianceComponents {
    double msBetween = 0.0;
    std::optional<double> msWithin;      ///< this and what follows: nothing where no group has two values
    std::optional<double> repeatability; ///< sd within a group, s_r
    std::optional<double> between;       ///< sd of the groups' own offsets; 0 where the estimate is negative
    std::optional<double> reproducibility; ///< s_R, both together
};

/// One-way random effects by the method of moments, n0 for unequal groups (ISO 5725-2, 7.4).
/// groups: none of them empty. Errors: TooFewPoints with fewer than two.
Result<VarianceComponents> varianceComponents(std::span<const Group> groups);

} // namespace inchpeg
