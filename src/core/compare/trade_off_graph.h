// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/graph.h"
#include "core/compare/trade_off.h"

#include <functional>
#include <string>

namespace inchpeg
{

/// A response over what a piece costs; rails that are beaten by a cheaper one are hollow, the knee is ringed.
/// costLabel: "Mass of a piece in g"; costText: of an amount, "2.1 g".
Graph tradeOffGraph(const Study &study, const StudyComparison &comparison, std::span<const RailCost> costs,
                    const std::string &costLabel, const std::function<std::string(double)> &costText,
                    const Notation &notation);

/// A response over another one of the same test: rails that another beats in both are hollow. over: the
/// comparison of the other.
Graph twoResponsesGraph(const Study &study, const StudyComparison &comparison, const StudyComparison &over,
                        const Notation &notation);

} // namespace inchpeg
