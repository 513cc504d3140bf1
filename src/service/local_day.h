// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QDateTime>
#include <QString>

#include <string>

namespace inchpeg
{

// Moments are kept in UTC; a day is the workshop's own. What was done at 1:30 in the night was done on that
// day, although UTC still has the day before.

/// A kept moment (ISO 8601, UTC) by the clock on the wall.
QDateTime localTime(const std::string &utc);
/// Its day, "2026-06-01".
QString localDay(const std::string &utc);
/// When that day begins and ends, in UTC as moments are kept.
struct DaySpan {
    std::string begins;
    std::string ends;
};
DaySpan localDaySpan(const std::string &utc);

} // namespace inchpeg
