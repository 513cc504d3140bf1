// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"

#include <string>
#include <vector>

namespace inchpeg
{

/// A piece on which claims may hang, and what the comparison would say the other way.
struct Influence {
    PieceId piece;
    bool isLeftOut = false; ///< it is, and would be taken back in; else it counts and would be left out
    /// Rails that would be claimed otherwise than now: higher, lower, or not told apart.
    std::vector<ConditionId> changed;
};

/// Of every left-out piece of the compared test, and of every piece that stands out on its rail (maximum
/// normed residual at 5 %, rails of four pieces or more).
std::vector<Influence> influences(const Study &study, const PieceReadings &readings, const Property &property,
                                  const ComparisonRequest &asked = {});

/// In words, a sentence for those that change a claim and one for those that do not.
std::vector<std::string> influenceSentences(const Study &study, const std::vector<Influence> &found);

} // namespace inchpeg
