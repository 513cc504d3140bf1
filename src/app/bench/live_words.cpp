// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/live_words.h"

#include <QCoreApplication>

#include <cmath>

namespace inchpeg::app
{

namespace
{

QString words(const char *text)
{
    return QCoreApplication::translate("LiveWords", text);
}

QString fromView(std::string_view text)
{
    return QString::fromUtf8(text.data(), qsizetype(text.size()));
}

} // namespace

std::optional<std::size_t> wayColumn(const LiveState &live)
{
    for (std::size_t i = 0; i < live.columns.size(); ++i) {
        const std::optional<ColumnQuantity> quantity = live.columns[i].quantity;
        if (i != live.main && (quantity == ColumnQuantity::Extension || quantity == ColumnQuantity::Angle))
            return i;
    }
    return std::nullopt;
}

std::optional<double> mainReading(const LiveState &live)
{
    return live.latest && live.main < live.latest->values.size() ? live.latest->values[live.main]
                                                                 : std::nullopt;
}

QString liveReadingText(const LiveState &live, const Notation &notation)
{
    const std::optional<double> reading = mainReading(live);
    if (!reading)
        return QStringLiteral("–");
    const double size = std::abs(*reading);
    const int decimals = size >= 1000.0 ? 0 : size >= 10.0 ? 1 : 2;
    return QString::fromStdString(notation.fixed(*reading, decimals));
}

QString liveUnitText(const LiveState &live)
{
    const bool hasUnit = live.main < live.columns.size() && live.columns[live.main].unit;
    return hasUnit ? fromView(live.columns[live.main].unit->symbol) : QString();
}

QString liveXLabel(const LiveState &live)
{
    const std::optional<std::size_t> way = wayColumn(live);
    if (!way)
        return words("time in s");
    const Column &column = live.columns[*way];
    return words("%1 in %2").arg(QString::fromStdString(column.name), fromView(column.unit->symbol));
}

QString liveYLabel(const LiveState &live)
{
    if (live.main >= live.columns.size())
        return {};
    return words("%1 in %2").arg(QString::fromStdString(live.columns[live.main].name), liveUnitText(live));
}

QString liveStateText(const LiveState &live)
{
    if (!live.isConnected)
        return words("not connected");
    QStringList parts{live.isThere ? words("connected") : words("the cable is out: waiting for it")};
    if (live.isRecording)
        parts << words("%1 readings in %2 s").arg(live.rows).arg(live.seconds, 0, 'f', 1);
    if (live.damaged > 0)
        parts << words("%1 lines damaged").arg(live.damaged);
    if (live.gaps > 0)
        parts << words("%1 gaps").arg(live.gaps);
    if (!live.fault.empty())
        parts << words("the rig reports: %1").arg(QString::fromStdString(live.fault));
    return parts.join(QStringLiteral(" · "));
}

} // namespace inchpeg::app
