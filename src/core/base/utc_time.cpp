// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/utc_time.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdio>

namespace inchpeg
{

using namespace std::chrono;

std::optional<std::int64_t> secondsSinceEpoch(std::string_view utc)
{
    int year = 0;
    unsigned month = 0, day = 0, hour = 0, minute = 0, second = 0;
    const std::string text(utc);
    if (std::sscanf(text.c_str(), "%d-%u-%uT%u:%u:%uZ", &year, &month, &day, &hour, &minute, &second) != 6)
        return std::nullopt;
    const year_month_day date{std::chrono::year(year), std::chrono::month(month), std::chrono::day(day)};
    if (!date.ok() || hour > 23 || minute > 59 || second > 60)
        return std::nullopt;
    return sys_days(date).time_since_epoch() / seconds(1) + 3600 * std::int64_t{hour} +
           60 * std::int64_t{minute} + second;
}

std::string utcText(std::int64_t secondsSinceEpoch)
{
    const sys_seconds moment{seconds(secondsSinceEpoch)};
    const sys_days day = floor<days>(moment);
    const year_month_day date(day);
    const hh_mm_ss time(moment - day);
    return fmt::format("{:04}-{:02}-{:02}T{:02}:{:02}:{:02}Z", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()),
                       time.hours().count(), time.minutes().count(), time.seconds().count());
}

} // namespace inchpeg
