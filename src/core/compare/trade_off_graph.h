// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/graph.h"
#include "core/compare/trade_off.h"

#include <functional>
#include <string>

namespace inchpeg
{

/// A response over what a piece costs; rails that are beaten by a cheaper one are hollow, the knee is ringed.
Graph tradeOffGraph(const Study &study, const StudyComparison &comparison, std::span<const RailCost> costs,
                    const CostWords &words, const Notation &notation);

/// A response over another one of the study: rails that another beats in both are hollow, the bend of the
/// front is ringed, and said with what each side of it costs in the other response. over: the comparison of
/// the other. third: where it is asked for, of a third response: it is written at each rail, and hollow are
/// the rails that another beats in all three.
Graph responsesGraph(const Study &study, const StudyComparison &comparison, const StudyComparison &over,
                     const StudyComparison *third, const Notation &notation);

} // namespace inchpeg
