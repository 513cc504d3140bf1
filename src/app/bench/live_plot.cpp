// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/live_plot.h"

#include "app/theme/theme.h"
#include "core/text/axis_scale.h"

#include <QPainter>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kLeft = 74.0;
constexpr double kBottom = 40.0;
constexpr double kRight = 16.0;
constexpr double kTop = 12.0;
constexpr double kLimitShown = 0.5; ///< of the limit: from here on it is drawn

} // namespace

LivePlot::LivePlot(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("livePlot"));
    setMinimumHeight(120);
    setAccessibleName(tr("Curve of the piece at the rig"));
}

void LivePlot::show(const LiveTrace &trace, const QString &xLabel, const QString &yLabel, double limit,
                    const Notation &notation, const std::vector<const LiveTrace *> &others)
{
    const bool isSame = others.size() == m_others.size() && trace.points() == m_trace.points() &&
                        xLabel == m_xLabel && yLabel == m_yLabel && limit == m_limit &&
                        notation == m_notation;
    if (isSame)
        return; // asked sixty times a second
    m_trace = trace;
    m_others.clear();
    for (const LiveTrace *other : others)
        m_others.push_back(*other);
    m_xLabel = xLabel;
    m_yLabel = yLabel;
    m_limit = limit;
    m_notation = notation;
    update();
}

void LivePlot::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme &theme = currentTheme();
    painter.fillRect(rect(), theme.sheet);
    std::vector<double> x{0.0};
    std::vector<double> y{0.0, 1.0};
    const auto widenFor = [&](const LiveTrace &trace) {
        for (const LiveTrace::Stretch &stretch : trace.stretches()) {
            x.push_back(stretch.x);
            y.push_back(stretch.low);
            y.push_back(stretch.high);
        }
    };
    widenFor(m_trace);
    for (const LiveTrace &other : m_others)
        widenFor(other);
    if (x.size() == 1)
        x.push_back(1.0);
    const double most = *std::max_element(y.begin(), y.end());
    const bool showsLimit = m_limit > 0.0 && most > kLimitShown * m_limit;
    if (showsLimit)
        y.push_back(m_limit);
    const AxisScale across = scaleAround(x, 6);
    const AxisScale up = scaleAround(y, 5);
    const QRectF sheet = QRectF(rect()).adjusted(kLeft, kTop, -kRight, -kBottom);
    const auto placeOf = [&](double atX, double atY) {
        return QPointF(sheet.left() + across.share(atX) * sheet.width(),
                       sheet.bottom() - up.share(atY) * sheet.height());
    };
    for (const double mark : across.marks()) {
        const double at = placeOf(mark, 0.0).x();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(at, sheet.top()), QPointF(at, sheet.bottom()));
        painter.setPen(theme.ink);
        painter.drawText(QRectF(at - 50.0, sheet.bottom() + 2.0, 100.0, 18.0), Qt::AlignCenter,
                         QString::fromStdString(m_notation.fixed(mark, across.decimals)));
    }
    for (const double mark : up.marks()) {
        const double at = placeOf(0.0, mark).y();
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(sheet.left(), at), QPointF(sheet.right(), at));
        painter.setPen(theme.ink);
        painter.drawText(QRectF(0.0, at - 9.0, sheet.left() - 6.0, 18.0), Qt::AlignRight | Qt::AlignVCenter,
                         QString::fromStdString(m_notation.fixed(mark, up.decimals)));
    }
    painter.setPen(theme.softInk);
    painter.drawText(QRectF(sheet.left(), sheet.bottom() + 20.0, sheet.width(), 18.0), Qt::AlignCenter,
                     m_xLabel);
    painter.save();
    painter.translate(12.0, sheet.center().y());
    painter.rotate(-90.0);
    painter.drawText(QRectF(-0.5 * sheet.height(), -9.0, sheet.height(), 18.0), Qt::AlignCenter, m_yLabel);
    painter.restore();
    if (showsLimit) {
        painter.setPen(QPen(theme.warning, 1.4, Qt::DashLine));
        painter.drawLine(placeOf(across.low, m_limit), placeOf(across.high, m_limit));
    }
    const auto lineOf = [&](const LiveTrace &trace) {
        QPolygonF line;
        for (const LiveTrace::Stretch &stretch : trace.stretches()) {
            line << placeOf(stretch.x, stretch.low);
            if (stretch.high > stretch.low)
                line << placeOf(stretch.x, stretch.high) << placeOf(stretch.x, stretch.last);
        }
        return line;
    };
    painter.setPen(QPen(theme.softInk, 1.0, Qt::DotLine));
    for (const LiveTrace &other : m_others)
        painter.drawPolyline(lineOf(other));
    const QPolygonF line = lineOf(m_trace);
    painter.setPen(QPen(theme.accent, 1.0));
    painter.drawPolyline(line);
    if (!line.isEmpty()) {
        painter.setBrush(theme.accent);
        painter.drawEllipse(line.last(), 4.0, 4.0);
    }
}

} // namespace inchpeg::app
