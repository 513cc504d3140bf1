// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/curve_plottable.h"

#include <QLineF>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

/// A wide pen over more points than this takes longer than a frame; where so many points stand on a plot, a
/// thin one is as easy to see.
constexpr qsizetype kMostWidePoints = 1500;
constexpr qsizetype kMostJoinedPoints = 300;
constexpr qsizetype kMostDashedPoints = 4000;

/// The painter's own coordinates stay small whatever lies outside of the plot.
constexpr double kFarAway = 20000.0;

double distanceToSegment(const QPointF &p, const QPointF &a, const QPointF &b)
{
    const QPointF ab = b - a;
    const double length = QPointF::dotProduct(ab, ab);
    const double share = length > 0.0 ? std::clamp(QPointF::dotProduct(p - a, ab) / length, 0.0, 1.0) : 0.0;
    return QLineF(p, a + share * ab).length();
}

} // namespace

CurvePlottable::CurvePlottable(QCPAxis *keyAxis, QCPAxis *valueAxis)
    : QCPAbstractPlottable(keyAxis, valueAxis)
{
}

PlotWindow CurvePlottable::shownWindow() const
{
    const QCPRange x = mKeyAxis->range();
    const QCPRange y = mValueAxis->range();
    const QRect rect = mKeyAxis->axisRect()->rect();
    return {x.lower,
            x.upper,
            y.lower,
            y.upper,
            m_coarseness * x.size() / std::max(1, rect.width()),
            m_coarseness * y.size() / std::max(1, rect.height())};
}

QPolygonF CurvePlottable::pixels(const CurvePyramid &pyramid) const
{
    const std::vector<PlotPoint> points = pyramid.line(shownWindow());
    QPolygonF line;
    line.reserve(static_cast<qsizetype>(points.size()));
    for (const PlotPoint &point : points)
        line << QPointF(std::clamp(mKeyAxis->coordToPixel(point.x), -kFarAway, kFarAway),
                        std::clamp(mValueAxis->coordToPixel(point.y), -kFarAway, kFarAway));
    return line;
}

void CurvePlottable::draw(QCPPainter *painter)
{
    if (!m_shape)
        return;
    applyDefaultAntialiasingHint(painter);
    painter->setBrush(Qt::NoBrush);
    drawLine(*painter, pixels(m_shape->body()), mPen);
    if (m_tailPen.style() != Qt::NoPen)
        drawLine(*painter, pixels(m_shape->tail()), m_tailPen);
    if (m_dotRadius <= 0.0)
        return;
    painter->setPen(Qt::NoPen);
    painter->setBrush(mPen.color());
    for (const CurvePyramid *part : {&m_shape->body(), &m_shape->tail()}) {
        for (const QPointF &point : pixels(*part))
            painter->drawEllipse(point, m_dotRadius, m_dotRadius);
    }
}

void CurvePlottable::drawLine(QCPPainter &painter, const QPolygonF &line, QPen pen)
{
    if (line.size() > kMostWidePoints) {
        pen.setWidthF(1.0);
        painter.setAntialiasing(false);
        if (line.size() > kMostDashedPoints)
            pen.setStyle(Qt::SolidLine);
    }
    painter.setPen(pen);
    if (pen.widthF() <= 1.0 || line.size() <= kMostJoinedPoints) {
        painter.drawPolyline(line);
        return;
    }
    // Each stroke by itself: joining a wide line that runs over itself costs many times as much.
    QVector<QLineF> strokes;
    strokes.reserve(line.size());
    for (qsizetype i = 1; i < line.size(); ++i)
        strokes << QLineF(line[i - 1], line[i]);
    painter.drawLines(strokes);
}

double CurvePlottable::selectTest(const QPointF &position, bool, QVariant *) const
{
    if (!m_shape)
        return -1.0;
    const QPolygonF line = pixels(m_shape->body());
    double nearest = -1.0;
    for (qsizetype i = 1; i < line.size(); ++i) {
        const double distance = distanceToSegment(position, line[i - 1], line[i]);
        nearest = nearest < 0.0 ? distance : std::min(nearest, distance);
    }
    return nearest;
}

QCPRange CurvePlottable::getKeyRange(bool &found, QCP::SignDomain) const
{
    found = m_shape && m_shape->body().size() > 0;
    if (!found)
        return {};
    const PlotWindow whole = m_shape->body().wholeWindow();
    return {whole.left, whole.right};
}

QCPRange CurvePlottable::getValueRange(bool &found, QCP::SignDomain, const QCPRange &) const
{
    found = m_shape && m_shape->body().size() > 0;
    if (!found)
        return {};
    const PlotWindow whole = m_shape->body().wholeWindow();
    return {whole.bottom, whole.top};
}

} // namespace inchpeg::app
