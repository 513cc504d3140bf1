// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/model/study_edit.h"
#include "core/text/notation.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// Which levels of a setting to try next, to find its best place more closely.
struct NextLevels {
    std::vector<std::string>
        levels;           ///< as typed in the factor's unit, rising; the best of those tried is among them
    std::string best;     ///< that one; the reference of what is planned
    std::string sentence; ///< which, and why
};

/// Of a study of one factor whose levels are numbers, three of them compared, and a property of which one way
/// is better:
/// - where the values bend, the ends of the turning point's interval and the point itself, unless it is known
/// to
///   less than half the distance of levels;
/// - where the best level lies at an end, two more beyond it;
/// - else halfway to its neighbours.
/// Rules: docs/methods.md, "Next levels" (ours). Nothing where there is nothing to be gained.
std::optional<NextLevels> nextLevels(const Study &study, const StudyComparison &comparison,
                                     const Notation &notation);

/// Makes a fresh study one that tries these levels as the other one did its own: the same tests, settings and
/// number of pieces. Errors: those of addCondition().
Status planNextLevels(Study &fresh, const Study &like, const NextLevels &next, const IdSource &ids);

} // namespace inchpeg
