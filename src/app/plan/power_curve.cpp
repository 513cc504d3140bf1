// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/power_curve.h"

#include "app/rack/rack_painter.h"
#include "app/theme/theme.h"
#include "core/text/axis_scale.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr double kLeft = 52.0;
constexpr double kBottom = 38.0;
constexpr double kTop = 10.0;
constexpr double kRight = 16.0;
constexpr double kMostShown = 4.0; ///< times the difference that matters: what lies above is of no use

} // namespace

PowerCurve::PowerCurve(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("powerCurve"));
    setAccessibleName(tr("What difference the pieces can show"));
    setFocusPolicy(Qt::StrongFocus);
    setToolTip(tr("Drag the peg, or use the left and right arrows, to plan more or fewer pieces."));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void PowerCurve::set(std::vector<VisibleDifference> curve, int pieces, double matters)
{
    m_curve = std::move(curve);
    m_pieces = pieces;
    m_matters = matters;
    describe();
    update();
}

void PowerCurve::describe()
{
    const std::optional<double> now = differenceWith(m_pieces);
    setAccessibleDescription(
        now ? tr("%1 pieces a rail show %2 % or more").arg(m_pieces).arg(100.0 * *now, 0, 'f', 0)
            : tr("%1 pieces a rail show nothing").arg(m_pieces));
}

QRectF PowerCurve::plot() const
{
    return QRectF(rect()).adjusted(kLeft, kTop, -kRight, -kBottom);
}

double PowerCurve::top() const
{
    const double highest = m_curve.empty() ? m_matters : m_curve.front().difference;
    return std::min(highest * 1.08, kMostShown * m_matters);
}

double PowerCurve::xOf(double pieces) const
{
    const double most = m_curve.empty() ? 20.0 : m_curve.back().pieces;
    return plot().left() + (pieces - 1.0) / (most - 1.0) * plot().width();
}

double PowerCurve::yOf(double difference) const
{
    return plot().bottom() - std::min(difference / top(), 1.0) * plot().height();
}

int PowerCurve::piecesAt(double x) const
{
    const double most = m_curve.empty() ? 20.0 : m_curve.back().pieces;
    const double pieces = 1.0 + (x - plot().left()) / plot().width() * (most - 1.0);
    return std::clamp(static_cast<int>(std::lround(pieces)), 1, static_cast<int>(most));
}

std::optional<double> PowerCurve::differenceWith(double pieces) const
{
    for (std::size_t i = 0; i + 1 < m_curve.size(); ++i) {
        const VisibleDifference &a = m_curve[i];
        const VisibleDifference &b = m_curve[i + 1];
        if (pieces >= a.pieces && pieces <= b.pieces)
            return a.difference + (b.difference - a.difference) * (pieces - a.pieces) / (b.pieces - a.pieces);
    }
    return std::nullopt;
}

QPointF PowerCurve::pegPoint() const
{
    const std::optional<double> difference = differenceWith(shownPieces());
    return {xOf(shownPieces()), difference ? yOf(*difference) : plot().top()};
}

