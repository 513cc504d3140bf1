// SPDX-License-Identifier: GPL-3.0-or-later
// Grades, orders and choices: what is felt or seen and has no unit.
#pragma once

#include "core/base/result.h"

#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// Whether values rise over ordered levels.
struct OrderedTrend {
    double z = 0.0;   ///< with ties, without a continuity correction
    double p = 1.0;   ///< two-sided
    double tau = 0.0; ///< Kendall's tau-b
};

/// Jonckheere (1954, Biometrika 41, 133) and Terpstra: the count of pairs from different levels that rise
/// less those that fall, over its standard deviation (Kendall 1970, Rank Correlation Methods, 4.4, with ties
/// on both sides). level, value: equally long. Nothing where all levels or all values are alike.
std::optional<OrderedTrend> orderedTrend(std::span<const double> level, std::span<const double> value);

/// Whether judges put the same things in the same order.
struct Agreement {
    double W = 0.0; ///< 1: all alike; 0: none
    double chi2 = 0.0;
    double df = 0.0;
    double p = 1.0; ///< of W by chance (Friedman); rough with few judges and things
};

/// Kendall's W with ties. grades[judge][thing], a grade from each judge for each thing.
/// Errors: TooFewPoints with fewer than two judges or things, or where no judge tells any apart.
Result<Agreement> agreementOf(const std::vector<std::vector<double>> &grades);

/// "Which was better?", asked of pairs.
struct ChoiceFit {
    std::vector<double> strength; ///< logarithm; that of the first is 0
    std::vector<double> standardError;
    double chi2 = 0.0; ///< likelihood ratio against all being alike
    double df = 0.0;
    double p = 1.0;
};

/// Bradley & Terry (1952, Biometrika 39, 324) by maximum likelihood: i goes before j with the chance
/// 1/(1 + exp(s_j - s_i)). wins[i][j]: how often i went before j.
/// Errors: TooFewPoints where there is no maximum: some things never lost, or never won, against all others
/// (Ford 1957).
Result<ChoiceFit> fitChoices(const std::vector<std::vector<double>> &wins);

/// Chances of errors of many answers at once, each adjusted so that of those called real at most that share
/// is expected to be wrong: Benjamini and Hochberg (1995, J. R. Stat. Soc. B 57, 289), or Benjamini and
/// Yekutieli (2001) for answers that hang together in any way.
std::vector<double> falseDiscoveryAdjusted(std::span<const double> p, bool anyDependence = false);

} // namespace inchpeg
