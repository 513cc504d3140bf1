// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/compare/responses.h"
#include "core/text/notation.h"

#include <string>

namespace inchpeg
{

/// What the pictures of a comparison are drawn from, as tab-separated text for a spreadsheet.

/// A row a piece: rail, code, value in the shown unit, whether it is a bound, whether it counts; what the
/// rail is beside the reference stands in the rows of its pieces.
std::string valuesText(const Study &study, const StudyComparison &comparison, const Notation &notation);

/// Rails by responses: mean, its interval and n of each.
std::string responsesText(const Study &study, const std::vector<ResponseColumn> &table,
                          const Notation &notation);

} // namespace inchpeg
