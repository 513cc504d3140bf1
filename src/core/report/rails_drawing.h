// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/report/drawing.h"
#include "core/text/notation.h"

#include <vector>

namespace inchpeg
{

inline constexpr double kDrawingWidth = 680.0; ///< of a picture across the page

/// The rails of a comparison as a measuring scale: a peg for each piece, the mean and its interval, bounds as
/// pegs that are open to the right, pieces that do not count crossed out. At most so many rails to a picture;
/// all on one scale. Empty for a property of words, and where nothing was read.
std::vector<Drawing> railsDrawings(const Study &study, const StudyComparison &comparison,
                                   const Notation &notation, std::size_t railsEach = 20);

/// What the signs of such a picture mean, in a sentence that names only those that occur.
std::string railsKey(const StudyComparison &comparison, const Notation &notation);

} // namespace inchpeg
