// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/hammer_picture.h"

#include "app/theme/theme.h"

#include <QPainter>
#include <QtMath>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr double kMargin = 26.0;
constexpr double kHammer = 13.0; ///< half of its width
constexpr double kTick = 7.0;
constexpr int kTickEvery_deg = 30;

} // namespace

HammerPicture::HammerPicture(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("hammerPicture"));
    setMinimumHeight(120);
    setAccessibleName(tr("Where the hammer stands"));
}

void HammerPicture::show(std::optional<double> angle_deg, std::optional<double> through_deg)
{
    if (angle_deg == m_angle_deg && through_deg == m_through_deg)
        return;
    m_angle_deg = angle_deg;
    m_through_deg = through_deg;
    update();
}

void HammerPicture::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme &theme = currentTheme();
    painter.fillRect(rect(), theme.sheet);
    const QPointF pivot(0.5 * width(), 0.5 * height());
    const double arm = 0.5 * std::min(width(), height()) - kMargin;
    const auto placeAt = [&](double angle_deg, double length) {
        const double angle = qDegreesToRadians(angle_deg);
        return pivot + QPointF(length * std::sin(angle), length * std::cos(angle));
    };
    painter.setPen(QPen(theme.line, 1.0));
    painter.drawEllipse(pivot, arm, arm);
    for (int angle = -150; angle <= 180; angle += kTickEvery_deg) {
        painter.setPen(QPen(theme.softInk, 1.0));
        painter.drawLine(placeAt(angle, arm - kTick), placeAt(angle, arm));
        const QPointF at = placeAt(angle, arm + 0.55 * kMargin);
        painter.drawText(QRectF(at.x() - 20.0, at.y() - 9.0, 40.0, 18.0), Qt::AlignCenter,
                         QString::number(std::abs(angle)));
    }
    if (m_through_deg) {
        painter.setPen(QPen(theme.accent, 2.0, Qt::DashLine));
        painter.drawLine(pivot, placeAt(*m_through_deg, arm));
    }
    if (m_angle_deg) {
        const QPointF head = placeAt(*m_angle_deg, arm - kHammer);
        painter.setPen(QPen(theme.ink, 3.0));
        painter.drawLine(pivot, head);
        painter.setBrush(theme.ink);
        painter.drawEllipse(head, kHammer, kHammer);
    }
    painter.setBrush(theme.ink);
    painter.drawEllipse(pivot, 4.0, 4.0);
}

} // namespace inchpeg::app
