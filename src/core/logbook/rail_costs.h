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

} // namespace inchpeg
