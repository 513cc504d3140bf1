// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// Whether the rails that were broken so far answer the question, and what to break next.
struct StopAdvice {
    bool isSettled = false;
    std::size_t whole = 0;              ///< pieces of the compared rails that are still whole
    std::vector<ConditionId> undecided; ///< rails neither told apart nor alike, and those not seen yet
    bool hasUnseen = false;             ///< some of these have too few pieces to be compared at all
    /// Pieces a rail, of these and the reference, that would decide them if means and scatter stayed as they
    /// are; nothing where even all that are planned would not.
    std::optional<int> morePieces;
};

/// Nothing where the plan allows no looks (PieceAim::looks), no rail can be compared, or nothing is whole any
/// more. A rail is decided where it is told apart from the reference, or its whole interval lies within the
/// difference that matters, at the level of this look; so stopping there keeps the plan's confidence.
std::optional<StopAdvice> stopAdvice(const Study &study, const StudyComparison &comparison);

/// "Settled after 5 of 12 pieces a rail: leave the other 28 whole."
std::string stopAdviceText(const Study &study, const StudyComparison &comparison, const StopAdvice &advice,
                           const Notation &notation);

} // namespace inchpeg
