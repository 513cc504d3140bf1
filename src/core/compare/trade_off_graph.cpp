// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/trade_off_graph.h"

#include "core/compare/comparison_graphs.h"
#include "core/compare/scaled_words.h"
#include "core/compare/verdict.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

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
        drawn.isHollow =
            !point.isOnFront && !point.mayBeOnFront && comparison.property.better != Better::Neither;
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
                    const CostWords &words, const Notation &notation)
{
    const TradeOff found = tradeOff(study, comparison, costs);
    Graph graph = graphOf(
        study, comparison, found, [](const TradeOffPoint &point) { return point.cost; }, notation);
    graph.x.label = words.label;
    graph.sentence = tradeOffText(study, comparison, found, words, notation);
    if (graph.sentence.empty() && found.points.size() < 2)
        graph.sentence = "Two rails with a result are wanted.";
    for (const TradeOffPoint &point : found.points) {
        for (GraphSeries &series : graph.series) {
            if (series.shape == GraphShape::Dots && series.points.front().rail == point.condition)
                series.points.front().words += fmt::format(", {} ({})", words.text(point.cost),
                                                           point.costIsMeasured ? "weighed" : "estimated");
        }
    }
    return graph;
}

namespace
{

/// What several responses say of a rail, each so that more is better.
struct Gains {
    ConditionId rail;
    std::vector<double> values;
};

std::optional<double> gainOf(const StudyComparison &comparison, ConditionId rail)
{
    for (const RailComparison &one : comparison.rails) {
        if (one.condition == rail && one.summary.mean)
            return comparison.property.better == Better::Lower ? -*one.summary.mean : *one.summary.mean;
    }
    return std::nullopt;
}

/// Of these rails those with a value in each response that none other equals or beats in all of them.
std::vector<ConditionId> notBeaten(const std::vector<TradeOffPoint> &rails, const StudyComparison &first,
                                   std::span<const StudyComparison *const> others)
{
    std::vector<Gains> all;
    for (const TradeOffPoint &rail : rails) {
        Gains gains{rail.condition, {}};
        std::optional<double> value = gainOf(first, rail.condition);
        for (std::size_t i = 0; value && i <= others.size(); ++i) {
            gains.values.push_back(*value);
            value = i < others.size() ? gainOf(*others[i], rail.condition) : std::nullopt;
        }
        if (gains.values.size() == others.size() + 1)
            all.push_back(std::move(gains));
    }
    std::vector<ConditionId> left;
    for (const Gains &one : all) {
        const bool isBeaten = std::any_of(all.begin(), all.end(), [&](const Gains &other) {
            const bool isAsGood = std::equal(one.values.begin(), one.values.end(), other.values.begin(),
                                             [](double mine, double theirs) { return theirs >= mine; });
            return isAsGood && other.values != one.values;
        });
        if (!isBeaten)
            left.push_back(one.rail);
    }
    return left;
}

/// The second response and its interval at the points of a graph, and the third in their words.
void addResponses(Graph &graph, const StudyComparison &over, const StudyComparison *third,
                  const Notation &notation)
{
    const Unit unit = notation.unitOf(over.property.dimension);
    for (GraphSeries &series : graph.series) {
        if (series.shape != GraphShape::Dots)
            continue;
        GraphPoint &point = series.points.front();
        const auto said = [&](const StudyComparison &comparison) -> const RailComparison * {
            for (const RailComparison &rail : comparison.rails) {
                if (rail.condition == point.rail && rail.summary.mean)
                    return &rail;
            }
            return nullptr;
        };
        if (const RailComparison *rail = said(over)) {
            if (rail->summary.ci)
                point.xRange = Interval{unit.fromWorking(rail->summary.ci->low),
                                        unit.fromWorking(rail->summary.ci->high)};
            point.words += fmt::format("; {} {}", over.property.label,
                                       notation.quantity(*rail->summary.mean, unit.dimension, 3));
        }
        if (const RailComparison *rail = third != nullptr ? said(*third) : nullptr) {
            const std::string value = notation.quantity(*rail->summary.mean, third->property.dimension, 3);
            point.title += ": " + value;
            point.words += fmt::format("; {} {}", third->property.label, value);
        }
    }
}

} // namespace

