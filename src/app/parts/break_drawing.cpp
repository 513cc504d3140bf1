// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/break_drawing.h"

#include <QPainter>
#include <QPolygonF>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

void useInk(QPainter &painter, SketchInk ink, const Theme &theme)
{
    painter.setBrush(theme.rail);
    painter.setPen(QPen(theme.ink, 1.2));
    switch (ink) {
    case SketchInk::Piece:
        break;
    case SketchInk::Tool:
        painter.setBrush(theme.ink);
        break;
    case SketchInk::Bore:
        painter.setBrush(theme.sheet);
        break;
    case SketchInk::Edge:
        painter.setPen(QPen(theme.ink, 0.8));
        break;
    case SketchInk::Layer:
        painter.setPen(QPen(theme.softInk, 0.6));
        break;
    case SketchInk::Load:
        painter.setPen(QPen(theme.accent, 1.6));
        break;
    }
}

bool isFilled(SketchInk ink)
{
    return ink == SketchInk::Piece || ink == SketchInk::Tool || ink == SketchInk::Bore;
}

} // namespace

void paintBreak(QPainter &painter, QRectF place, const BreakLook &look, const Theme &theme)
{
    if (look.sketch == nullptr)
        return;
    BreakSketch sketch;
    look.sketch(sketch);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const double scale = std::min(place.width(), place.height()) / kSketchSide;
    painter.translate(place.center() - QPointF(0.5 * kSketchSide * scale, 0.5 * kSketchSide * scale));
    painter.scale(scale, scale);
    for (const SketchStroke &stroke : sketch.strokes()) {
        useInk(painter, stroke.ink, theme);
        QPolygonF points;
        for (const SketchPoint &point : stroke.points)
            points << QPointF(point.x, point.y);
        isFilled(stroke.ink) ? painter.drawPolygon(points) : painter.drawPolyline(points);
    }
    painter.restore();
}

} // namespace inchpeg::app
