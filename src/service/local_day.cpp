// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/local_day.h"

namespace inchpeg
{

QDateTime localTime(const std::string &utc)
{
    return QDateTime::fromString(QString::fromStdString(utc), Qt::ISODate).toLocalTime();
}

QString localDay(const std::string &utc)
{
    return localTime(utc).toString(QStringLiteral("yyyy-MM-dd"));
}

DaySpan localDaySpan(const std::string &utc)
{
    const QDate day = localTime(utc).date();
    const auto kept = [](const QDate &date) {
        return date.startOfDay().toUTC().toString(Qt::ISODate).toStdString();
    };
    return {kept(day), kept(day.addDays(1))};
}

} // namespace inchpeg
