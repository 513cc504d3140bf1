// SPDX-License-Identifier: GPL-3.0-or-later
// What a tensile record tells of strain beyond the curve itself: across the pull, over the time, and after
// it.
#pragma once

#include <optional>
#include <span>

namespace inchpeg
{

/// Samples first to last, both included.
struct SampleRange {
    std::size_t first = 0;
    std::size_t last = 0;
};

/// Poisson's ratio: minus the least-squares slope of transverse over axial strain in the range. A transverse
/// strain that is counted positive where the piece gets narrower gives the same. Nothing with fewer than two
/// samples or where the axial strain stands still. Source: ISO 527-1:2019, 3.10 and 10.4 (clauses from
/// memory).
std::optional<double> poissonsRatio(std::span<const double> axialStrain,
                                    std::span<const double> transverseStrain, SampleRange range);

/// Least-squares slope of strain over time in the range, in %/min; nothing as for poissonsRatio().
std::optional<double> strainRate_percent_per_min(std::span<const double> strain,
                                                 std::span<const double> time_s, SampleRange range);

} // namespace inchpeg
