// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/summary.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// Two one-sided Welch tests at 5 % (Schuirmann 1987; Welch 1947): whether b differs from a by less than a
/// margin in either direction.
struct Equivalence {
    double difference = 0.0;      ///< mean(b) - mean(a)
    std::optional<double> tLower; ///< against -margin; nothing where a group has one value or none varies
    std::optional<double> tUpper; ///< against +margin
    std::optional<double> df;
    std::optional<double> p; ///< the larger of the two
    std::optional<Interval> ci90;
    std::optional<bool> equivalent;
};

/// a, b: not empty. margin: above 0, in the unit of the values.
Equivalence testEquivalence(std::span<const double> a, std::span<const double> b, double margin);

/// A margin in the unit of the values: as given, or as a fraction of the reference's absolute mean.
/// Errors: InvalidArgument where it comes to nothing: a margin, or a mean, of 0.
Result<double> absoluteMargin(double margin, bool isRelative, std::span<const double> reference);

} // namespace inchpeg
