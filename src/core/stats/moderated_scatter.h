// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

namespace inchpeg
{

/// Scatters of several groups that lean on each other a little.
struct ModeratedScatters {
    std::vector<double> variances;
    double more_df = 0.0; ///< so many degrees of freedom each has beyond its own
};

/// Few values tell little of their own scatter, and a common scatter speaks for a group that scatters
/// otherwise. Between the two: each variance is drawn towards that of all, as if it had been seen with d0
/// degrees of freedom more, (d0·c + d·s²)/(d0 + d) (Smyth 2004, Stat. Appl. Genet. Mol. Biol. 3, 3). d0 is
/// what the scatter of the variances themselves tells, and at most 0.4 (1 - 2/k) of the degrees of freedom of
/// a group, k the number of groups; c is the geometric mean of the common variance and of the variances'
/// unbiased geometric mean, but at most the common one. The share and c are ours, so that claims keep their
/// level where one group scatters three times as much (docs/validation.md).
/// variances: above 0, two or more; dfs: of each, above 0.
ModeratedScatters moderatedScatters(std::span<const double> variances, std::span<const double> dfs);

} // namespace inchpeg
