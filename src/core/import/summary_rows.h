// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/number.h"

#include <span>
#include <string_view>

namespace inchpeg
{

/// How surely a cell names a row that sums up the rows above it.
enum class SummaryWord {
    None,
    Perhaps, ///< "max", "n", "range": also what a group may be called
    Surely,  ///< "Mean", "Std. dev.", "Mittelwert", "CV %"
};

/// Case, blanks, dots, colons and brackets do not count. Words of the languages in which rigs are sold.
SummaryWord summaryWord(std::string_view cell);

/// Of a row: the surest of the cells in front of its first number; the last cell too where it surely says so.
SummaryWord summaryWordOf(std::span<const std::string_view> cells, const NumberFormat &numbers);

} // namespace inchpeg
