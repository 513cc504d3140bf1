// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/graph.h"
#include "core/text/axis_scale.h"
#include "core/text/notation.h"

#include <QWidget>

namespace inchpeg::app
{

/// Draws a graph: rails told apart by mark and dash as well as by ink.
class GraphPlot : public QWidget
{
    Q_OBJECT
public:
    explicit GraphPlot(QWidget *parent = nullptr);

    void show(const Graph &graph, const Notation &notation);
    /// Where a point is drawn.
    [[nodiscard]] QPointF placeOf(const GraphPoint &point) const;
    [[nodiscard]] QSize sizeHint() const override;
    /// The same at any size, as for a file.
    void paintGraph(QPainter &painter, QSize size) const;

signals:
    void chosen(const inchpeg::GraphPoint &point);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;

private:
    /// Where the sheet with its axes lies in a picture of this size.
    [[nodiscard]] QRectF sheetIn(QSize size) const;
    [[nodiscard]] QPointF placeIn(const QRectF &sheet, double x, double y) const;
    [[nodiscard]] const GraphPoint *pointAt(QPointF place) const;
    void layOut();
    void paintAxes(QPainter &painter, const QRectF &sheet) const;
    void paintStretch(QPainter &painter, const QRectF &sheet) const;
    void paintLine(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const;
    void paintBand(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const;
    void paintDots(QPainter &painter, const QRectF &sheet, const GraphSeries &series) const;
    void paintTitles(QPainter &painter, const QRectF &sheet) const;
    void paintKey(QPainter &painter, const QRectF &sheet) const;
    [[nodiscard]] double keyWidth() const;
    [[nodiscard]] std::vector<const GraphSeries *> keySeries() const;

    Graph m_graph;
    Notation m_notation;
    AxisScale m_x;
    AxisScale m_y;
};

} // namespace inchpeg::app
