// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/trade_off.h"
#include "core/planning/planned_test.h"

#include <vector>

namespace inchpeg
{

enum class CostKind { PieceMass, PrintTime, Price };

/// What a piece of each rail costs in one of the study's tests: the mean of the masses that were weighed,
/// else the estimate from shape and settings; the printer's minutes; money for the material by its spool's
/// price. Rails without a price have no cost in money.
std::vector<RailCost> railCosts(const Study &study, Method test, CostKind kind, const Workshop &workshop);

/// How that axis is spoken of; money: what prices are in. notation must outlive them.
CostWords costWords(CostKind kind, const std::string &money, const Notation &notation);
/// "14.2 g".
std::string costText(CostKind kind, double cost, const std::string &money, const Notation &notation);

/// Of the rails that may be best (mayBeBest()), which is the lightest, the fastest and the cheapest, in a
/// sentence; empty for fewer than two, and of each cost where all of them cost the same.
std::string leastCostAnswer(const Study &study, const std::vector<ConditionId> &best, Method test,
                            const Workshop &workshop, const Notation &notation);

} // namespace inchpeg