Graph responsesGraph(const Study &study, const StudyComparison &comparison, const StudyComparison &over,
                     const StudyComparison *third, const Notation &notation)
{
    const bool moreIsBetter = over.property.better == Better::Higher;
    std::vector<RailCost> costs;
    for (const RailComparison &rail : over.rails) {
        if (rail.summary.mean)
            costs.push_back({rail.condition, moreIsBetter ? -*rail.summary.mean : *rail.summary.mean, true});
    }
    TradeOff found = tradeOff(study, comparison, costs);
    std::vector<const StudyComparison *> others{&over};
    if (third != nullptr)
        others.push_back(third);
    const bool hasFront =
        !found.front.empty() && std::none_of(others.begin(), others.end(), [](const StudyComparison *one) {
            return one->property.better == Better::Neither;
        });
    if (!hasFront || third != nullptr) { // a front in three directions is no line
        found.front.clear();
        found.knee.reset();
    }
    const std::vector<ConditionId> best =
        hasFront ? notBeaten(found.points, comparison, others) : std::vector<ConditionId>{};
    const auto isBest = [&](ConditionId rail) {
        return std::find(best.begin(), best.end(), rail) != best.end();
    };
    for (TradeOffPoint &point : found.points)
        point.isOnFront = isBest(point.condition);
    const Unit unit = notation.unitOf(over.property.dimension);
    Graph graph = graphOf(
        study, comparison, found,
        [&](const TradeOffPoint &point) { return unit.fromWorking(moreIsBetter ? -point.cost : point.cost); },
        notation);
    graph.x.label = axisLabel(over.property, notation);
    addResponses(graph, over, third, notation);
    std::vector<std::string> names;
    for (const TradeOffPoint &point : found.points) {
        if (point.isOnFront)
            names.push_back(distinctTitle(study, *findCondition(study, point.condition)));
    }
    for (GraphSeries &series : graph.series) {
        for (GraphPoint &point : series.points)
            point.isHollow = point.isHollow && hasFront;
    }
    const std::string_view both = third != nullptr ? "all three" : "both";
    graph.sentence = found.points.size() < 2 ? "Two rails with a result are wanted."
                     : names.empty()
                         ? fmt::format("Which way is better is not said of {}, so none is beaten.", both)
                     : names.size() == found.points.size()
                         ? fmt::format("By their means no rail is beaten in {}.", both)
                         : fmt::format("By their means not beaten in {}: {}.", both, listText(names));
    if (third != nullptr)
        graph.sentence += fmt::format(" Beside each: {}.", axisLabel(third->property, notation));
    if (found.knee) {
        const auto step = [&](std::size_t from, std::size_t to) {
            const TradeOffPoint &a = found.points[from];
            const TradeOffPoint &b = found.points[to];
            const double gain = std::abs(b.mean - a.mean);
            const double loss = std::abs(b.cost - a.cost);
            return fmt::format(
                "{} for {}",
                propertyDifferenceText(comparison.property, gain,
                                       propertyDecimals(comparison.property, gain / 10.0, notation),
                                       notation),
                propertyDifferenceText(over.property, loss,
                                       propertyDecimals(over.property, loss / 10.0, notation), notation));
        };
        graph.sentence +=
            fmt::format(" The front bends at {}: up to it {}, beyond it {}.",
                        distinctTitle(study, *findCondition(study, found.points[*found.knee].condition)),
                        step(found.front.front(), *found.knee), step(*found.knee, found.front.back()));
    }
    return graph;
}

} // namespace inchpeg
