// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/time_rails.h"

#include "app/theme/theme.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr double kRow = 40.0;
constexpr double kHead = 24.0;
constexpr double kLabel = 92.0;
constexpr double kNote = 330.0;
constexpr double kPeg = 7.0;
constexpr double kLargestStep = 96.0; ///< between two readings

QString timeText(double time_s)
{
    if (time_s < 60.0)
        return time_s == 0.0 ? QStringLiteral("0") : TimeRails::tr("%1 s").arg(time_s);
    if (time_s < 3600.0)
        return TimeRails::tr("%1 min").arg(time_s / 60.0);
    return time_s < 86400.0 ? TimeRails::tr("%1 h").arg(time_s / 3600.0)
                            : TimeRails::tr("%1 d").arg(time_s / 86400.0);
}

void drawPeg(QPainter &painter, QPointF at, DueState state, const Theme &theme)
{
    painter.setPen(QPen(theme.ink, 1.4));
    painter.setBrush(Qt::NoBrush);
    const QRectF box(at.x() - kPeg, at.y() - kPeg, 2.0 * kPeg, 2.0 * kPeg);
    switch (state) {
    case DueState::Taken:
        painter.setBrush(theme.ink);
        painter.drawEllipse(box);
        break;
    case DueState::TakenLate: // half filled: it is there, and not where it was wanted
        painter.drawEllipse(box);
        painter.setBrush(theme.ink);
        painter.drawPie(box, -90 * 16, 180 * 16);
        break;
    case DueState::Missed:
        painter.drawLine(box.topLeft(), box.bottomRight());
        painter.drawLine(box.topRight(), box.bottomLeft());
        break;
    case DueState::Now:
    case DueState::Overdue:
        painter.setPen(QPen(theme.accent, 3.0));
        painter.drawEllipse(box.adjusted(-2, -2, 2, 2));
        break;
    case DueState::Ahead:
        painter.drawEllipse(box);
        break;
    }
}

} // namespace

TimeRails::TimeRails(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("timeRails"));
    setAccessibleName(tr("Readings under load, over time"));
}

QSize TimeRails::sizeHint() const
{
    return {600,
            static_cast<int>(kHead + kRow * static_cast<double>(std::max<std::size_t>(1, m_rails.size())))};
}

QSize TimeRails::minimumSizeHint() const
{
    return {420, static_cast<int>(kHead + 2.0 * kRow)};
}

void TimeRails::show(std::vector<TimeRail> rails)
{
    const bool isTaller = rails.size() != m_rails.size();
    m_rails = std::move(rails);
    m_due_s.clear();
    QStringList words;
    for (const TimeRail &rail : m_rails) {
        if (m_due_s.empty()) {
            for (const TimedReading &reading : rail.readings)
                m_due_s.push_back(reading.due_s);
        }
        words << rail.label + QStringLiteral(": ") + rail.note;
    }
    setAccessibleDescription(words.join(QStringLiteral(". ")));
    if (isTaller)
        updateGeometry();
    update();
}

double TimeRails::placeOf(double time_s) const
{
    const double first = kLabel + 3.0 * kPeg;
    if (m_due_s.size() < 2)
        return first;
    const double room = static_cast<double>(width()) - kNote - kPeg - first;
    const double step = std::min(kLargestStep, room / static_cast<double>(m_due_s.size() - 1));
    const auto after = std::upper_bound(m_due_s.begin(), m_due_s.end(), time_s);
    if (after == m_due_s.begin()) // before the first one
        return first - 2.0 * kPeg * std::clamp(1.0 - time_s / m_due_s.front(), 0.0, 1.0);
    const auto index = static_cast<double>(after - m_due_s.begin() - 1);
    if (after == m_due_s.end())
        return first + step * index;
    const double before_s = *std::prev(after);
    return first + step * (index + (time_s - before_s) / (*after - before_s));
}

void TimeRails::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme &theme = currentTheme();
    const QFontMetricsF metrics(font());
    if (!m_rails.empty()) {
        painter.setPen(theme.softInk);
        double end = -1e9;
        for (const TimedReading &reading : m_rails.front().readings) {
            const QString text = timeText(reading.due_s);
            const double half = 0.5 * metrics.horizontalAdvance(text);
            const double x = placeOf(reading.due_s);
            if (x - half < end + 6.0)
                continue; // the days stand close together
            painter.drawText(QRectF(x - half - 2.0, 0.0, 2.0 * half + 4.0, kHead), Qt::AlignCenter, text);
            end = x + half;
        }
    }
    for (std::size_t i = 0; i < m_rails.size(); ++i) {
        const TimeRail &rail = m_rails[i];
        const double top = kHead + kRow * static_cast<double>(i);
        const double y = top + 0.5 * kRow;
        if (rail.isCurrent)
            painter.fillRect(QRectF(0.0, top, width(), kRow), theme.sheet);
        if (rail.isCurrent)
            painter.fillRect(QRectF(0.0, top, 4.0, kRow), theme.accent);
        QFont bold = font();
        bold.setBold(rail.isCurrent);
        painter.setFont(bold);
        painter.setPen(theme.ink);
        painter.drawText(QRectF(12.0, top, kLabel - 16.0, kRow), Qt::AlignLeft | Qt::AlignVCenter,
                         rail.label);
        painter.setFont(font());
        painter.setPen(QPen(theme.line, 2.0));
        painter.drawLine(QPointF(kLabel, y), QPointF(m_due_s.empty() ? kLabel : placeOf(m_due_s.back()), y));
        if (rail.now_s && *rail.now_s >= 0.0) {
            const double x = placeOf(*rail.now_s);
            painter.setPen(QPen(theme.accent, 2.0));
            painter.drawLine(QPointF(x, top + 4.0), QPointF(x, top + kRow - 4.0));
        }
        for (const TimedReading &reading : rail.readings)
            drawPeg(painter, QPointF(placeOf(reading.due_s), y), reading.state, theme);
        painter.setPen(theme.ink);
        const QRectF note(width() - kNote + 8.0, top, kNote - 12.0, kRow);
        painter.drawText(note, Qt::AlignLeft | Qt::AlignVCenter,
                         metrics.elidedText(rail.note, Qt::ElideRight, note.width()));
    }
}

void TimeRails::mousePressEvent(QMouseEvent *event)
{
    const double row = (event->position().y() - kHead) / kRow;
    if (row < 0.0 || row >= static_cast<double>(m_rails.size()))
        return;
    const PieceId piece = m_rails[static_cast<std::size_t>(row)].piece;
    if (piece != PieceId{})
        emit chosen(piece);
}

} // namespace inchpeg::app
