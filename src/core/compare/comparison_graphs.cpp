// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/comparison_graphs.h"

#include "core/compare/compared_rails.h"
#include "core/compare/factor_effects.h"
#include "core/compare/procedure_text.h"
#include "core/compare/scaled_words.h"
#include "core/compare/shape_along_levels.h"
#include "core/compare/verdict.h"
#include "core/stats/distributions.h"
#include "core/stats/survival.h"
#include "core/stats/trend.h"
#include "core/stats/weibull.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace inchpeg
{

namespace
{

constexpr int kCurvePlaces = 81;
constexpr std::size_t kLeastLevelsDrawn = 3;
constexpr std::size_t kLeastBroken = 3; ///< for a distribution of a rail

class Graphs
{
public:
    Graphs(const Study &study, const StudyComparison &comparison, const Notation &notation)
        : m_study(study), m_comparison(comparison), m_notation(notation),
          m_unit(notation.unitOf(comparison.property.dimension))
    {
    }

    [[nodiscard]] std::vector<GraphSeries> bandAndLine(const std::vector<TrendPoint> &curve,
                                                       const std::string &name, double confidence) const;
    [[nodiscard]] GraphSeries throughMeans(const ComparedRails &compared) const;
    [[nodiscard]] Graph trend() const;
    [[nodiscard]] Graph interaction() const;
    [[nodiscard]] double meanOnScale(const std::vector<double> &scaled) const;
    [[nodiscard]] Graph pairs() const;
    [[nodiscard]] Graph weibull() const;
    [[nodiscard]] Graph survival() const;

private:
    [[nodiscard]] double shown(double value) const { return m_unit.fromWorking(value); }
    /// A value on the scale of the procedure.
    [[nodiscard]] double shownScaled(double value) const
    {
        return shown(m_comparison.asRatio ? std::exp(value) : value);
    }
    [[nodiscard]] std::string label() const { return axisLabel(m_comparison.property, m_notation); }
    [[nodiscard]] std::string valueText(double value) const
    {
        return m_notation.quantity(value, m_unit.dimension, 3);
    }
    /// Another orientation answers another question.
    [[nodiscard]] bool isPrintedLikeReference(const RailComparison &rail) const
    {
        return findCondition(m_study, rail.condition)->orientation ==
               findCondition(m_study, m_study.reference)->orientation;
    }
    [[nodiscard]] std::string titleOf(const RailComparison &rail) const
    {
        return distinctTitle(m_study, *findCondition(m_study, rail.condition));
    }
    [[nodiscard]] GraphPoint pieceAt(double x, const RailComparison &rail, const PieceValue &value) const
    {
        GraphPoint point{x, shown(value.value)};
        point.isHollow = !value.counts();
        point.isBound = value.atLeast;
        point.piece = value.piece;
        point.rail = rail.condition;
        point.words = fmt::format("{}: {}{}{}", findPiece(m_study, value.piece)->code,
                                  value.atLeast ? "at least " : "", valueText(value.value),
                                  value.leftOut   ? ", left out"
                                  : value.isApart ? ", broke otherwise"
                                                  : "");
        return point;
    }
    [[nodiscard]] static std::vector<BoundedValue> boundedOf(const RailComparison &rail)
    {
        std::vector<BoundedValue> values;
        for (const PieceValue &value : rail.values) {
            if (value.counts())
                values.push_back({value.value, value.atLeast});
        }
        return values;
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const Notation &m_notation;
    Unit m_unit;
};

Graph nothing(std::string why)
{
    Graph graph;
    graph.sentence = std::move(why);
    return graph;
}

/// The level of the one factor of a study, as a number.
std::optional<double> levelOf(const Study &study, const RailComparison &rail)
{
    if (study.factors.size() != 1)
        return std::nullopt;
    return parseTypedNumber(findCondition(study, rail.condition)->levels.front());
}

std::vector<GraphSeries> Graphs::bandAndLine(const std::vector<TrendPoint> &curve, const std::string &name,
                                             double confidence) const
{
    GraphSeries band{"", GraphShape::Band, 0, false, {}};
    GraphSeries line{name, GraphShape::Line, 0, false, {}};
    for (const TrendPoint &point : curve) {
        line.points.push_back({point.x, shownScaled(point.value)});
        if (!point.band)
            continue;
        GraphPoint edges{point.x, shownScaled(point.value)};
        edges.yRange = Interval{shownScaled(point.band->low), shownScaled(point.band->high)};
        band.points.push_back(edges);
    }
    band.name = fmt::format("holds the whole curve, {}", confidenceText(confidence, m_notation));
    return {band, line};
}

GraphSeries Graphs::throughMeans(const ComparedRails &compared) const
{
    std::map<double, double> means;
    for (std::size_t rail = 0; rail < compared.groups.size(); ++rail)
        means[compared.levels[rail]] = meanOf(compared.groups[rail].values);
    GraphSeries line{"means of the levels", GraphShape::Line, 0, false, {}};
    for (const auto &[level, mean] : means)
        line.points.push_back({level, shownScaled(mean)});
    return line;
}

Graph Graphs::trend() const
{
    const ComparedRails compared = comparedRails(m_study, m_comparison);
    if (compared.levels.size() < kLeastLevelsDrawn || !compared.isUsable())
        return nothing("A trend wants three rails or more whose levels are numbers.");
    Graph graph;
    const Factor &factor = m_study.factors.front();
    graph.x.label = factor.unit.empty() ? factor.name : fmt::format("{} in {}", factor.name, factor.unit);
    graph.y.label = label();
    std::vector<double> x;
    std::vector<double> y;
    for (std::size_t rail = 0; rail < compared.groups.size(); ++rail) {
        for (const double value : compared.groups[rail].values) {
            x.push_back(compared.levels[rail]);
            y.push_back(value);
        }
    }
    const double confidence = m_comparison.claimConfidence();
    const std::optional<LevelShape> shape = shapeAlongLevels(m_comparison, compared);
    const bool isStraight = !shape || !shape->changePerEnds;
    const Result<Trend> bent = fitTrend(x, y, 2, confidence);
    const bool isParabola = !isStraight && bent && bent->lackOfFit && bent->lackOfFit->p >= 1.0 - confidence;
    if (isStraight || isParabola) {
        const Result<std::vector<TrendPoint>> curve =
            trendCurve(x, y, isParabola ? 2 : 1, kCurvePlaces, confidence);
        if (!curve)
            return nothing(curve.error().message);
        graph.series = bandAndLine(*curve, isParabola ? "parabola" : "straight line", confidence);
    } else {
        graph.series = {throughMeans(compared)};
    }
    for (const RailComparison &rail : m_comparison.rails) {
        const std::optional<double> level = levelOf(m_study, rail);
        if (!level || !isPrintedLikeReference(rail))
            continue;
        GraphSeries dots{"", GraphShape::Dots, railPlace(m_study, rail.condition), rail.isReference, {}};
        for (const PieceValue &value : rail.values)
            dots.points.push_back(pieceAt(*level, rail, value));
        graph.series.push_back(std::move(dots));
    }
    graph.sentence = isStraight ? "No bend is shown: a straight line through all pieces."
                     : isParabola
                         ? "The values bend: a parabola through all pieces."
                         : "Neither a straight line nor a parabola is shown to fit: the means of the "
                           "levels are joined.";
    if (shape && shape->kind == LevelShape::Kind::Turn) {
        const auto text = [&](double at) { return levelText(factor, m_notation.significant(at, 3)); };
        graph.stretch =
            GraphStretch{shape->where.low, shape->where.high, shape->at,
                         fmt::format("{} near {} ({} to {})", shape->isMaximum ? "Highest" : "Lowest",
                                     text(shape->at), text(shape->where.low), text(shape->where.high))};
    }
    return graph;
}

/// Where logarithms are compared, that of the mean that every table shows, not the mean of the logarithms.
double Graphs::meanOnScale(const std::vector<double> &scaled) const
{
    if (!m_comparison.asRatio)
        return meanOf(scaled);
    double sum = 0.0;
    for (const double value : scaled)
        sum += std::exp(value);
    return std::log(sum / static_cast<double>(scaled.size()));
}

Graph Graphs::interaction() const
{
    const std::optional<FactorEffects> effects = factorEffects(m_study, m_comparison);
    if (!effects)
        return nothing("Two factors whose levels cross, with two pieces on a rail, are wanted.");
    Graph graph;
    graph.x.label = m_study.factors[effects->factors[0]].name;
    graph.y.label = label();
    const std::vector<std::string> &along = effects->levels[0];
    for (std::size_t i = 0; i < along.size(); ++i)
        graph.x.ticks.push_back({static_cast<double>(i), along[i]});
    std::map<std::vector<std::size_t>, std::vector<std::vector<double>>> lines;
    for (const FactorialValue &value : effects->values) {
        std::vector<std::size_t> others(value.levels.begin() + 1, value.levels.end());
        auto &cells = lines[others];
        cells.resize(along.size());
        cells[value.levels[0]].push_back(value.value);
    }
    const FactorialTerm &residual = effects->anova.residual;
    const double t = studentQuantile(0.5 + 0.5 * m_comparison.confidence, residual.df);
    int ink = 0;
    for (const auto &[others, cells] : lines) {
        std::string name;
        for (std::size_t f = 0; f < others.size(); ++f)
            name +=
                fmt::format("{}{} {}", name.empty() ? "" : " · ",
                            m_study.factors[effects->factors[f + 1]].name, effects->levels[f + 1][others[f]]);
        GraphSeries line{name, GraphShape::Line, ink, false, {}};
        GraphSeries dots{"", GraphShape::Dots, ink, false, {}};
        const double aside = 0.03 * (ink - 0.5 * (static_cast<double>(lines.size()) - 1.0));
        for (std::size_t i = 0; i < cells.size(); ++i) {
            if (cells[i].empty())
                continue;
            const double mean = meanOnScale(cells[i]);
            const double half = t * std::sqrt(*residual.meanSquare / static_cast<double>(cells[i].size()));
            GraphPoint point{static_cast<double>(i) + aside, shownScaled(mean)};
            line.points.push_back(point);
            point.yRange = Interval{shownScaled(mean - half), shownScaled(mean + half)};
            point.words =
                fmt::format("{} · {}: {} ({} pieces)", along[i], name,
                            valueText(m_comparison.asRatio ? std::exp(mean) : mean), cells[i].size());
            dots.points.push_back(std::move(point));
        }
        graph.series.push_back(std::move(line));
        graph.series.push_back(std::move(dots));
        ++ink;
    }
    graph.sentence = fmt::format(
        "Means with their {} intervals, each by itself, by the common {}scatter. Lines that "
        "run alike mean that the factors do not hang on each other.",
        confidenceText(m_comparison.confidence, m_notation), m_comparison.asRatio ? "relative " : "");
    return graph;
}

Graph Graphs::pairs() const
{
    Graph graph;
    graph.y.label = label();
    const auto reference = std::find_if(m_comparison.rails.begin(), m_comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    double at = 0.0;
    for (const RailComparison &rail : m_comparison.rails) {
        if (rail.pairs.empty())
            continue;
        graph.x.ticks.push_back({at, titleOf(*reference)});
        graph.x.ticks.push_back({at + 1.0, titleOf(rail)});
        for (const PiecePair &pair : rail.pairs) {
            GraphSeries line{"", GraphShape::Line, railPlace(m_study, rail.condition), false, {}};
            GraphSeries dots{"", GraphShape::Dots, railPlace(m_study, rail.condition), false, {}};
            const std::string &code = findPiece(m_study, pair.piece)->code;
            for (const auto &[x, value] : {std::pair(at, pair.before), std::pair(at + 1.0, pair.after)}) {
                GraphPoint point{x, shown(value)};
                line.points.push_back(point);
                point.piece = pair.piece;
                point.rail = rail.condition;
                point.words = fmt::format("{}: {}", code, valueText(value));
                dots.points.push_back(std::move(point));
            }
            line.name = dots.name = code;
            graph.series.push_back(std::move(line));
            graph.series.push_back(std::move(dots));
        }
        at += 2.0;
    }
    if (graph.isEmpty())
        return nothing("The plan compares no pieces before and after, or no piece has both values.");
    graph.sentence = "A line a piece: pieces of the same place on their rails belong together.";
    return graph;
}

/// Shares that had failed, at each value that is no bound: median ranks (Benard), bounds by Johnson's
/// adjusted ranks.
std::vector<std::pair<double, double>> failedShares(std::vector<BoundedValue> values)
{
    std::stable_sort(values.begin(), values.end(), [](const BoundedValue &a, const BoundedValue &b) {
        return a.value < b.value || (a.value == b.value && !a.isLowerBound && b.isLowerBound);
    });
    const auto n = static_cast<double>(values.size());
    std::vector<std::pair<double, double>> shares;
    double rank = 0.0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (values[i].isLowerBound)
            continue;
        const double left = n - static_cast<double>(i);
        rank += (n + 1.0 - rank) / (1.0 + left);
        shares.emplace_back(values[i].value, (rank - 0.3) / (n + 0.4));
    }
    return shares;
}

std::vector<GraphTick> logarithmicTicks(double low, double high, const Notation &notation)
{
    std::vector<GraphTick> ticks;
    if (!(low > 0.0) || !(high > low))
        return ticks;
    // 1, 2, 5 over decades; where that leaves fewer than three, equal steps.
    for (double decade = std::pow(10.0, std::floor(std::log10(low))); decade <= high; decade *= 10.0) {
        for (const double times : {1.0, 2.0, 5.0}) {
            const double value = decade * times;
            if (value >= low && value <= high)
                ticks.push_back({std::log(value), notation.significant(value, 3)});
        }
    }
    if (ticks.size() >= 3)
        return ticks;
    ticks.clear();
    constexpr double kMostTicks = 8.0;
    const double rough = (high - low) / kMostTicks;
    const double power = std::pow(10.0, std::floor(std::log10(rough)));
    const double step = power * (rough > 5.0 * power ? 10.0 : rough > 2.0 * power ? 5.0 : 2.0);
    for (double value = std::ceil(low / step) * step; value <= high; value += step)
        ticks.push_back({std::log(value), notation.significant(value, 3)});
    return ticks;
}

double weibullPlace(double share)
{
    return std::log(-std::log1p(-share));
}

Graph Graphs::weibull() const
{
    Graph graph;
    graph.x.label = label();
    graph.y.label = "Failed, %";
    for (const double percent : {1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 80.0, 90.0, 95.0, 99.0})
        graph.y.ticks.push_back({weibullPlace(0.01 * percent), m_notation.plain(percent)});
    double least = 0.0;
    double most = 0.0;
    for (const RailComparison &rail : m_comparison.rails) {
        const std::vector<BoundedValue> values = boundedOf(rail);
        const Result<WeibullFit> fit = fitWeibull(values, m_comparison.confidence);
        if (!fit || fit->n - fit->bounds < kLeastBroken || !isPrintedLikeReference(rail))
            continue;
        const std::vector<std::pair<double, double>> shares = failedShares(values);
        GraphSeries dots{"", GraphShape::Dots, railPlace(m_study, rail.condition), rail.isReference, {}};
        for (const auto &[value, share] : shares) {
            GraphPoint point{std::log(shown(value)), weibullPlace(share)};
            point.words = fmt::format("{}: {} % failed at {}", titleOf(rail),
                                      m_notation.fixed(100.0 * share, 0), valueText(value));
            point.rail = rail.condition;
            dots.points.push_back(std::move(point));
        }
        GraphSeries line{fmt::format("{}: shape {}, {} of {} broke", titleOf(rail),
                                     m_notation.significant(fit->shape.value, 2), fit->n - fit->bounds,
                                     fit->n),
                         GraphShape::Line,
                         railPlace(m_study, rail.condition),
                         rail.isReference,
                         {}};
        for (const double y : {weibullPlace(0.02), weibullPlace(0.98)})
            line.points.push_back(
                {std::log(shown(fit->scale.value)) + y / fit->shape.value, y}); // m (ln x - ln scale) = y
        for (const GraphPoint &point : line.points) {
            least = graph.isEmpty() && least == 0.0 ? point.x : std::min(least, point.x);
            most = graph.isEmpty() && most == 0.0 ? point.x : std::max(most, point.x);
        }
        graph.series.push_back(std::move(line));
        graph.series.push_back(std::move(dots));
    }
    if (graph.isEmpty())
        return nothing("A rail with three broken pieces or more, of values above 0, is wanted.");
    graph.x.ticks = logarithmicTicks(std::exp(least), std::exp(most), m_notation);
    graph.sentence =
        "On Weibull's paper: points on a straight line are Weibull's, a steeper line scatters less. "
        "Bounds count, and have no point of their own.";
    return graph;
}

Graph Graphs::survival() const
{
    Graph graph;
    graph.x.label = label();
    graph.y.label = "Go beyond, %";
    std::vector<BoundedGroup> groups;
    for (const RailComparison &rail : m_comparison.rails) {
        const std::vector<BoundedValue> values = boundedOf(rail);
        const SurvivalCurve curve = survivalCurve(values);
        if (curve.n == 0 || !isPrintedLikeReference(rail))
            continue;
        groups.push_back({titleOf(rail), values});
        GraphSeries steps{
            titleOf(rail), GraphShape::Steps, railPlace(m_study, rail.condition), rail.isReference, {}};
        steps.points.push_back({0.0, 100.0});
        for (const SurvivalStep &step : curve.steps) {
            GraphPoint point{shown(step.value), 100.0 * step.survival};
            point.words = fmt::format("{}: {} % go beyond {}", titleOf(rail),
                                      m_notation.fixed(100.0 * step.survival, 0), valueText(step.value));
            point.rail = rail.condition;
            steps.points.push_back(std::move(point));
        }
        double furthest = steps.points.back().x;
        for (const BoundedValue &value : values)
            furthest = std::max(furthest, shown(value.value));
        GraphPoint end{furthest, steps.points.back().y};
        end.isBound = end.y > 0.0;
        steps.points.push_back(end);
        graph.series.push_back(std::move(steps));
    }
    if (graph.isEmpty())
        return nothing("A rail with a result is wanted.");
    // From just below the weakest piece: a strength is never near 0.
    double least = std::numeric_limits<double>::infinity();
    for (const GraphSeries &steps : graph.series)
        least = std::min(least, steps.points[1].x);
    double most = least;
    for (const GraphSeries &steps : graph.series)
        most = std::max(most, steps.points.back().x);
    for (GraphSeries &steps : graph.series)
        steps.points.front().x = std::max(std::min(0.0, least), least - 0.1 * (most - least));
    const std::optional<ChiSquaredTest> test = logRank(groups);
    graph.sentence = "Share of the pieces that go beyond a value, bounds counted (Kaplan and Meier).";
    if (test)
        graph.sentence += fmt::format(
            " {} (log-rank test of all rails, p {}).",
            test->p < 1.0 - m_comparison.claimConfidence() ? "The rails differ" : "No difference is shown",
            test->p < 1e-4 ? "below " + m_notation.plain(0.0001) : m_notation.significant(test->p, 2));
    return graph;
}

} // namespace

std::string axisLabel(const Property &property, const Notation &notation)
{
    const Unit unit = notation.unitOf(property.dimension);
    return unit.symbol.empty() || unit.symbol == "1" ? std::string(property.label)
                                                     : fmt::format("{} in {}", property.label, unit.symbol);
}

std::string_view graphName(ComparisonGraph kind)
{
    switch (kind) {
    case ComparisonGraph::Trend:
        return "trend over the levels";
    case ComparisonGraph::Interaction:
        return "factors together";
    case ComparisonGraph::Pairs:
        return "before and after";
    case ComparisonGraph::Weibull:
        return "shares failed, Weibull";
    case ComparisonGraph::Survival:
        return "shares that go beyond";
    }
    throw ContractViolation("unknown graph");
}

std::vector<ComparisonGraph> graphsFor(const Study &study, const StudyComparison &comparison)
{
    std::vector<ComparisonGraph> kinds;
    const bool hasBounds = std::any_of(comparison.rails.begin(), comparison.rails.end(),
                                       [](const RailComparison &rail) { return rail.bounds > 0; });
    const bool hasPairs = std::any_of(comparison.rails.begin(), comparison.rails.end(),
                                      [](const RailComparison &rail) { return !rail.pairs.empty(); });
    const bool hasEnough =
        std::any_of(comparison.rails.begin(), comparison.rails.end(), [](const RailComparison &rail) {
            return !rail.told && rail.summary.n >= kLeastBroken && rail.summary.n - rail.bounds >= 2;
        });
    if (hasPairs)
        kinds.push_back(ComparisonGraph::Pairs);
    if (hasBounds)
        kinds.push_back(ComparisonGraph::Survival);
    if (comparedRails(study, comparison).levels.size() >= kLeastLevelsDrawn)
        kinds.push_back(ComparisonGraph::Trend);
    if (factorEffects(study, comparison))
        kinds.push_back(ComparisonGraph::Interaction);
    if (hasEnough && !hasBounds)
        kinds.push_back(ComparisonGraph::Survival);
    if (hasEnough)
        kinds.push_back(ComparisonGraph::Weibull);
    return kinds;
}

Graph comparisonGraph(ComparisonGraph kind, const Study &study, const StudyComparison &comparison,
                      const Notation &notation)
{
    const Graphs graphs(study, comparison, notation);
    switch (kind) {
    case ComparisonGraph::Trend:
        return graphs.trend();
    case ComparisonGraph::Interaction:
        return graphs.interaction();
    case ComparisonGraph::Pairs:
        return graphs.pairs();
    case ComparisonGraph::Weibull:
        return graphs.weibull();
    case ComparisonGraph::Survival:
        return graphs.survival();
    }
    throw ContractViolation("unknown graph");
}

} // namespace inchpeg
