// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"

#include <string>

namespace inchpeg
{

/// What other schools would have claimed of the rails, in a sentence: each against the reference by Welch's
/// test adjusted by Holm, by ranks alone, by trimmed means and by Fieller's interval of the ratio. Named are
/// those that say otherwise, and ranks where so few pieces can never show a difference. Nothing is decided by
/// them. comparison: with ComparisonDetail::Tests. Empty where no rail is compared without bounds.
std::string otherSchools(const Study &study, const StudyComparison &comparison);

} // namespace inchpeg
