// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/two_groups.h"

#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// A value that may be a lower bound: a gauge at its limit, a piece that did not break, a run still going.
struct BoundedValue {
    double value = 0.0;
    bool isLowerBound = false;
    bool operator==(const BoundedValue &) const = default;
};

struct WeibullFit {
    std::size_t n = 0;
    std::size_t bounds = 0; ///< of them lower bounds
    Estimate shape;         ///< intervals from the observed information of the logarithms
    Estimate scale;
    double logLikelihood = 0.0;
    double b10 = 0.0; ///< value that one in ten does not reach
    double b50 = 0.0;
    double mean = 0.0;
    std::optional<double> andersonDarling; ///< A² without a factor; nothing with bounds
};

/// Two-parameter Weibull distribution by maximum likelihood. Source: docs/methods.md, "Bounds".
/// Errors: BadInput for a value that is not above 0; TooFewPoints where the likelihood has no maximum: no
/// value that is not a bound, or nothing that varies.
Result<WeibullFit> fitWeibull(std::span<const BoundedValue> values, double confidence = 0.95);

} // namespace inchpeg
