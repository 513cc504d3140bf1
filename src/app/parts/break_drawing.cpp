// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/break_drawing.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace inchpeg::app
{

namespace
{

/// Drawn in a square of 40 × 40; the piece stands upright between x = 14 and 26.
constexpr double kDrawingSide = 40.0;
constexpr double kPieceLeft = 14.0;
constexpr double kPieceRight = 26.0;
constexpr double kPieceMiddle = 20.0;
constexpr double kBreakGap = 3.0;

class BreakPainter
{
public:
    BreakPainter(QPainter &painter, const Theme &theme) : m_painter(painter), m_theme(theme)
    {
        m_painter.setPen(QPen(theme.ink, 1.2));
        m_painter.setBrush(theme.rail);
    }

    /// Two halves whose faces follow the points, y counted from the middle.
    void halves(const std::vector<QPointF> &face, double at = kPieceMiddle, double top = 2.0)
    {
        QPainterPath upper(QPointF(kPieceLeft, top));
        upper.lineTo(kPieceRight, top);
        QPainterPath lower(QPointF(kPieceLeft, kDrawingSide - 2.0));
        lower.lineTo(kPieceRight, kDrawingSide - 2.0);
        for (auto point = face.rbegin(); point != face.rend(); ++point) {
            upper.lineTo(kPieceLeft + point->x() * (kPieceRight - kPieceLeft),
                         at - 0.5 * kBreakGap + point->y());
            lower.lineTo(kPieceLeft + point->x() * (kPieceRight - kPieceLeft),
                         at + 0.5 * kBreakGap + point->y());
        }
        upper.closeSubpath();
        lower.closeSubpath();
        m_painter.drawPath(upper);
        m_painter.drawPath(lower);
    }

    void layers(double from, double to)
    {
        m_painter.setPen(QPen(m_theme.softInk, 0.6));
        for (double y = from; y <= to; y += 4.0)
            m_painter.drawLine(QPointF(kPieceLeft + 1.0, y), QPointF(kPieceRight - 1.0, y));
        m_painter.setPen(QPen(m_theme.ink, 1.2));
    }

    void jaws()
    {
        m_painter.setBrush(m_theme.ink);
        m_painter.drawRect(QRectF(8.0, 1.0, 6.0, 13.0));
        m_painter.drawRect(QRectF(26.0, 1.0, 6.0, 13.0));
        m_painter.setBrush(m_theme.rail);
    }

    void arrow(QPointF from, QPointF to)
    {
        m_painter.setPen(QPen(m_theme.accent, 1.6));
        m_painter.drawLine(from, to);
        const double d = to.y() > from.y() ? -3.5 : 3.5;
        m_painter.drawLine(to, to + QPointF(-3.0, d));
        m_painter.drawLine(to, to + QPointF(3.0, d));
        m_painter.setPen(QPen(m_theme.ink, 1.2));
    }

    void neck()
    {
        for (const double side : {-1.0, 1.0}) {
            const double end = side < 0.0 ? 2.0 : kDrawingSide - 2.0;
            QPainterPath half(QPointF(kPieceLeft, end));
            half.lineTo(kPieceRight, end);
            half.lineTo(kPieceRight, kPieceMiddle + side * 10.0);
            half.quadTo(kPieceRight - 3.5, kPieceMiddle + side * 5.0, kPieceRight - 4.0,
                        kPieceMiddle + side * 1.5);
            half.lineTo(kPieceLeft + 4.0, kPieceMiddle + side * 1.5);
            half.quadTo(kPieceLeft + 3.5, kPieceMiddle + side * 5.0, kPieceLeft, kPieceMiddle + side * 10.0);
            half.closeSubpath();
            m_painter.drawPath(half);
        }
    }

    void whiteStretch()
    {
        halves({{0.0, 0.0}, {0.5, 1.5}, {1.0, -1.0}});
        m_painter.setPen(QPen(m_theme.ink, 0.8));
        for (double y = kPieceMiddle - 9.0; y <= kPieceMiddle + 9.0; y += 3.0) {
            if (std::abs(y - kPieceMiddle) > 2.5)
                m_painter.drawLine(QPointF(kPieceLeft, y + 2.0), QPointF(kPieceRight, y - 2.0));
        }
    }

    void lyingBar(double breakAt)
    {
        const double top = 16.0;
        m_painter.drawRect(QRectF(3.0, top, breakAt - 4.5, 7.0));
        m_painter.drawRect(QRectF(breakAt + 1.5, top, kDrawingSide - 4.5 - breakAt, 7.0));
        supports();
    }

    void bentBar()
    {
        QPainterPath bar(QPointF(3.0, 14.0));
        bar.quadTo(kPieceMiddle, 32.0, kDrawingSide - 3.0, 14.0);
        bar.lineTo(kDrawingSide - 3.0, 20.0);
        bar.quadTo(kPieceMiddle, 39.0, 3.0, 20.0);
        bar.closeSubpath();
        m_painter.drawPath(bar);
        arrow({kPieceMiddle, 5.0}, {kPieceMiddle, 19.0});
    }

    void supports()
    {
        m_painter.setBrush(m_theme.ink);
        for (const double x : {6.0, kDrawingSide - 6.0})
            m_painter.drawPolygon(QPolygonF({{x, 24.0}, {x - 4.0, 32.0}, {x + 4.0, 32.0}}));
        m_painter.setBrush(m_theme.rail);
    }

    void hole()
    {
        m_painter.setBrush(m_theme.sheet);
        m_painter.drawEllipse(QPointF(kPieceMiddle, kPieceMiddle), 3.5, 3.5);
    }

    /// A block with its bore, seen in section; what sits in the bore stands above it by this much.
    void boredBlock(double outBy, double wallOut = 0.0)
    {
        for (const double left : {4.0, 25.0})
            m_painter.drawRect(QRectF(left, 16.0, 11.0, 20.0));
        m_painter.drawRect(QRectF(15.0, 30.0, 10.0, 6.0));
        if (wallOut > 0.0)
            m_painter.drawRect(QRectF(11.5, 16.0 - outBy, 17.0, 12.0));
        m_painter.setBrush(m_theme.ink);
        m_painter.drawRect(QRectF(15.0, 16.0 - outBy, 10.0, 12.0));
        m_painter.setBrush(m_theme.rail);
        arrow({kPieceMiddle, 13.0 - outBy}, {kPieceMiddle, 2.0});
    }

    void lidOff()
    {
        m_painter.drawRect(QRectF(4.0, 20.0, 32.0, 16.0));
        m_painter.drawRect(QRectF(4.0, 9.0, 32.0, 6.0));
        m_painter.setBrush(m_theme.ink);
        m_painter.drawRect(QRectF(14.0, 14.0, 12.0, 4.0));
        m_painter.setBrush(m_theme.rail);
    }

    void screw(bool isBroken)
    {
        m_painter.drawRect(QRectF(4.0, 18.0, 32.0, 18.0));
        m_painter.setBrush(m_theme.sheet);
        m_painter.drawRect(QRectF(15.0, 18.0, 10.0, 15.0));
        m_painter.setBrush(m_theme.rail);
        if (isBroken) {
            m_painter.drawRect(QRectF(16.5, 23.0, 7.0, 10.0));
            m_painter.drawRect(QRectF(16.5, 5.0, 7.0, 9.0));
            return;
        }
        for (double y = 4.0; y <= 16.0; y += 3.0) // the screw with what it tore along
            m_painter.drawPolygon(QPolygonF(
                {{15.0, y}, {25.0, y}, {27.0, y + 1.5}, {25.0, y + 3.0}, {15.0, y + 3.0}, {13.0, y + 1.5}}));
    }

    void splitBlock()
    {
        m_painter.drawPolygon(QPolygonF({{4.0, 6.0}, {17.0, 6.0}, {20.0, 36.0}, {4.0, 36.0}}));
        m_painter.drawPolygon(QPolygonF({{36.0, 6.0}, {23.0, 6.0}, {20.0, 36.0}, {36.0, 36.0}}));
    }

    void roundedSocket()
    {
        m_painter.drawEllipse(QPointF(kPieceMiddle, kPieceMiddle), 16.0, 16.0);
        m_painter.setBrush(m_theme.sheet);
        m_painter.drawEllipse(QPointF(kPieceMiddle, kPieceMiddle), 9.0, 9.0);
        m_painter.setBrush(m_theme.ink);
        QPolygonF hexagon;
        for (int i = 0; i < 6; ++i) {
            const double angle = 0.3 + i * std::acos(-1.0) / 3.0;
            hexagon << QPointF(kPieceMiddle + 7.0 * std::cos(angle), kPieceMiddle + 7.0 * std::sin(angle));
        }
        m_painter.drawPolygon(hexagon);
        m_painter.setBrush(m_theme.rail);
    }

    void shearedPin()
    {
        m_painter.drawRect(QRectF(3.0, 12.0, 10.0, 12.0));
        m_painter.drawRect(QRectF(14.5, 18.0, 11.0, 12.0));
        m_painter.drawRect(QRectF(27.0, 12.0, 10.0, 12.0));
        arrow({kPieceMiddle, 3.0}, {kPieceMiddle, 15.0});
    }

    void probed(bool isThrough)
    {
        QPainterPath block;
        block.addRect(QRectF(4.0, 17.0, 32.0, 19.0));
        QPainterPath dent;
        if (isThrough)
            dent.addRect(QRectF(16.0, 17.0, 8.0, 19.0));
        else
            dent.addEllipse(QPointF(kPieceMiddle, 17.0), 13.0, 9.0);
        m_painter.drawPath(block.subtracted(dent));
        m_painter.setBrush(m_theme.ink);
        m_painter.drawRect(QRectF(17.5, 2.0, 5.0, isThrough ? 30.0 : 22.0));
        m_painter.setBrush(m_theme.rail);
    }

private:
    QPainter &m_painter;
    const Theme &m_theme;
};

using Drawing = void (*)(BreakPainter &);

struct Known {
    std::string_view look;
    Drawing draw;
};

constexpr std::array kDrawings = {
    Known{"one-plane",
          [](BreakPainter &p) {
              p.halves({{0.0, 0.0}, {1.0, 0.0}});
              p.layers(6.0, 15.0);
              p.layers(25.0, 36.0);
          }},
    Known{"two-layers",
          [](BreakPainter &p) {
              p.halves({{0.0, -3.0}, {0.5, -3.0}, {0.5, 3.0}, {1.0, 3.0}});
              p.layers(5.0, 13.0);
              p.layers(27.0, 36.0);
          }},
    Known{"torn",
          [](BreakPainter &p) {
              p.halves(
                  {{0.0, 3.0}, {0.15, -5.0}, {0.3, 4.0}, {0.5, -6.0}, {0.65, 5.0}, {0.85, -4.0}, {1.0, 2.0}});
          }},
    Known{"necked", [](BreakPainter &p) { p.neck(); }},
    Known{"whitened", [](BreakPainter &p) { p.whiteStretch(); }},
    Known{"bent", [](BreakPainter &p) { p.bentBar(); }},
    Known{"at-grips",
          [](BreakPainter &p) {
              p.halves({{0.0, 0.0}, {0.5, 1.5}, {1.0, -1.0}}, 14.0);
              p.jaws();
          }},
    Known{"slipped",
          [](BreakPainter &p) {
              p.halves({{0.0, 0.0}, {1.0, 0.0}}, 9.0, 7.5);
              p.jaws();
              p.arrow({kPieceMiddle, 18.0}, {kPieceMiddle, 34.0});
          }},
    Known{"off-middle",
          [](BreakPainter &p) {
              p.lyingBar(12.0);
              p.arrow({kPieceMiddle, 3.0}, {kPieceMiddle, 14.0});
          }},
    Known{"flaw",
          [](BreakPainter &p) {
              p.halves({{0.0, 0.0}, {1.0, 0.0}});
              p.hole();
          }},
    Known{"insert-out", [](BreakPainter &p) { p.boredBlock(7.0); }},
    Known{"insert-with-boss", [](BreakPainter &p) { p.boredBlock(7.0, 1.0); }},
    Known{"layers-popped", [](BreakPainter &p) { p.lidOff(); }},
    Known{"stripped", [](BreakPainter &p) { p.screw(false); }},
    Known{"screw-broke", [](BreakPainter &p) { p.screw(true); }},
    Known{"split", [](BreakPainter &p) { p.splitBlock(); }},
    Known{"rounded", [](BreakPainter &p) { p.roundedSocket(); }},
    Known{"sheared", [](BreakPainter &p) { p.shearedPin(); }},
    Known{"pierced", [](BreakPainter &p) { p.probed(true); }},
    Known{"crushed", [](BreakPainter &p) { p.probed(false); }},
};

} // namespace

void paintBreak(QPainter &painter, QRectF place, std::string_view look, const Theme &theme)
{
    const auto known =
        std::find_if(kDrawings.begin(), kDrawings.end(), [&](const Known &one) { return one.look == look; });
    if (known == kDrawings.end())
        return;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const double scale = std::min(place.width(), place.height()) / kDrawingSide;
    painter.translate(place.center() - QPointF(0.5 * kDrawingSide * scale, 0.5 * kDrawingSide * scale));
    painter.scale(scale, scale);
    BreakPainter breakPainter(painter, theme);
    known->draw(breakPainter);
    painter.restore();
}

} // namespace inchpeg::app
