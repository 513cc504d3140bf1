// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// Two straight lines that meet: where a gain flattens.
struct Bend {
    double at = 0.0; ///< x where they meet
    /// F interval of that x: where the residual squares stay below those at best times 1 + F(1, n-4)/(n-4).
    /// An end is missing where the second level, or the second last, is not excluded.
    std::optional<double> low;
    std::optional<double> high;
    double slopeBefore = 0.0;
    double slopeAfter = 0.0;
    double residualSquares = 0.0;
    double lineSquares = 0.0; ///< of one straight line
    double df = 0.0;          ///< n - 4
    double F = 0.0;           ///< of the bend against one line, with 2 and n - 4 degrees of freedom
    /// Chance of such an F without a bend, at most: Bonferroni over the gaps in which it was looked for.
    double pAtMost = 1.0;
};

/// Least squares with a bend between the second and the second last level (Hudson 1966, J. Am. Stat. Assoc.
/// 61, 1097); interval as Lerman (1980), Appl. Stat. 29, 77. x, y: equally long, finite.
/// Errors: TooFewPoints with fewer than four different x or fewer than five values; BadInput where all y lie
/// on a line, or on two.
Result<Bend> fitBend(std::span<const double> x, std::span<const double> y, double confidence = 0.95);

} // namespace inchpeg
