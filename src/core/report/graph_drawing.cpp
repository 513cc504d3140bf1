// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/graph_drawing.h"

#include "core/report/rails_drawing.h"
#include "core/text/axis_scale.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kLeft = 62.0;
constexpr double kBelow = 38.0;
constexpr double kAbove = 10.0;
constexpr double kGraphHeight = 270.0;
constexpr double kKeyRoom = 150.0;
constexpr double kGraphFont = 10.0;
constexpr double kTitleFont = 8.5; ///< beside a point
constexpr double kDot = 3.6;
constexpr double kRoom = 0.06; ///< of an axis with named places, free at either end
constexpr int kInks = 4;

/// A field of two axes inside a drawing.
struct Axes {
    AxisScale x;
    AxisScale y;
    double left = 0.0;
    double top = 0.0;
    double width = 0.0;
    double height = 0.0;

    [[nodiscard]] DrawnPoint at(double valueX, double valueY) const
    {
        return {left + x.share(valueX) * width, top + (1.0 - y.share(valueY)) * height};
    }
};

AxisScale scaleOf(std::vector<double> values, const std::vector<GraphTick> &ticks)
{
    if (ticks.empty())
        return scaleAround(values, 6);
    for (const GraphTick &tick : ticks)
        values.push_back(tick.at);
    const auto [least, most] = std::minmax_element(values.begin(), values.end());
    const double free = kRoom * std::max(*most - *least, 1e-9);
    return {*least - free, *most + free, 1.0, 0};
}

/// The stretch of the values themselves, with the round marks that lie in it: small panels have no room to
/// spare.
AxisScale tightScale(const std::vector<double> &values, GraphAxis &axis, const Notation &notation)
{
    constexpr double kFree = 0.02;
    AxisScale scale = scaleAround(values, 4);
    const std::vector<double> marks = scale.marks();
    const auto [least, most] = std::minmax_element(values.begin(), values.end());
    const double free = kFree * std::max(*most - *least, 1e-9);
    scale.low = std::max(scale.low, *least - free);
    scale.high = std::min(scale.high, *most + free);
    for (const double mark : marks) {
        if (mark >= scale.low && mark <= scale.high)
            axis.ticks.push_back({mark, notation.fixed(mark, scale.decimals)});
    }
    return scale;
}

void drawAxis(Drawing &drawing, const Axes &axes, const GraphAxis &axis, bool isX, const Notation &notation)
{
    const AxisScale &scale = isX ? axes.x : axes.y;
    std::vector<GraphTick> ticks = axis.ticks;
    if (ticks.empty()) {
        for (const double mark : scale.marks())
            ticks.push_back({mark, notation.fixed(mark, scale.decimals)});
    }
    const double foot = axes.top + axes.height;
    for (const GraphTick &tick : ticks) {
        const DrawnPoint at = isX ? axes.at(tick.at, axes.y.low) : axes.at(axes.x.low, tick.at);
        if (isX) {
            drawing.line({at.x, axes.top}, {at.x, foot + 3.0}, 0.5, Ink::Pale);
            const double room = axes.width / static_cast<double>(std::max<std::size_t>(1, ticks.size()));
            drawing.shapes.emplace_back(
                DrawnText{{at.x, foot + 14.0}, fitted(tick.text, 9.0, room), 9.0, Anchor::Middle});
        } else {
            drawing.line({axes.left - 3.0, at.y}, {axes.left + axes.width, at.y}, 0.5, Ink::Pale);
            drawing.shapes.emplace_back(
                DrawnText{{axes.left - 6.0, at.y + 3.0}, tick.text, 9.0, Anchor::End});
        }
    }
    if (isX)
        drawing.shapes.emplace_back(
            DrawnText{{axes.left + axes.width / 2.0, foot + 30.0}, axis.label, kGraphFont, Anchor::Middle});
    else {
        const std::vector<std::string> lines = wrapped(axis.label, kGraphFont, axes.height + 24.0, 2);
        double x = axes.left - 34.0 - 12.0 * static_cast<double>(lines.size() - 1);
        for (const std::string &line : lines) {
            drawing.shapes.emplace_back(DrawnText{{x, axes.top + axes.height / 2.0},
                                                  line,
                                                  kGraphFont,
                                                  Anchor::Middle,
                                                  false,
                                                  Ink::Black,
                                                  true});
            x += 12.0;
        }
    }
}

