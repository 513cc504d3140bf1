// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// A difference on the scale of the procedure, in words: percent where effects are ratios (it is then one of
/// logarithms), else in the unit of the property. uncertainty: decides the decimals of the latter.
std::string scaledAmount(const StudyComparison &comparison, double difference, double uncertainty,
                         const Notation &notation); ///< without a sign: "12 %"
std::string scaledDifference(const StudyComparison &comparison, double difference, double uncertainty,
                             const Notation &notation); ///< "+12 %"
std::string scaledRange(const StudyComparison &comparison, const Interval &difference, double uncertainty,
                        const Notation &notation); ///< "3 to 22 %"

/// Place of a rail in the study, by which its marks and inks are told.
int railPlace(const Study &study, ConditionId rail);

} // namespace inchpeg
