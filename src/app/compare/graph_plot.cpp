// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/graph_plot.h"

#include "app/theme/theme.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kPlotHeight = 250;
constexpr int kLeastPlotHeight = 150; ///< in a small window the rails need the room
constexpr double kBottom = 42.0;
constexpr double kRight = 24.0;
constexpr double kTop = 14.0;
constexpr double kAxisTitle = 24.0;
constexpr double kRadius = 5.0;
constexpr double kTitleGap = 12.0;
constexpr double kPointReach = 14.0; ///< of the pointer
constexpr double kCap = 4.0;         ///< at the end of a range, and of an arrow
constexpr double kArrow = 16.0;
constexpr double kKeyLine = 18.0;
constexpr double kKeySample = 30.0;
constexpr double kKeyGap = 16.0;
constexpr double kWidestKey = 330.0;
constexpr std::size_t kLongestKey = 14;
constexpr double kEdgeShare = 0.06; ///< of an axis with named places, left free at either end
constexpr int kBandAlpha = 36;

QString fromStd(const std::string &text)
{
    return QString::fromStdString(text);
}

QColor inkOf(const GraphSeries &series)
{
    const Theme &theme = currentTheme();
    return series.isReference ? theme.accent : railInk(theme, series.ink);
}

QPen linePen(const GraphSeries &series)
{
    QPen pen(inkOf(series), 1.6);
    if (const QVector<qreal> dashes = railDashes(series.ink); !dashes.isEmpty() && !series.isReference)
        pen.setDashPattern(dashes);
    return pen;
}

/// Round, square, upright or lying: told apart without ink.
void drawMark(QPainter &painter, QPointF place, int ink)
{
    constexpr int kMarks = 4;
    const double r = kRadius;
    switch (ink % kMarks) {
    case 0:
        painter.drawEllipse(place, r, r);
        break;
    case 1:
        painter.drawRect(QRectF(place.x() - r + 0.5, place.y() - r + 0.5, 2.0 * r - 1.0, 2.0 * r - 1.0));
        break;
    case 2:
        painter.drawPolygon(QPolygonF{QPointF(place.x(), place.y() - r - 1.0),
                                      QPointF(place.x() + r + 1.0, place.y() + r - 1.0),
                                      QPointF(place.x() - r - 1.0, place.y() + r - 1.0)});
        break;
    default:
        painter.drawPolygon(
            QPolygonF{QPointF(place.x(), place.y() - r - 1.0), QPointF(place.x() + r + 1.0, place.y()),
                      QPointF(place.x(), place.y() + r + 1.0), QPointF(place.x() - r - 1.0, place.y())});
        break;
    }
}

AxisScale scaleOver(std::vector<double> values, const std::vector<GraphTick> &ticks, int marks)
{
    if (ticks.empty())
        return scaleAround(values, marks);
    for (const GraphTick &tick : ticks)
        values.push_back(tick.at);
    const auto [least, most] = std::minmax_element(values.begin(), values.end());
    const double free = kEdgeShare * std::max(*most - *least, 1e-9);
    return {*least - free, *most + free, 1.0, 0};
}

} // namespace

GraphPlot::GraphPlot(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("graphPlot"));
    setMinimumHeight(kLeastPlotHeight);
    setMaximumHeight(kPlotHeight);
    setAccessibleName(tr("Graph"));
}

void GraphPlot::show(const Graph &graph, const Notation &notation)
{
    m_graph = graph;
    m_notation = notation;
    layOut();
    QStringList words;
    for (const GraphSeries &series : m_graph.series) {
        for (const GraphPoint &point : series.points) {
            if (!point.words.empty())
                words << fromStd(point.words);
        }
    }
    setAccessibleDescription(words.join(QStringLiteral("; ")));
    update();
}

QSize GraphPlot::sizeHint() const
{
    constexpr int kShare = 3; // of the window's height
    return {400, std::clamp(window()->height() / kShare, kLeastPlotHeight, kPlotHeight)};
}

void GraphPlot::layOut()
{
    std::vector<double> x;
    std::vector<double> y;
    const auto both = [](std::vector<double> &into, const std::optional<Interval> &range) {
        if (range)
            into.insert(into.end(), {range->low, range->high});
    };
    for (const GraphSeries &series : m_graph.series) {
        for (const GraphPoint &point : series.points) {
            x.push_back(point.x);
            y.push_back(point.y);
            both(x, point.xRange);
            both(y, point.yRange);
        }
    }
    m_x = scaleOver(x, m_graph.x.ticks, 8);
    m_y = scaleOver(y, m_graph.y.ticks, 5);
}