void drawMark(Drawing &drawing, DrawnPoint at, int ink, bool isHollow, double size = kDot)
{
    const std::optional<Ink> fill = isHollow ? Ink::White : Ink::Accent;
    const auto polygon = [&](std::vector<DrawnPoint> points) {
        drawing.shapes.emplace_back(DrawnPath{std::move(points), 1.2, Ink::Accent, true, Dash::None, fill});
    };
    switch (ink % kInks) {
    case 0:
        drawing.shapes.emplace_back(DrawnCircle{at, size, 1.2, Ink::Accent, fill});
        break;
    case 1:
        polygon({{at.x - size, at.y - size},
                 {at.x + size, at.y - size},
                 {at.x + size, at.y + size},
                 {at.x - size, at.y + size}});
        break;
    case 2:
        polygon(
            {{at.x, at.y - size - 1.0}, {at.x + size + 1.0, at.y + size}, {at.x - size - 1.0, at.y + size}});
        break;
    default:
        polygon({{at.x, at.y - size - 1.0},
                 {at.x + size + 1.0, at.y},
                 {at.x, at.y + size + 1.0},
                 {at.x - size - 1.0, at.y}});
    }
}

Dash dashOf(const GraphSeries &series)
{
    constexpr int kDashes = 4;
    return series.isReference ? Dash::None : static_cast<Dash>(series.ink % kDashes);
}

class SeriesDrawer
{
public:
    SeriesDrawer(Drawing &drawing, const Axes &axes) : m_drawing(drawing), m_axes(axes) {}

    void draw(const GraphSeries &series)
    {
        switch (series.shape) {
        case GraphShape::Dots:
            dots(series);
            return;
        case GraphShape::Line:
            path(series, false);
            return;
        case GraphShape::Steps:
            path(series, true);
            return;
        case GraphShape::Band:
            band(series);
            return;
        }
    }

    /// Once all points are there: each title beside its point, on the side where there is room; where two
    /// would meet, that of the lower point goes lower.
    void titles()
    {
        constexpr double kBeside = 8.0;
        constexpr double kSteps[] = {-5.0, 8.0, 18.0, 28.0}; // down from the point
        struct Box {
            double left = 0.0;
            double base = 0.0;
            double width = 0.0;
        };
        std::vector<Box> taken;
        const auto isFree = [&taken](const Box &box) {
            return std::none_of(taken.begin(), taken.end(), [&box](const Box &other) {
                return std::abs(box.base - other.base) < kTitleFont && box.left < other.left + other.width &&
                       other.left < box.left + box.width;
            });
        };
        std::stable_sort(m_titles.begin(), m_titles.end(),
                         [](const Title &a, const Title &b) { return a.at.y < b.at.y; });
        for (const Title &title : m_titles) {
            const double width = roughWidth(title.text, kTitleFont);
            const bool isRight = title.at.x + kBeside + width <= m_axes.left + m_axes.width;
            Box box{isRight ? title.at.x + kBeside : title.at.x - kBeside - width, 0.0, width};
            for (const double step : kSteps) {
                box.base = title.at.y + step;
                if (isFree(box))
                    break;
            }
            taken.push_back(box);
            m_drawing.shapes.emplace_back(DrawnText{{isRight ? box.left : box.left + width, box.base},
                                                    title.text,
                                                    kTitleFont,
                                                    isRight ? Anchor::Start : Anchor::End,
                                                    false,
                                                    Ink::Grey});
        }
    }

private:
    void dots(const GraphSeries &series)
    {
        for (const GraphPoint &point : series.points) {
            const DrawnPoint at = m_axes.at(point.x, point.y);
            if (point.xRange)
                m_drawing.line(m_axes.at(point.xRange->low, point.y), m_axes.at(point.xRange->high, point.y),
                               1.0, Ink::Grey);
            if (point.yRange)
                m_drawing.line(m_axes.at(point.x, point.yRange->low), m_axes.at(point.x, point.yRange->high),
                               1.0, Ink::Grey);
            if (point.isRinged)
                m_drawing.shapes.emplace_back(DrawnCircle{at, 2.2 * kDot, 1.2, Ink::Black, {}});
            if (point.isBound)
                m_drawing.shapes.emplace_back(
                    DrawnPath{{{at.x - 3.0, at.y - 9.0}, {at.x, at.y - 13.0}, {at.x + 3.0, at.y - 9.0}},
                              1.2,
                              Ink::Black});
            drawMark(m_drawing, at, series.ink, point.isHollow);
            if (!point.title.empty())
                m_titles.push_back({at, fitted(point.title, kTitleFont, 150.0)});
        }
    }
    void path(const GraphSeries &series, bool isStepped)
    {
        DrawnPath line{{},
                       series.isReference ? 1.8 : 1.3,
                       series.isReference ? Ink::Black : Ink::Accent,
                       false,
                       dashOf(series),
                       {}};
        for (std::size_t i = 0; i < series.points.size(); ++i) {
            const GraphPoint &point = series.points[i];
            if (isStepped && i > 0)
                line.points.push_back(m_axes.at(point.x, series.points[i - 1].y));
            line.points.push_back(m_axes.at(point.x, point.y));
        }
        m_drawing.shapes.emplace_back(std::move(line));
    }
    void band(const GraphSeries &series)
    {
        DrawnPath edge{{}, 0.0, Ink::Pale, true, Dash::None, Ink::Pale};
        for (const GraphPoint &point : series.points)
            edge.points.push_back(m_axes.at(point.x, point.yRange ? point.yRange->low : point.y));
        for (auto point = series.points.rbegin(); point != series.points.rend(); ++point)
            edge.points.push_back(m_axes.at(point->x, point->yRange ? point->yRange->high : point->y));
        m_drawing.shapes.emplace_back(std::move(edge));
    }

