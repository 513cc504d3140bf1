// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/local_zone.h"

#include <QDateTime>
#include <QTimeZone>

namespace inchpeg
{

ZoneOffset localZone()
{
    return [zone = QTimeZone::systemTimeZone()](Moment moment) {
        using namespace std::chrono;
        const local_days day = floor<days>(moment);
        const year_month_day date(day);
        const QDate qtDate(static_cast<int>(date.year()),
                           static_cast<int>(static_cast<unsigned>(date.month())),
                           static_cast<int>(static_cast<unsigned>(date.day())));
        const auto minutes_ms = static_cast<int>((moment - Moment(day)).count()) * 60000;
        return Minutes{QDateTime(qtDate, QTime::fromMSecsSinceStartOfDay(minutes_ms), zone).offsetFromUtc() /
                       60};
    };
}

} // namespace inchpeg
