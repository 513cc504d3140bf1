// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/shape_drawing.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kMargin = 30.0;
constexpr double kEndGap = 64.0; ///< between the view from above and that from the end

/// A dimension line between two points with its length written on it.
void paintDimension(QPainter &painter, QPointF from, QPointF to, const QString &text, const Theme &theme)
{
    painter.setPen(QPen(theme.softInk, 1.0));
    painter.drawLine(from, to);
    const bool level = std::abs(from.y() - to.y()) < std::abs(from.x() - to.x());
    const QPointF tick = level ? QPointF(0.0, 4.0) : QPointF(4.0, 0.0);
    for (const QPointF &end : {from, to})
        painter.drawLine(end - tick, end + tick);
    const QFontMetricsF metrics(painter.font());
    const QPointF middle = 0.5 * (from + to);
    const double width = metrics.horizontalAdvance(text) + 6.0;
    const QRectF box = level ? QRectF(middle.x() - 0.5 * width, middle.y() - 8.0, width, 16.0)
                             : QRectF(middle.x() + 6.0, middle.y() - 8.0, width, 16.0);
    painter.fillRect(box, theme.sheet);
    painter.setPen(theme.ink);
    painter.drawText(box, Qt::AlignCenter, text);
}

QPainterPath pathOf(const SpecimenShape &shape, QPointF centre, double scale)
{
    QPainterPath path;
    bool first = true;
    for (const PlanePoint &point : outlineOf(shape)) {
        const QPointF at = centre + QPointF(point.x_mm * scale, -point.y_mm * scale);
        first ? path.moveTo(at) : path.lineTo(at);
        first = false;
    }
    path.closeSubpath();
    if (shape.family == ShapeFamily::Core)
        path.addEllipse(centre, 0.5 * shape.holeDiameter_mm * scale, 0.5 * shape.holeDiameter_mm * scale);
    return path;
}

double across_mm(const SpecimenShape &shape)
{
    return std::max(shape.width_mm, shape.endWidth_mm);
}

} // namespace

double paintShape(QPainter &painter, QRectF room, const SpecimenShape &shape, const Theme &theme,
                  double penWidth)
{
    const double scale = std::min(room.width() / shape.length_mm, room.height() / across_mm(shape));
    painter.setPen(QPen(theme.ink, penWidth));
    painter.setBrush(theme.rail);
    painter.drawPath(pathOf(shape, room.center(), scale));
    return scale;
}

ShapeDrawing::ShapeDrawing(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("shapeDrawing"));
    setAccessibleName(tr("Drawing of the specimen"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
}

void ShapeDrawing::set(const SpecimenShape &shape, const Notation &notation)
{
    m_shape = shape;
    m_notation = notation;
    setAccessibleDescription(QString::fromStdString(shape.name + " " + shape.standard));
    update();
}

void ShapeDrawing::paintEvent(QPaintEvent *)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme.sheet);
    if (!(m_shape.length_mm > 0.0))
        return;
    QFont small = font();
    small.setPointSizeF(0.9 * small.pointSizeF());
    painter.setFont(small);
    const auto length = [this](double mm) {
        const Unit unit = m_notation.unitOf(Dimension::Length);
        return QString::fromStdString(m_notation.plain(unit.fromWorking(mm), 4)) + QLatin1Char(' ') +
               QString::fromUtf8(unit.symbol);
    };
    const bool round = isRound(m_shape);
    const double endWidth = round ? across_mm(m_shape) : m_shape.thickness_mm;
    // One scale for both views: the end is seen to the right of the piece.
    const double widthRoom = width() - 2.0 * kMargin - kEndGap - 52.0;
    const double heightRoom = height() - 2.0 * kMargin;
    const double scale =
        std::min(widthRoom / (m_shape.length_mm + endWidth), heightRoom / across_mm(m_shape));
    const QPointF centre(kMargin + 0.5 * m_shape.length_mm * scale, 0.5 * height() - 4.0);
    const double halfLength = 0.5 * m_shape.length_mm * scale;
    const double halfAcross = 0.5 * across_mm(m_shape) * scale;
    painter.setPen(QPen(theme.ink, 1.5));
    painter.setBrush(theme.rail);
    painter.drawPath(pathOf(m_shape, centre, scale));

    const QPointF endCentre(centre.x() + halfLength + kEndGap + 0.5 * endWidth * scale, centre.y());
    const double w = 0.5 * m_shape.width_mm * scale;
    if (round) {
        painter.drawEllipse(endCentre, 0.5 * across_mm(m_shape) * scale, 0.5 * across_mm(m_shape) * scale);
        painter.drawEllipse(endCentre, w, w);
    } else {
        const double t = 0.5 * m_shape.thickness_mm * scale;
        painter.drawRect(QRectF(endCentre.x() - t, endCentre.y() - halfAcross, 2.0 * t, 2.0 * halfAcross));
        painter.setBrush(theme.hole);
        painter.drawRect(
            QRectF(endCentre.x() - t, endCentre.y() - w, 2.0 * t, 2.0 * w - m_shape.notchDepth_mm * scale));
    }
    const double below = centre.y() + halfAcross + 18.0;
    paintDimension(painter, {centre.x() - halfLength, below}, {centre.x() + halfLength, below},
                   length(m_shape.length_mm), theme);
    if (m_shape.parallel_mm > 0.0 || m_shape.span_mm > 0.0) {
        const double half = 0.5 * (m_shape.parallel_mm > 0.0 ? m_shape.parallel_mm : m_shape.span_mm) * scale;
        const double above = centre.y() - halfAcross - 14.0;
        const QString word = m_shape.parallel_mm > 0.0 ? length(m_shape.parallel_mm)
                                                       : tr("span %1").arg(length(m_shape.span_mm));
        paintDimension(painter, {centre.x() - half, above}, {centre.x() + half, above}, word, theme);
    }
    const double beside = endCentre.x() + 0.5 * endWidth * scale + 12.0;
    paintDimension(painter, {beside, endCentre.y() - w}, {beside, endCentre.y() + w},
                   (round ? QStringLiteral("⌀ ") : QString()) + length(m_shape.width_mm), theme);
    if (!round && m_shape.thickness_mm > 0.0) {
        const double t = 0.5 * m_shape.thickness_mm * scale;
        painter.setPen(theme.ink);
        painter.drawText(QRectF(endCentre.x() - 50.0, endCentre.y() + halfAcross + 8.0, 100.0, 18.0),
                         Qt::AlignCenter, length(m_shape.thickness_mm));
        painter.setPen(QPen(theme.softInk, 1.0));
        painter.drawLine(QPointF(endCentre.x() - t, endCentre.y() + halfAcross + 5.0),
                         QPointF(endCentre.x() + t, endCentre.y() + halfAcross + 5.0));
    }
    painter.setPen(theme.softInk);
    painter.drawText(QRectF(8.0, height() - 18.0, width() - 16.0, 16.0), Qt::AlignRight,
                     tr("%1 : 1 on this screen").arg(scale / (logicalDpiX() / 25.4), 0, 'f', 1));
}

} // namespace inchpeg::app