    struct Title {
        DrawnPoint at; ///< its point
        std::string text;
    };

    Drawing &m_drawing;
    const Axes &m_axes;
    std::vector<Title> m_titles;
};

void drawKey(Drawing &drawing, const Graph &graph, double left)
{
    double y = kAbove + 10.0;
    for (const GraphSeries &series : graph.series) {
        if (series.name.empty())
            continue;
        if (y > kGraphHeight - kBelow) // the rest is told by the table
            break;
        if (series.shape == GraphShape::Dots)
            drawMark(drawing, {left + 9.0, y - 3.0}, series.ink, false);
        else if (series.shape == GraphShape::Band)
            drawing.rectangle({left, y - 7.0}, 18.0, 8.0, Ink::Pale);
        else
            drawing.line({left, y - 3.0}, {left + 18.0, y - 3.0}, 1.4,
                         series.isReference ? Ink::Black : Ink::Accent, dashOf(series));
        for (const std::string &line : wrapped(series.name, 9.0, kKeyRoom - 26.0, 3)) {
            drawing.shapes.emplace_back(DrawnText{{left + 24.0, y}, line, 9.0});
            y += 12.0;
        }
        y += 4.0;
    }
}

/// What the panels of a test's records have in common.
struct Panels {
    std::vector<ConditionId> rails;
    std::vector<double> x;
    std::vector<double> y;
    PictureAxis xAxis;
    PictureAxis yAxis;
};

/// Readings that are only numbered, first, second, third, make no curve.
bool isDrawn(const CurveOutline &outline)
{
    return outline.x.size() > 1 && !(outline.isPoints && outline.xAxis.dimension == Dimension::Number);
}

Panels panelsOf(const Study &study, const PieceReadings &readings, Method test)
{
    Panels panels;
    for (const Condition &condition : study.conditions) {
        bool any = false;
        for (const Piece *piece : piecesOf(study, condition.id)) {
            const PieceReading *reading = piece->test == test ? readingOf(readings, piece->id) : nullptr;
            if (reading == nullptr || !isDrawn(reading->outline))
                continue;
            any = true;
            panels.x.insert(panels.x.end(), reading->outline.x.begin(), reading->outline.x.end());
            panels.y.insert(panels.y.end(), reading->outline.y.begin(), reading->outline.y.end());
            panels.xAxis = reading->outline.xAxis;
            panels.yAxis = reading->outline.yAxis;
        }
        if (any)
            panels.rails.push_back(condition.id);
    }
    return panels;
}

void drawRecord(Drawing &drawing, const Axes &axes, const CurveOutline &outline, bool counts,
                const Unit &xUnit, const Unit &yUnit)
{
    DrawnPath line{{}, 0.8, counts ? Ink::Accent : Ink::Grey, false, counts ? Dash::None : Dash::Long, {}};
    const std::size_t end =
        outline.breakAt > 0 ? std::min(outline.breakAt + 1, outline.x.size()) : outline.x.size();
    DrawnPoint last{-1e9, -1e9};
    for (std::size_t i = 0; i < end; ++i) {
        const DrawnPoint at = axes.at(xUnit.fromWorking(outline.x[i]), yUnit.fromWorking(outline.y[i]));
        // Closer points than paper shows only make the file large.
        if (i + 1 < end && std::hypot(at.x - last.x, at.y - last.y) < 0.5)
            continue;
        line.points.push_back(at);
        last = at;
        if (outline.isPoints)
            drawing.shapes.emplace_back(DrawnCircle{at, 1.6, 0.8, line.ink, line.ink});
    }
    drawing.shapes.emplace_back(std::move(line));
}

} // namespace

