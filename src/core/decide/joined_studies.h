// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/decide/evidence.h"
#include "core/text/notation.h"

#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// What other studies of the same test say through a rail that they share with this one: the same levels of
/// factors of the same names, material and orientation. A sentence for each such study: whether the shared
/// rail came out alike, what their settings held otherwise, and, where it did, what its other rails are
/// beside this study's reference, by way of the shared one. Intervals are each by itself, from the scatter of
/// all rails on the way; of ratios only. Formula: docs/methods.md, "Joined studies".
std::vector<std::string> joinedStudies(const Study &study, const StudyComparison &comparison, Method test,
                                       std::span<const StudyResults> all, const Notation &notation);

} // namespace inchpeg
