// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/timeline.h"

#include "app/theme/plain_texts.h"
#include "app/theme/theme.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

using namespace std::chrono;

constexpr double kLabel = 130.0;
constexpr double kLineHeight = 26.0;
constexpr double kScaleHeight = 34.0;
constexpr double kNarrowestDay = 46.0; ///< for its name

QString rowName(const CalendarEntry &entry)
{
    if (!entry.resource.empty())
        return QString::fromStdString(entry.resource);
    return QString::fromUtf8(workName(entry.kind).data());
}

} // namespace

Timeline::Timeline(QWidget *parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("timeline"));
    setAccessibleName(tr("The work in time"));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setMouseTracking(true);
}

void Timeline::set(std::vector<CalendarEntry> entries, StudyId own, Moment now)
{
    m_entries = std::move(entries);
    m_own = own;
    m_now = now;
    m_rows.clear();
    m_from = m_to = {};
    for (std::size_t i = 0; i < m_entries.size(); ++i) {
        const CalendarEntry &entry = m_entries[i];
        if (entry.study == own) {
            m_from = m_from == Moment{} ? entry.start : std::min(m_from, entry.start);
            m_to = std::max(m_to, entry.end);
        }
    }
    m_from = Moment(floor<days>(m_from));
    m_to = Moment(ceil<days>(m_to));
    for (std::size_t i = 0; i < m_entries.size(); ++i) {
        const CalendarEntry &entry = m_entries[i];
        if (entry.end < m_from || entry.start > m_to || entry.kind == WorkKind::Cooling)
            continue; // cooling is short, and nobody has to do with it
        const QString name = rowName(entry);
        auto row =
            std::find_if(m_rows.begin(), m_rows.end(), [&](const Row &one) { return one.name == name; });
        if (row == m_rows.end())
            row = m_rows.insert(m_rows.end(), Row{name, {}});
        row->entries.push_back(i);
    }
    setAccessibleDescription(m_rows.empty() ? tr("Nothing is dated")
                                            : tr("%1 to %2")
                                                  .arg(QString::fromStdString(dayText(m_from)),
                                                       QString::fromStdString(dayText(m_to))));
    updateGeometry();
    update();
}

QSize Timeline::sizeHint() const
{
    return {460, static_cast<int>(kScaleHeight +
                                  kLineHeight * static_cast<double>(std::max<std::size_t>(1, m_rows.size())) +
                                  6.0)};
}

double Timeline::xOf(Moment moment) const
{
    const auto whole = static_cast<double>((m_to - m_from).count());
    return kLabel + (whole > 0.0 ? static_cast<double>((moment - m_from).count()) / whole : 0.0) *
                        (width() - kLabel - 8.0);
}

QRectF Timeline::barOf(std::size_t row, const CalendarEntry &entry) const
{
    const double left = xOf(std::max(entry.start, m_from));
    const double right = xOf(std::min(entry.end, m_to));
    return {left, kScaleHeight + kLineHeight * static_cast<double>(row) + 5.0, std::max(3.0, right - left),
            kLineHeight - 10.0};
}

void Timeline::paintEvent(QPaintEvent *)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme.sheet);
    if (m_rows.empty()) {
        painter.setPen(theme.softInk);
        painter.drawText(rect(), Qt::AlignCenter,
                         tr("Give the study a start, and its work is laid out in time."));
        return;
    }
    const auto dayCount = duration_cast<days>(m_to - m_from).count();
    const double dayWidth =
        (width() - kLabel - 8.0) / static_cast<double>(std::max<std::int64_t>(1, dayCount));
    const auto step = std::max<std::int64_t>(1, static_cast<std::int64_t>(kNarrowestDay / dayWidth + 0.999));
    const double bottom = kScaleHeight + kLineHeight * static_cast<double>(m_rows.size());
    for (std::int64_t d = 0; d <= dayCount; ++d) {
        const Moment day = m_from + days{d};
        const double x = xOf(day);
        const unsigned weekday_ = weekday(floor<days>(day)).iso_encoding();
        if (weekday_ >= 6 && d < dayCount) {
            QColor band = theme.rail;
            band.setAlphaF(0.35F);
            painter.fillRect(QRectF(x, kScaleHeight, dayWidth, bottom - kScaleHeight), band);
        }
        painter.setPen(QPen(theme.line, 1.0));
        painter.drawLine(QPointF(x, kScaleHeight - 4.0), QPointF(x, bottom));
        if (d % step != 0 || d == dayCount)
            continue;
        const QStringList parts = QString::fromStdString(dayText(day)).split(QLatin1Char(' '));
        painter.setPen(theme.softInk);
        painter.drawText(QRectF(x + 3.0, 1.0, 60.0, 15.0), Qt::AlignLeft, parts[0]);
        painter.drawText(QRectF(x + 3.0, 15.0, 60.0, 15.0), Qt::AlignLeft,
                         parts[1] + QLatin1Char(' ') + parts[2]);
    }
    const QFontMetricsF metrics(font());
    for (std::size_t r = 0; r < m_rows.size(); ++r) {
        painter.setPen(theme.ink);
        painter.drawText(
            QRectF(4.0, kScaleHeight + kLineHeight * static_cast<double>(r), kLabel - 10.0, kLineHeight),
            Qt::AlignLeft | Qt::AlignVCenter,
            metrics.elidedText(m_rows[r].name, Qt::ElideRight, kLabel - 10.0));
        painter.setPen(QPen(theme.line, 1.0));
        const double y = kScaleHeight + kLineHeight * static_cast<double>(r + 1);
        painter.drawLine(QPointF(0.0, y), QPointF(width(), y));
        for (const std::size_t i : m_rows[r].entries) {
            const CalendarEntry &entry = m_entries[i];
            QColor ink = entry.study == m_own ? theme.ink : theme.line;
            painter.setPen(QPen(ink, 1.4));
            painter.setBrush(entry.attended ? QBrush(ink) : QBrush(theme.sheet));
            painter.drawRoundedRect(barOf(r, entry), 2.5, 2.5);
        }
    }
    if (m_now > m_from && m_now < m_to) {
        painter.setPen(QPen(theme.accent, 2.0));
        painter.drawLine(QPointF(xOf(m_now), kScaleHeight - 6.0), QPointF(xOf(m_now), bottom));
    }
}

bool Timeline::event(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    const auto *help = static_cast<QHelpEvent *>(event);
    for (std::size_t r = 0; r < m_rows.size(); ++r) {
        for (const std::size_t i : m_rows[r].entries) {
            const CalendarEntry &entry = m_entries[i];
            if (!barOf(r, entry).adjusted(-2, -4, 2, 4).contains(QPointF(help->pos())))
                continue;
            showPlainTip(help->globalPos(),
                         tr("%1\n%2 %3 to %4 %5")
                             .arg(QString::fromStdString(entry.what),
                                  QString::fromStdString(dayText(entry.start)),
                                  QString::fromStdString(clockText(entry.start)),
                                  QString::fromStdString(dayText(entry.end)),
                                  QString::fromStdString(clockText(entry.end))),
                         this);
            return true;
        }
    }
    QToolTip::hideText();
    return true;
}

} // namespace inchpeg::app
