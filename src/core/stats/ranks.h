// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace inchpeg
{

/// Rank tests are exact below this many values of a sample (or pairs) where none are tied, as in R.
inline constexpr std::size_t kExactRankTestBelow = 50;

struct Ranks {
    std::vector<double> ranks; ///< from 1, ties share their mean rank
    double tieSum = 0.0;       ///< sum of t³ - t over groups of t equal values
};

Ranks ranksOf(std::span<const double> values);

} // namespace inchpeg
