// SPDX-License-Identifier: GPL-3.0-or-later
// Rails of grades and of words: what is felt or seen has an order at most, and is never averaged.
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// The median of grades in the place of a mean; of words only how many there are.
Summary summaryOfGrades(std::span<const double> values, const Property &property);

/// Of the level at which a trend is claimed: what a test of any difference must stand up to where no trend is
/// shown, for single rails to be claimed (ours; docs/methods.md, "One family").
inline constexpr double kShareForAnyDifference = 0.2;

/// Each rail of grades beside the reference by exact rank tests, adjusted over all that are compared. Words
/// are left as they are. Formulas: docs/methods.md, "Grades".
void compareGrades(const Study &study, StudyComparison &comparison, std::size_t reference);

/// "none 2, burning 1": how often each word was seen on a rail, of the pieces that count.
std::string wordCounts(const RailComparison &rail, const Property &property);
/// "4", "3.5".
std::string gradeText(double grade, const Notation &notation);

/// The least number of pieces a rail with which ranks can show anything when so many rails are compared with
/// the reference.
std::size_t leastGraded(std::size_t comparisons, double alpha);

/// What grades say beyond each rail beside the reference: whether they rise over the levels (Jonckheere and
/// Terpstra), and which rails may be graded best, with the lowest and the highest of their levels.
std::vector<std::string> gradedAnswers(const Study &study, const StudyComparison &comparison,
                                       const Notation &notation);
/// The rails that are not told apart from the one that is graded best (each by itself).
std::vector<ConditionId> mayBeGradedBest(const Study &study, const StudyComparison &comparison);

} // namespace inchpeg
