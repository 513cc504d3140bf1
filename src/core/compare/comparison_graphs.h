// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/compare/graph.h"
#include "core/text/notation.h"

#include <string_view>
#include <vector>

namespace inchpeg
{

/// What of a comparison can be drawn over two axes.
enum class ComparisonGraph {
    Trend,       ///< values over the levels, the curve with the band that holds it, where it turns
    Interaction, ///< means of one factor over another, or two
    Pairs,       ///< each piece before and after
    Weibull,     ///< shares that had failed, on Weibull's paper, bounds counted
    Survival,    ///< shares that go beyond (Kaplan and Meier), bounds counted
};

std::string_view graphName(ComparisonGraph kind); ///< "trend over the levels"

/// Those that this comparison can fill, the one that fits the question best first.
std::vector<ComparisonGraph> graphsFor(const Study &study, const StudyComparison &comparison);

/// Empty with a sentence that says why where the comparison cannot fill it.
Graph comparisonGraph(ComparisonGraph kind, const Study &study, const StudyComparison &comparison,
                      const Notation &notation);

/// "Strength in MPa".
std::string axisLabel(const Property &property, const Notation &notation);

} // namespace inchpeg
