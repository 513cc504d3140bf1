// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// What the log explains of the values, a sentence each:
/// - masses: where heavier pieces of a rail hold more, the rails at equal mass (analysis of covariance);
/// - plates: where rails share plates, the rails with the plates taken out (restricted maximum likelihood);
///   where each rail has several plates of its own, the plates as the units; where one has a single plate,
///   that a plate cannot be told from a rail.
/// Intervals hold together by Bonferroni. Empty where pieces were not weighed or their plates are not known.
/// Formulas: docs/methods.md, "What the log explains".
struct LogAnswer {
    std::string text;
    bool changesClaims = false; ///< not all claims stand up to it
};
std::vector<LogAnswer> logAnswers(const Study &study, const StudyComparison &comparison,
                                  const Notation &notation);

} // namespace inchpeg
