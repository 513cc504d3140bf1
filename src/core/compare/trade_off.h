// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/comparison.h"
#include "core/text/notation.h"

#include <functional>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// What one piece of a rail costs: in g, min or money.
struct RailCost {
    ConditionId condition;
    double perPiece = 0.0;
    bool isMeasured = false; ///< weighed; else an estimate from shape and settings
};

struct TradeOffPoint {
    ConditionId condition;
    double cost = 0.0;
    bool costIsMeasured = false;
    double mean = 0.0;
    std::size_t pieces = 0;     ///< that the mean is of
    std::optional<Interval> ci; ///< of the mean
    bool atLeast = false;       ///< bounds are among its values
    bool isOnFront = false;     ///< none that costs as little or less has a better mean
};

/// A response against what it costs.
struct TradeOff {
    std::vector<TradeOffPoint> points; ///< in the rails' order; those without a value are left out
    std::vector<std::size_t> front;    ///< places in points, the cheapest first
    /// Of a front of three or more: where the gain flattens. The point furthest above the straight line
    /// between the cheapest and the best, both axes from 0 to 1; nothing where none is above it by a tenth
    /// (ours).
    std::optional<std::size_t> knee;
};

/// costs: of the compared rails; one without a cost is left out. Rails of another orientation than the
/// reference answer another question and are left out.
TradeOff tradeOff(const Study &study, const StudyComparison &comparison, std::span<const RailCost> costs);

/// In words: the front, and where its gain flattens. cost: what a difference of costs is called, "2.1 g".
/// Empty with fewer than two points or for a property of which nobody says which way is better.
std::string tradeOffText(const Study &study, const StudyComparison &comparison, const TradeOff &tradeOff,
                         const std::function<std::string(double)> &cost, const Notation &notation);

} // namespace inchpeg
