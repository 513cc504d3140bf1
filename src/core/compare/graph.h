// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/ids.h"
#include "core/stats/summary.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// A picture over two axes as data, in the units in which it is shown: the window draws it, and it is copied
/// or saved as text.

struct GraphPoint {
    double x = 0.0;
    double y = 0.0;
    std::optional<Interval> xRange{};
    std::optional<Interval> yRange{}; ///< of a band its two edges
    bool isHollow = false;            ///< left behind, or beaten by another
    bool isRinged = false;
    bool isBound = false; ///< the true y, or x of a step, lies beyond
    std::string title{};  ///< written beside it
    std::string words{};  ///< all about it
    std::optional<ConditionId> rail{};
    std::optional<PieceId> piece{};
};

enum class GraphShape {
    Dots,
    Line,
    Steps, ///< level to the next x, then down
    Band,  ///< between the edges of yRange
};

struct GraphSeries {
    std::string name; ///< in the key; empty for one that needs none
    GraphShape shape = GraphShape::Dots;
    int ink = 0; ///< those of one ink belong together: place of the rail in the study, or of the level
    bool isReference = false;
    std::vector<GraphPoint> points;
};

struct GraphTick {
    double at = 0.0;
    std::string text;
};

struct GraphAxis {
    std::string label;
    std::vector<GraphTick> ticks{}; ///< empty: round numbers
};

/// A stretch of the x axis: where a curve turns, and how surely.
struct GraphStretch {
    double low = 0.0;
    double high = 0.0;
    double at = 0.0;
    std::string words;
};

struct Graph {
    GraphAxis x;
    GraphAxis y;
    std::vector<GraphSeries> series; ///< drawn in this order
    std::optional<GraphStretch> stretch{};
    std::string sentence; ///< what it says, or why there is nothing to draw

    [[nodiscard]] bool isEmpty() const { return series.empty(); }
};

/// Tab-separated, a row a point: series, x, y, the ranges, and notes; the sentence and the axes stand above
/// as lines that begin with #.
std::string graphText(const Graph &graph);

} // namespace inchpeg
