// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/model/workshop.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// Of a study whose prints are graded by eye and are tested otherwise too: which rails are clean and strong
/// at once, and which of them is the quickest and the lightest. Clean is a median outcome of 4 or better
/// (ours); strong is not told apart from the best of the other test. Empty where either was not done.
std::string cleanAndStrongAnswer(const Study &study, const PieceReadings &readings, const Workshop &workshop,
                                 const Notation &notation);

} // namespace inchpeg
