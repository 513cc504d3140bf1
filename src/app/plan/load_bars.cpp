// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/load_bars.h"

#include "app/theme/theme.h"

#include <QPainter>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kRow = 24.0;
constexpr double kHead = 22.0;
constexpr double kShown = 1.25; ///< of the range

} // namespace

LoadBars::LoadBars(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("loadBars"));
    setAccessibleName(tr("Expected loads in the rig's range"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void LoadBars::set(std::vector<Bar> bars, bool pendulum)
{
    m_bars = std::move(bars);
    m_pendulum = pendulum;
    QStringList words;
    for (const Bar &bar : m_bars)
        words << bar.rail + QStringLiteral(": ") + bar.load + QStringLiteral(", ") +
                     QString::fromUtf8(rigFitName(bar.fit).data());
    setAccessibleDescription(words.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

QSize LoadBars::sizeHint() const
{
    return {420, static_cast<int>(kHead +
                                  kRow * static_cast<double>(std::max<std::size_t>(1, m_bars.size())) + 4)};
}

void LoadBars::paintEvent(QPaintEvent *)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme.sheet);
    const QFontMetricsF metrics(font());
    const double label = std::min(0.3 * width(), 190.0);
    const double words = std::min(0.32 * width(), 190.0);
    const QRectF track(label + 10.0, kHead, width() - label - words - 26.0, height() - kHead - 2.0);
    const auto x = [&](double share) {
        return track.left() + std::min(share, kShown) / kShown * track.width();
    };
    QColor good = theme.rail;
    good.setAlphaF(0.55F);
    const double low = m_pendulum ? 0.1 : 0.0;
    painter.fillRect(QRectF(x(low), track.top(), x(0.8) - x(low), track.height()), good);
    painter.setPen(QPen(theme.ink, 1.2));
    painter.drawLine(QPointF(x(1.0), track.top() - 3.0), QPointF(x(1.0), track.bottom()));
    painter.setPen(theme.softInk);
    const auto mark = [&](double share, const QString &text) {
        const double half = 0.5 * metrics.horizontalAdvance(text);
        painter.drawText(
            QPointF(std::clamp(x(share) - half, track.left() - 4.0, track.right() - 2.0 * half), kHead - 7.0),
            text);
    };
    if (m_pendulum)
        mark(0.1, QStringLiteral("10 %"));
    else
        mark(0.0, QStringLiteral("0"));
    mark(0.8, QStringLiteral("80 %"));
    if (track.width() > 180.0)
        painter.drawText(QPointF(x(1.0) - 4.0, kHead - 7.0), tr("end of range"));
    double y = track.top();
    for (const Bar &bar : m_bars) {
        const bool fine = bar.fit == RigFit::InRange;
        const bool unknown = bar.fit == RigFit::Unknown || bar.fit == RigFit::WrongKind;
        painter.setPen(theme.ink);
        painter.drawText(QRectF(4.0, y, label, kRow), Qt::AlignLeft | Qt::AlignVCenter,
                         metrics.elidedText(bar.rail, Qt::ElideRight, label - 4.0));
        if (!unknown) {
            const QRectF drawn(track.left(), y + 6.0, std::max(2.0, x(bar.share) - track.left()),
                               kRow - 12.0);
            painter.setPen(Qt::NoPen);
            painter.setBrush(fine ? theme.ink : theme.warning);
            painter.drawRect(drawn);
            if (bar.share > kShown) { // goes on beyond the picture
                painter.setBrush(theme.warning);
                painter.drawPolygon(QPolygonF({QPointF(track.right() + 2.0, y + 4.0),
                                               QPointF(track.right() + 9.0, y + 0.5 * kRow),
                                               QPointF(track.right() + 2.0, y + kRow - 4.0)}));
            }
        }
        const QString text =
            unknown ? bar.load
                    : bar.load + QStringLiteral(" · ") + QString::fromUtf8(rigFitName(bar.fit).data());
        painter.setPen(fine || unknown ? theme.ink : theme.warning);
        painter.drawText(QRectF(track.right() + 14.0, y, words, kRow), Qt::AlignLeft | Qt::AlignVCenter,
                         metrics.elidedText(text, Qt::ElideRight, words));
        y += kRow;
    }
}

} // namespace inchpeg::app
