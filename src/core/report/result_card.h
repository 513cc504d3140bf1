// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/decide/decision.h"
#include "core/report/study_report.h"

namespace inchpeg
{

inline constexpr double kCardWidth = 1200.0;
inline constexpr double kCardHeight = 675.0;

/// One result on a card for a page or a post: the question, the verdict, the rails with their pegs, how many
/// pieces, by which test. At most ten rails are drawn: the reference and those beside it in the study's
/// order.
Drawing resultCard(const Study &study, const StudyComparison &comparison, const ReportOrigin &origin,
                   const Notation &notation);

/// The same of a decision: the part, who comes first and how surely, the first candidates at the gates.
Drawing decisionCard(const Decision &decision, const ReportOrigin &origin);

} // namespace inchpeg