std::vector<const GraphSeries *> GraphPlot::keySeries() const
{
    std::vector<const GraphSeries *> named;
    for (const GraphSeries &series : m_graph.series) {
        const bool isDots = series.shape == GraphShape::Dots;
        if (!series.name.empty() && !isDots)
            named.push_back(&series);
    }
    return named.size() > kLongestKey ? std::vector<const GraphSeries *>() : named;
}

double GraphPlot::keyWidth() const
{
    double widest = 0.0;
    for (const GraphSeries *series : keySeries())
        widest =
            std::max(widest, static_cast<double>(fontMetrics().horizontalAdvance(fromStd(series->name))));
    return widest > 0.0 ? std::min(kWidestKey, widest + kKeySample + kKeyGap + 8.0) : 0.0;
}

QRectF GraphPlot::sheetIn(QSize size) const
{
    double labels = 0.0;
    const auto widen = [&](const QString &text) {
        labels = std::max(labels, static_cast<double>(fontMetrics().horizontalAdvance(text)));
    };
    for (const GraphTick &tick : m_graph.y.ticks)
        widen(fromStd(tick.text));
    if (m_graph.y.ticks.empty()) {
        for (const double mark : m_y.marks())
            widen(fromStd(m_notation.fixed(mark, m_y.decimals)));
    }
    const double left = kAxisTitle + labels + 18.0;
    return QRectF(left, kTop, size.width() - left - kRight - keyWidth(), size.height() - kTop - kBottom);
}

QPointF GraphPlot::placeIn(const QRectF &sheet, double x, double y) const
{
    return {sheet.left() + m_x.share(x) * sheet.width(), sheet.bottom() - m_y.share(y) * sheet.height()};
}

QPointF GraphPlot::placeOf(const GraphPoint &point) const
{
    return placeIn(sheetIn(size()), point.x, point.y);
}

void GraphPlot::paintAxes(QPainter &painter, const QRectF &sheet) const
{
    const Theme &theme = currentTheme();
    std::vector<GraphTick> xTicks = m_graph.x.ticks;
    std::vector<GraphTick> yTicks = m_graph.y.ticks;
    if (xTicks.empty()) {
        for (const double mark : m_x.marks())
            xTicks.push_back({mark, m_notation.fixed(mark, m_x.decimals)});
    }
    if (yTicks.empty()) {
        for (const double mark : m_y.marks())
            yTicks.push_back({mark, m_notation.fixed(mark, m_y.decimals)});
    }
    const double room = sheet.width() / std::max<double>(1.0, static_cast<double>(xTicks.size())) - 6.0;
    double freeFrom = -1e9;
    for (const GraphTick &tick : xTicks) {
        const double x = placeIn(sheet, tick.at, m_y.low).x();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(x, sheet.top()), QPointF(x, sheet.bottom() + 4.0));
        painter.setPen(theme.ink);
        const QString text = painter.fontMetrics().elidedText(fromStd(tick.text), Qt::ElideRight,
                                                              static_cast<int>(std::max(room, 60.0)));
        const double width = painter.fontMetrics().horizontalAdvance(text) + 4.0;
        if (x - 0.5 * width < freeFrom)
            continue; // a label on another can be read of neither
        freeFrom = x + 0.5 * width;
        painter.drawText(QRectF(x - 0.5 * width, sheet.bottom() + 4.0, width, 18.0), Qt::AlignCenter, text);
    }
    double freeAbove = 1e9;
    for (const GraphTick &tick : yTicks) {
        const double y = placeIn(sheet, m_x.low, tick.at).y();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(sheet.left() - 4.0, y), QPointF(sheet.right(), y));
        if (y > freeAbove - 14.0)
            continue;
        freeAbove = y;
        painter.setPen(theme.ink);
        painter.drawText(QRectF(0.0, y - 9.0, sheet.left() - 8.0, 18.0), Qt::AlignRight | Qt::AlignVCenter,
                         fromStd(tick.text));
    }
    painter.setPen(theme.softInk);
    painter.drawText(QRectF(sheet.left(), sheet.bottom() + 22.0, sheet.width(), 18.0), Qt::AlignCenter,
                     fromStd(m_graph.x.label));
    painter.save();
    painter.translate(14.0, sheet.center().y());
    painter.rotate(-90.0);
    painter.drawText(QRectF(-0.5 * sheet.height() - 20.0, -9.0, sheet.height() + 40.0, 18.0), Qt::AlignCenter,
                     fromStd(m_graph.y.label));
    painter.restore();
}

