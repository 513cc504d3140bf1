// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/curve_shape.h"
#include "app/read/qcustomplot_light.h"

#include <memory>

namespace inchpeg::app
{

/// One curve of the plot, drawn from its pyramid, so that a frame costs the same for a thousand samples and
/// for ten million.
class CurvePlottable : public QCPAbstractPlottable
{
public:
    CurvePlottable(QCPAxis *keyAxis, QCPAxis *valueAxis);

    void setShape(std::shared_ptr<const CurveShape> shape) { m_shape = std::move(shape); }
    /// How the part after the break is drawn; Qt::NoPen: not at all.
    void setTailPen(const QPen &pen) { m_tailPen = pen; }
    /// Each sample is a dot of this radius on a thin line; 0: a line alone.
    void setDots(double radius) { m_dotRadius = radius; }
    /// Picture points that one stroke may cover: 1 shows all there is, more draws many curves faster.
    void setCoarseness(double points) { m_coarseness = points; }

    double selectTest(const QPointF &position, bool onlySelectable, QVariant *details) const override;
    QCPRange getKeyRange(bool &found, QCP::SignDomain domain) const override;
    QCPRange getValueRange(bool &found, QCP::SignDomain domain, const QCPRange &keys) const override;

protected:
    void draw(QCPPainter *painter) override;
    void drawLegendIcon(QCPPainter *, const QRectF &) const override {}

private:
    [[nodiscard]] PlotWindow shownWindow() const;
    static void drawLine(QCPPainter &painter, const QPolygonF &line, QPen pen);
    [[nodiscard]] QPolygonF pixels(const CurvePyramid &pyramid) const;
    std::shared_ptr<const CurveShape> m_shape;
    QPen m_tailPen{Qt::NoPen};
    double m_coarseness = 1.0;
    double m_dotRadius = 0.0;
};

} // namespace inchpeg::app
