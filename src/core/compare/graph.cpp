// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/graph.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

std::string edge(const std::optional<Interval> &range, double Interval::*which)
{
    return range ? fmt::format("{}", (*range).*which) : std::string();
}

const char *shapeName(GraphShape shape)
{
    switch (shape) {
    case GraphShape::Dots:
        return "points";
    case GraphShape::Line:
        return "line";
    case GraphShape::Steps:
        return "steps";
    case GraphShape::Band:
        return "band";
    }
    return "";
}

std::string axisText(const char *name, const GraphAxis &axis)
{
    std::string text = fmt::format("# {}: {}", name, axis.label);
    for (const GraphTick &tick : axis.ticks)
        text += fmt::format("; {} is {}", tick.at, tick.text);
    return text + "\n";
}

} // namespace

std::string graphText(const Graph &graph)
{
    std::string text = "# " + graph.sentence + "\n" + axisText("x", graph.x) + axisText("y", graph.y);
    if (graph.stretch)
        text += fmt::format("# {}\n", graph.stretch->words);
    text += "series\tdrawn as\tx\ty\tx low\tx high\ty low\ty high\tbound\n";
    for (const GraphSeries &series : graph.series) {
        for (const GraphPoint &point : series.points) {
            const std::string &name = series.name.empty() ? point.title : series.name;
            text += fmt::format("{}\t{}\t{}\t{}\t{}\t{}\t{}\t{}\t{}\n", name, shapeName(series.shape),
                                point.x, point.y, edge(point.xRange, &Interval::low),
                                edge(point.xRange, &Interval::high), edge(point.yRange, &Interval::low),
                                edge(point.yRange, &Interval::high), point.isBound ? "at least" : "");
        }
    }
    return text;
}

} // namespace inchpeg