void PowerCurve::paintEvent(QPaintEvent *)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme.sheet);
    if (m_curve.size() < 2) {
        painter.setPen(theme.softInk);
        painter.drawText(rect(), Qt::AlignCenter, tr("Working out what the pieces can show…"));
        return;
    }
    const QRectF area = plot();
    const QFontMetricsF metrics(font());
    // Below the line of what matters the plan is fine enough.
    const double matters = yOf(m_matters);
    QColor band = theme.rail;
    band.setAlphaF(0.45F);
    painter.fillRect(QRectF(area.left(), matters, area.width(), area.bottom() - matters), band);
    painter.setPen(QPen(theme.ink, 1.0));
    painter.drawLine(area.bottomLeft(), area.bottomRight());
    painter.drawLine(area.bottomLeft(), area.topLeft());
    const AxisScale vertical = scaleAround({0.0, 100.0 * top()}, 4);
    painter.setPen(theme.softInk);
    for (const double mark : vertical.marks()) {
        if (mark < 0.0 || mark > 100.0 * top() * 1.001)
            continue;
        const double y = yOf(mark / 100.0);
        painter.drawLine(QPointF(area.left() - 4.0, y), QPointF(area.left(), y));
        painter.drawText(QRectF(0.0, y - 10.0, area.left() - 8.0, 20.0), Qt::AlignRight | Qt::AlignVCenter,
                         QString::number(mark, 'f', vertical.decimals) + QStringLiteral(" %"));
    }
    const int most = m_curve.back().pieces;
    const int step = most > 60 ? 20 : most > 30 ? 10 : most > 14 ? 5 : 2;
    for (int n = 1; n <= most; ++n) {
        const double x = xOf(n);
        painter.drawLine(QPointF(x, area.bottom()), QPointF(x, area.bottom() + (n % step == 0 ? 6.0 : 3.0)));
        if (n % step == 0 || n == 2)
            painter.drawText(QRectF(x - 20.0, area.bottom() + 5.0, 40.0, 16.0), Qt::AlignCenter,
                             QString::number(n));
    }
    painter.drawText(QRectF(area.left(), rect().bottom() - 17.0, area.width(), 17.0), Qt::AlignCenter,
                     tr("pieces a rail"));
    painter.setPen(QPen(theme.ink, 1.2, Qt::DashLine));
    painter.drawLine(QPointF(area.left(), matters), QPointF(area.right(), matters));
    painter.setPen(theme.ink);
    const QString word = tr("the difference that matters: %1 %").arg(100.0 * m_matters, 0, 'g', 3);
    painter.drawText(QPointF(area.right() - metrics.horizontalAdvance(word) - 4.0, matters - 5.0), word);

    QPainterPath path;
    for (std::size_t i = 0; i < m_curve.size(); ++i) {
        // A curve that begins above the picture comes in at its top edge.
        const QPointF point(xOf(m_curve[i].pieces), yOf(m_curve[i].difference));
        i == 0 ? path.moveTo(point) : path.lineTo(point);
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme.railInks.first(), 2.2));
    painter.drawPath(path);

    const QPointF peg = pegPoint();
    painter.setPen(QPen(theme.accent, 1.0));
    painter.drawLine(peg, QPointF(peg.x(), area.bottom()));
    const std::optional<double> shown = differenceWith(shownPieces());
    paintPeg(painter, peg, 9.0, shown ? PegState::Read : PegState::Open, false, true, theme);
    const QString text = shown ? tr("%1 pieces: %2 % or more")
                                     .arg(shownPieces())
                                     .arg(100.0 * *shown, 0, 'f', *shown < 0.0995 ? 1 : 0)
                               : tr("one piece shows nothing");
    QFont bold = font();
    bold.setWeight(QFont::DemiBold);
    painter.setFont(bold);
    const double width = QFontMetricsF(bold).horizontalAdvance(text);
    const double x = peg.x() + 16.0 + width < area.right() ? peg.x() + 16.0 : peg.x() - 16.0 - width;
    painter.setPen(theme.ink);
    painter.drawText(QPointF(std::max(area.left() + 4.0, x), std::max(area.top() + 14.0, peg.y() - 6.0)),
                     text);
    if (hasFocus()) {
        painter.setPen(QPen(theme.accent, 1.0));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

void PowerCurve::mousePressEvent(QMouseEvent *event)
{
    if (m_curve.size() < 2 || event->button() != Qt::LeftButton)
        return;
    m_dragged = piecesAt(event->position().x());
    update();
}

void PowerCurve::mouseMoveEvent(QMouseEvent *event)
{
    if (!m_dragged)
        return;
    m_dragged = piecesAt(event->position().x());
    update();
}

void PowerCurve::mouseReleaseEvent(QMouseEvent *)
{
    if (!m_dragged)
        return;
    const int chosen = *m_dragged;
    m_dragged.reset();
    if (chosen != m_pieces)
        emit piecesChosen(chosen);
    update();
}

void PowerCurve::keyPressEvent(QKeyEvent *event)
{
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0)
        QWidget::keyPressEvent(event);
    else if (m_pieces + step >= 1)
        emit piecesChosen(m_pieces + step);
}

} // namespace inchpeg::app
