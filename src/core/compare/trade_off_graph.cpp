// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/trade_off_graph.h"

#include "core/compare/comparison_graphs.h"
#include "core/compare/scaled_words.h"
#include "core/compare/verdict.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// "27.0 MPa (25.6 to 28.4, 5 pieces)".
std::string meanWords(const StudyComparison &comparison, const TradeOffPoint &point, const Notation &notation)
{
    const double half = point.ci ? 0.5 * (point.ci->high - point.ci->low) : 0.0;
    const auto text = [&](double value) {
        return propertyValueText(comparison.property, value,
                                 propertyDecimals(comparison.property, half, notation), notation);
    };
    const std::string interval =
        point.ci ? fmt::format("{} to {}, ", text(point.ci->low), text(point.ci->high)) : std::string();
    return fmt::format("{}{} ({}{} piece{})", point.atLeast ? "at least " : "", text(point.mean), interval,
                       point.pieces, point.pieces == 1 ? "" : "s");
}

/// Rails as points, and the front as a line below them. x: of a point.
Graph graphOf(const Study &study, const StudyComparison &comparison, const TradeOff &found,
              const std::function<double(const TradeOffPoint &)> &x, const Notation &notation)
{
    const Unit unit = notation.unitOf(comparison.property.dimension);
    Graph graph;
    graph.y.label = axisLabel(comparison.property, notation);
    GraphSeries front{"", GraphShape::Line, 0, false, {}};
    for (const std::size_t place : found.front)
        front.points.push_back({x(found.points[place]), unit.fromWorking(found.points[place].mean)});
    if (front.points.size() > 1)
        graph.series.push_back(std::move(front));
    for (std::size_t i = 0; i < found.points.size(); ++i) {
        const TradeOffPoint &point = found.points[i];
        GraphPoint drawn{x(point), unit.fromWorking(point.mean)};
        if (point.ci)
            drawn.yRange = Interval{unit.fromWorking(point.ci->low), unit.fromWorking(point.ci->high)};
        drawn.isHollow = !point.isOnFront && comparison.property.better != Better::Neither;
        drawn.isRinged = found.knee == i;
        drawn.isBound = point.atLeast;
        drawn.title = distinctTitle(study, *findCondition(study, point.condition));
        drawn.rail = point.condition;
        drawn.words = fmt::format("{}: {}", drawn.title, meanWords(comparison, point, notation));
        graph.series.push_back({"",
                                GraphShape::Dots,
                                railPlace(study, point.condition),
                                point.condition == study.reference,
                                {std::move(drawn)}});
    }
    return graph;
}

} // namespace

Graph tradeOffGraph(const Study &study, const StudyComparison &comparison, std::span<const RailCost> costs,
                    const std::string &costLabel, const std::function<std::string(double)> &costText,
                    const Notation &notation)
{
    const TradeOff found = tradeOff(study, comparison, costs);
    Graph graph = graphOf(
        study, comparison, found, [](const TradeOffPoint &point) { return point.cost; }, notation);
    graph.x.label = costLabel;
    graph.sentence = tradeOffText(study, comparison, found, costText, notation);
    if (graph.sentence.empty() && found.points.size() < 2)
        graph.sentence = "Two rails with a result are wanted.";
    for (const TradeOffPoint &point : found.points) {
        for (GraphSeries &series : graph.series) {
            if (series.shape == GraphShape::Dots && series.points.front().rail == point.condition)
                series.points.front().words += fmt::format(", {} ({})", costText(point.cost),
                                                           point.costIsMeasured ? "weighed" : "estimated");
        }
    }
    return graph;
}

Graph twoResponsesGraph(const Study &study, const StudyComparison &comparison, const StudyComparison &over,
                        const Notation &notation)
{
    const bool moreIsBetter = over.property.better == Better::Higher;
    std::vector<RailCost> costs;
    for (const RailComparison &rail : over.rails) {
        if (rail.summary.mean)
            costs.push_back({rail.condition, moreIsBetter ? -*rail.summary.mean : *rail.summary.mean, true});
    }
    TradeOff found = tradeOff(study, comparison, costs);
    found.knee.reset(); // how much of one is worth the other is for a person to say
    const bool hasFront = over.property.better != Better::Neither && !found.front.empty();
    if (!hasFront)
        found.front.clear();
    const Unit unit = notation.unitOf(over.property.dimension);
    Graph graph = graphOf(
        study, comparison, found,
        [&](const TradeOffPoint &point) { return unit.fromWorking(moreIsBetter ? -point.cost : point.cost); },
        notation);
    graph.x.label = axisLabel(over.property, notation);
    for (GraphSeries &series : graph.series) {
        GraphPoint &point = series.points.front();
        if (series.shape != GraphShape::Dots)
            continue;
        point.isHollow = point.isHollow && hasFront;
        for (const RailComparison &rail : over.rails) {
            if (rail.condition != point.rail)
                continue;
            if (rail.summary.ci)
                point.xRange =
                    Interval{unit.fromWorking(rail.summary.ci->low), unit.fromWorking(rail.summary.ci->high)};
            point.words += fmt::format("; {} {}", over.property.label,
                                       notation.quantity(*rail.summary.mean, unit.dimension, 3));
        }
    }
    std::vector<std::string> names;
    for (const std::size_t place : found.front)
        names.push_back(distinctTitle(study, *findCondition(study, found.points[place].condition)));
    graph.sentence = found.points.size() < 2 ? "Two rails with a result are wanted."
                     : names.empty()         ? "Which way is better is not said of both, so none is beaten."
                     : names.size() == found.points.size()
                         ? "By their means no rail is beaten in both."
                         : fmt::format("By their means not beaten in both: {}.", listText(names));
    return graph;
}

} // namespace inchpeg