Drawing graphDrawing(const Graph &graph, const Notation &notation)
{
    Drawing drawing;
    if (graph.isEmpty())
        return drawing;
    drawing.width = kDrawingWidth;
    drawing.height = kGraphHeight;
    std::vector<double> x;
    std::vector<double> y;
    bool hasKey = false;
    for (const GraphSeries &series : graph.series) {
        hasKey = hasKey || !series.name.empty();
        for (const GraphPoint &point : series.points) {
            x.insert(x.end(), {point.x, point.xRange ? point.xRange->low : point.x,
                               point.xRange ? point.xRange->high : point.x});
            y.insert(y.end(), {point.y, point.yRange ? point.yRange->low : point.y,
                               point.yRange ? point.yRange->high : point.y});
        }
    }
    const double keyRoom = hasKey ? kKeyRoom : 20.0;
    const Axes axes{scaleOf(x, graph.x.ticks),       scaleOf(y, graph.y.ticks),     kLeft, kAbove,
                    kDrawingWidth - kLeft - keyRoom, kGraphHeight - kAbove - kBelow};
    if (graph.stretch) {
        const double low = std::clamp(graph.stretch->low, axes.x.low, axes.x.high);
        const double high = std::clamp(graph.stretch->high, axes.x.low, axes.x.high);
        const DrawnPoint corner = axes.at(low, axes.y.high);
        drawing.rectangle(corner, axes.at(high, axes.y.high).x - corner.x, axes.height, Ink::Pale);
        drawing.line(axes.at(graph.stretch->at, axes.y.low), axes.at(graph.stretch->at, axes.y.high), 1.0,
                     Ink::Black, Dash::Long);
    }
    drawAxis(drawing, axes, graph.x, true, notation);
    drawAxis(drawing, axes, graph.y, false, notation);
    drawing.rectangle({axes.left, axes.top}, axes.width, axes.height, {}, 0.8, Ink::Grey);
    SeriesDrawer drawer(drawing, axes);
    for (const GraphSeries &series : graph.series)
        drawer.draw(series);
    drawer.titles();
    if (hasKey)
        drawKey(drawing, graph, kDrawingWidth - keyRoom + 12.0);
    return drawing;
}

CurvesDrawing curvesDrawing(const Study &study, const PieceReadings &readings, Method test,
                            const Notation &notation, std::size_t mostRails)
{
    constexpr std::size_t kAcross = 3;
    constexpr double kPanelHeight = 150.0;
    constexpr double kPanelTitle = 16.0;
    Panels panels = panelsOf(study, readings, test);
    CurvesDrawing made;
    if (panels.rails.empty())
        return made;
    if (panels.rails.size() > mostRails) {
        made.leftOut = panels.rails.size() - mostRails;
        panels.rails.resize(mostRails);
    }
    const Unit xUnit =
        axisUnit(panels.xAxis.dimension, *std::max_element(panels.x.begin(), panels.x.end()), notation);
    const Unit yUnit = notation.unitOf(panels.yAxis.dimension);
    std::transform(panels.x.begin(), panels.x.end(), panels.x.begin(),
                   [&](double v) { return xUnit.fromWorking(v); });
    std::transform(panels.y.begin(), panels.y.end(), panels.y.begin(),
                   [&](double v) { return yUnit.fromWorking(v); });
    const std::size_t across = std::min(kAcross, panels.rails.size());
    const std::size_t rows = (panels.rails.size() + across - 1) / across;
    const double wide = kDrawingWidth / static_cast<double>(across);
    made.drawing.width = kDrawingWidth;
    made.drawing.height = kPanelHeight * static_cast<double>(rows);
    GraphAxis xAxis{headingIn(panels.xAxis.label, xUnit), {}};
    GraphAxis yAxis{headingIn(panels.yAxis.label, yUnit), {}};
    const AxisScale xScale = tightScale(panels.x, xAxis, notation);
    const AxisScale yScale = tightScale(panels.y, yAxis, notation);
    for (std::size_t i = 0; i < panels.rails.size(); ++i) {
        const double left = wide * static_cast<double>(i % across);
        const double top = kPanelHeight * static_cast<double>(i / across);
        const Axes axes{xScale,
                        yScale,
                        left + kLeft,
                        top + kPanelTitle,
                        wide - kLeft - 12.0,
                        kPanelHeight - kPanelTitle - kBelow};
        const Condition &condition = *findCondition(study, panels.rails[i]);
        made.drawing.shapes.emplace_back(
            DrawnText{{axes.left, top + 12.0},
                      fitted(distinctTitle(study, condition), kGraphFont, axes.width),
                      kGraphFont,
                      Anchor::Start,
                      condition.id == study.reference});
        drawAxis(made.drawing, axes, xAxis, true, notation);
        drawAxis(made.drawing, axes, yAxis, false, notation);
        made.drawing.rectangle({axes.left, axes.top}, axes.width, axes.height, {}, 0.8, Ink::Grey);
        for (const Piece *piece : piecesOf(study, condition.id)) {
            const PieceReading *reading = piece->test == test ? readingOf(readings, piece->id) : nullptr;
            if (reading != nullptr && isDrawn(reading->outline))
                drawRecord(made.drawing, axes, reading->outline, !piece->exclusion, xUnit, yUnit);
        }
    }
    return made;
}

} // namespace inchpeg
