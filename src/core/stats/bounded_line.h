// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/bounded_likelihood.h"
#include "core/stats/weibull.h"

#include <span>

namespace inchpeg
{

/// A straight line through values of which some are lower bounds: of the values themselves, or of their
/// logarithms where these scatter.
struct BoundedLine {
    double intercept = 0.0;
    double slope = 0.0;
    double interceptError = 0.0;
    double slopeError = 0.0;
    double scale = 0.0;         ///< see BoundedMaximum
    double logLikelihood = 0.0; ///< of the values themselves
    std::size_t broken = 0;     ///< that are no bounds
};

/// By maximum likelihood, see maximiseBounded(). x, values: same length.
/// Errors: BadInput for a value that is not above 0 where logarithms scatter; TooFewPoints where x is
/// constant or the likelihood has no maximum.
Result<BoundedLine> fitBoundedLine(std::span<const double> x, std::span<const BoundedValue> values,
                                   ScatterLaw law);

} // namespace inchpeg
