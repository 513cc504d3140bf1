// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/stats/factorial.h"
#include "core/text/notation.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// What each factor of a study does where its rails cross the levels of two or three.
struct FactorEffects {
    std::vector<std::size_t> factors;             ///< places in the study, of those that vary
    std::vector<std::vector<std::string>> levels; ///< of each of these, with its unit; numbers ascend
    std::vector<FactorialValue> values;           ///< logarithms where effects are ratios
    FactorialAnova anova;                         ///< type 3 where all combinations are there, else type 2
};

/// Nothing where fewer than two or more than three factors vary among the compared rails, where no two of
/// them cross, or without a residual.
std::optional<FactorEffects> factorEffects(const Study &study, const StudyComparison &comparison);

/// In words: which factors work together, and what those that do not do over all levels of the others. Empty
/// without effects.
std::vector<std::string> factorAnswers(const Study &study, const StudyComparison &comparison,
                                       const Notation &notation);

} // namespace inchpeg
