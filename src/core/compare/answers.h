// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/compare/sentence.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// What a comparison says of the question that was asked, beyond each rail beside the reference; a sentence
/// each, in the order in which they matter:
/// - the effects with each bound counted as one, where there are bounds;
/// - a trend, where it was asked for: the change from the lowest level to the highest along a straight line,
/// and
///   the turning point where the values bend, or where the slope changes;
/// - which rails are told apart, where each was to be compared with each;
/// - whether any differs, where that was asked; which are good enough, where that was;
/// - where claims are made although one rail scatters several times as much as another,
/// that
///   they may be wrong more often than they say;
/// - what factors whose levels cross do together and by themselves (factorAnswers());
/// - which rails may be best (Hsu), and what choosing the lowest or the highest of their levels costs at
/// most. Empty where fewer than two rails, or of the last fewer than three, can be compared. Formulas:
/// docs/methods.md, "Answers".
std::vector<Sentence> questionAnswers(const Study &study, const StudyComparison &comparison,
                                      const Notation &notation);

/// The rails that may be best, as the answer says; empty where it says nothing of it.
std::vector<ConditionId> mayBeBest(const Study &study, const StudyComparison &comparison);

} // namespace inchpeg
