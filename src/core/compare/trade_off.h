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

/// How an axis of costs is spoken of. What is saved on it is mass, time or money; only money is cheap.
struct CostWords {
    std::string label;                       ///< "Mass of a piece in g"
    std::function<std::string(double)> text; ///< of an amount, "2.1 g"
    std::string_view least = "cheapest";     ///< "lightest"
    std::string_view lesser = "cheaper";     ///< "lighter"
    std::string_view same = "cost the same"; ///< "weigh the same"
    std::string_view worth = "cost";         ///< "mass"
};

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
    /// Beaten by its mean, which is a lower bound of what it is: it may be worth its cost.
    bool mayBeOnFront = false;
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

/// In words: the front, and where its gain flattens.
/// Empty with fewer than two points or for a property of which nobody says which way is better.
std::string tradeOffText(const Study &study, const StudyComparison &comparison, const TradeOff &tradeOff,
                         const CostWords &words, const Notation &notation);

} // namespace inchpeg