void GraphPlot::paintStretch(QPainter &painter, const QRectF &sheet) const
{
    if (!m_graph.stretch)
        return;
    const Theme &theme = currentTheme();
    const double low = placeIn(sheet, m_graph.stretch->low, 0.0).x();
    const double high = placeIn(sheet, m_graph.stretch->high, 0.0).x();
    const double at = placeIn(sheet, m_graph.stretch->at, 0.0).x();
    QColor wash = theme.accent;
    wash.setAlpha(kBandAlpha);
    painter.fillRect(QRectF(low, sheet.top(), high - low, sheet.height()), wash);
    painter.setPen(QPen(theme.accent, 1.2, Qt::DashLine));
    painter.drawLine(QPointF(at, sheet.top()), QPointF(at, sheet.bottom()));
    const QString words = fromStd(m_graph.stretch->words);
    const double width = painter.fontMetrics().horizontalAdvance(words) + 4.0;
    const double left = std::clamp(at + 6.0, sheet.left(), std::max(sheet.left(), sheet.right() - width));
    painter.setPen(theme.ink);
    painter.drawText(QRectF(left, sheet.bottom() - 20.0, width, 18.0), Qt::AlignLeft | Qt::AlignVCenter,
                     words);
}

void GraphPlot::paintLine(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const
{
    QPolygonF line;
    for (const GraphPoint &point : series.points) {
        const QPointF place = placeIn(sheet, point.x, point.y);
        if (series.shape == GraphShape::Steps && !line.isEmpty())
            line << QPointF(place.x(), line.last().y());
        line << place;
    }
    painter.setPen(linePen(series));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
    if (series.shape == GraphShape::Steps && series.points.back().isBound) {
        // Still going: an arrow onwards.
        const QPointF end = line.last();
        painter.setPen(QPen(inkOf(series), 1.6));
        painter.drawLine(end, end + QPointF(kArrow, 0.0));
        painter.drawPolyline(QPolygonF{end + QPointF(kArrow - kCap, -kCap), end + QPointF(kArrow, 0.0),
                                       end + QPointF(kArrow - kCap, kCap)});
    }
}

void GraphPlot::paintBand(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const
{
    QPolygonF edge;
    for (const GraphPoint &point : series.points)
        edge << placeIn(sheet, point.x, point.yRange->high);
    for (auto point = series.points.rbegin(); point != series.points.rend(); ++point)
        edge << placeIn(sheet, point->x, point->yRange->low);
    QColor wash = currentTheme().softInk;
    wash.setAlpha(kBandAlpha);
    painter.setPen(Qt::NoPen);
    painter.setBrush(wash);
    painter.drawPolygon(edge);
}

void GraphPlot::paintDots(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const
{
    const QColor ink = inkOf(series);
    for (const GraphPoint &point : series.points) {
        const QPointF place = placeIn(sheet, point.x, point.y);
        painter.setPen(QPen(ink, 1.4));
        if (point.yRange) {
            const double low = placeIn(sheet, point.x, point.yRange->low).y();
            const double high = placeIn(sheet, point.x, point.yRange->high).y();
            painter.drawLine(QPointF(place.x(), low), QPointF(place.x(), high));
            for (const double y : {low, high})
                painter.drawLine(QPointF(place.x() - kCap, y), QPointF(place.x() + kCap, y));
        }
        if (point.xRange) {
            const double low = placeIn(sheet, point.xRange->low, point.y).x();
            const double high = placeIn(sheet, point.xRange->high, point.y).x();
            painter.drawLine(QPointF(low, place.y()), QPointF(high, place.y()));
            for (const double x : {low, high})
                painter.drawLine(QPointF(x, place.y() - kCap), QPointF(x, place.y() + kCap));
        }
        if (point.isBound) {
            const QPointF tip = place - QPointF(0.0, kArrow);
            painter.drawLine(place, tip);
            painter.drawPolyline(QPolygonF{tip + QPointF(-kCap, kCap), tip, tip + QPointF(kCap, kCap)});
        }
        painter.setBrush(point.isHollow || point.isBound ? currentTheme().sheet : ink);
        drawMark(painter, place, series.ink);
        if (point.isRinged) {
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(place, kRadius + 4.0, kRadius + 4.0);
        }
    }
}

/// Beside its point, inside of the sheet, and clear of the titles that stand there already.
void GraphPlot::paintTitles(QPainter &painter, const QRectF &sheet) const
{
    std::vector<QRectF> taken;
    painter.setPen(currentTheme().ink);
    for (const GraphSeries &series : m_graph.series) {
        for (const GraphPoint &point : series.points) {
            if (point.title.empty())
                continue;
            const QPointF place = placeIn(sheet, point.x, point.y);
            const QString text = fromStd(point.title);
            const double width = painter.fontMetrics().horizontalAdvance(text) + 2.0;
            const double height = painter.fontMetrics().height();
            const bool fits = place.x() + kTitleGap + width < sheet.right() + kRight;
            QRectF title(fits ? place.x() + kTitleGap : place.x() - kTitleGap - width, place.y() - height,
                         width, height);
            const auto isTaken = [&](const QRectF &other) { return other.intersects(title); };
            while (std::any_of(taken.begin(), taken.end(), isTaken) &&
                   title.bottom() + height < sheet.bottom())
                title.translate(0.0, height);
            painter.drawText(title, Qt::AlignLeft | Qt::AlignVCenter, text);
            taken.push_back(title);
        }
    }
}

void GraphPlot::paintKey(QPainter &painter, const QRectF &sheet) const
{
    double y = sheet.top() + 4.0;
    const double left = sheet.right() + kKeyGap;
    const double width = keyWidth();
    for (const GraphSeries *series : keySeries()) {
        const double middle = y + 0.5 * kKeyLine;
        if (series->shape == GraphShape::Band) {
            QColor wash = currentTheme().softInk;
            wash.setAlpha(2 * kBandAlpha);
            painter.fillRect(QRectF(left, middle - 5.0, kKeySample - 6.0, 10.0), wash);
        } else {
            painter.setPen(linePen(*series));
            painter.drawLine(QPointF(left, middle), QPointF(left + kKeySample - 6.0, middle));
        }
        painter.setPen(currentTheme().ink);
        const double room = width - kKeySample - kKeyGap;
        painter.drawText(QRectF(left + kKeySample, y, room + 8.0, kKeyLine), Qt::AlignLeft | Qt::AlignVCenter,
                         painter.fontMetrics().elidedText(fromStd(series->name), Qt::ElideRight,
                                                          static_cast<int>(room + 8.0)));
        y += kKeyLine;
    }
}

void GraphPlot::paintGraph(QPainter &painter, QSize size) const
{
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(QRect(QPoint(0, 0), size), currentTheme().sheet);
    if (m_graph.isEmpty())
        return;
    const QRectF sheet = sheetIn(size);
    paintStretch(painter, sheet);
    paintAxes(painter, sheet);
    for (const GraphSeries &series : m_graph.series) {
        if (series.points.empty())
            continue;
        switch (series.shape) {
        case GraphShape::Dots:
            paintDots(painter, sheet, series);
            break;
        case GraphShape::Line:
        case GraphShape::Steps:
            paintLine(painter, sheet, series);
            break;
        case GraphShape::Band:
            paintBand(painter, sheet, series);
            break;
        }
    }
    paintTitles(painter, sheet);
    paintKey(painter, sheet);
}

void GraphPlot::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    paintGraph(painter, size());
}

const GraphPoint *GraphPlot::pointAt(QPointF place) const
{
    const GraphPoint *nearest = nullptr;
    double least = kPointReach;
    for (const GraphSeries &series : m_graph.series) {
        for (const GraphPoint &point : series.points) {
            const QPointF away = placeOf(point) - place;
            const double distance = std::hypot(away.x(), away.y());
            if (distance >= least || point.words.empty())
                continue;
            least = distance;
            nearest = &point;
        }
    }
    return nearest;
}

void GraphPlot::mousePressEvent(QMouseEvent *event)
{
    if (const GraphPoint *point = pointAt(event->position())) {
        const GraphPoint copy = *point; // what follows may draw another graph
        emit chosen(copy);
    }
}

bool GraphPlot::event(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    const auto *help = static_cast<QHelpEvent *>(event);
    if (const GraphPoint *point = pointAt(help->pos()))
        QToolTip::showText(help->globalPos(), fromStd(point->words), this);
    else
        QToolTip::hideText();
    return true;
}

} // namespace inchpeg::app
