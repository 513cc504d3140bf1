// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>

namespace inchpeg
{

/// One-sided lower tolerance bounds: with 95 % confidence, 99 % (a) or 90 % (b) of all pieces hold more. The
/// design allowables of composites (CMH-17 vol. 1, ch. 8). Formulas and sources: docs/methods.md, "Tolerance
/// bounds". A bound that the sample is too small for is missing.

struct NormalBounds {
    std::optional<double> a;
    std::optional<double> b;
    std::optional<double> kA; ///< how many standard deviations below the mean
    std::optional<double> kB;
};

struct ToleranceBounds {
    std::optional<double> a;
    std::optional<double> b;
};

/// The factor k of mean - k sd below which only 1 - share of a normal population lies, with the given
/// confidence: quantile of the noncentral t over √n. n >= 2.
double normalToleranceFactor(std::size_t n, double share, double confidence = 0.95);

/// The factor of a bound for nine in ten pieces, 95 % sure, that also holds where pieces follow Weibull's
/// distribution, whose weak tail is heavier than the normal one: that of a normal population for 92 % and 97
/// %. By simulation at most 6 % of such bounds lie above what nine in ten bear, shapes 4 to 20, 3 to 40
/// pieces; 2 to 3 % of normal pieces (docs/validation.md, "Nine in ten"). n >= 2.
double safeToleranceFactor(std::size_t n);

/// The factor k of mean - k sd that lies below what 1 - share of a normal population hold with a chance of
/// only chance: the other side of the bound. n >= 2.
double leastToleranceFactor(std::size_t n, double share, double chance = 0.05);

NormalBounds normalBounds(std::span<const double> values);

/// Lawless (1982), Statistical Models and Methods for Lifetime Data, 4.1.2: exact, conditional on the shape
/// of the sample. Missing where a value is not above 0, or all are equal.
ToleranceBounds weibullBounds(std::span<const double> values);

/// By binomial order statistics: from 29 values for b, from 299 for a.
ToleranceBounds orderStatisticBounds(std::span<const double> values);

} // namespace inchpeg
