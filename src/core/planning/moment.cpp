// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/moment.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

using namespace std::chrono;

constexpr std::string_view kDayNames[] = {"Sun", "Mon", "Tue", "Wed", "Thu", "Fri", "Sat"};
constexpr std::string_view kMonthNames[] = {"Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                            "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};

std::optional<int> digits(std::string_view text, std::size_t at, std::size_t count)
{
    int value = 0;
    for (std::size_t i = at; i < at + count; ++i) {
        if (i >= text.size() || text[i] < '0' || text[i] > '9')
            return std::nullopt;
        value = 10 * value + (text[i] - '0');
    }
    return value;
}

} // namespace

Moment later(Moment moment, Minutes realTime, const ZoneOffset &offset)
{
    const Moment there = moment + realTime;
    return there + offset(there) - offset(moment);
}

Moment momentOf(std::int64_t secondsSinceEpoch, const ZoneOffset &offset)
{
    const Moment utc(floor<minutes>(seconds(secondsSinceEpoch)));
    // The offset is that of the local time itself, which is known only then.
    return utc + offset(utc + offset(utc));
}

local_days dayOf(Moment moment)
{
    return floor<days>(moment);
}

std::optional<Moment> momentFrom(std::string_view text)
{
    const std::optional<int> y = digits(text, 0, 4);
    const std::optional<int> m = digits(text, 5, 2);
    const std::optional<int> d = digits(text, 8, 2);
    if ((text.size() != 10 && text.size() != 16) || !y || !m || !d || text[4] != '-' || text[7] != '-')
        return std::nullopt;
    const year_month_day date{year{*y}, month{static_cast<unsigned>(*m)}, day{static_cast<unsigned>(*d)}};
    if (!date.ok())
        return std::nullopt;
    Minutes clock{0};
    if (text.size() == 16) {
        const std::optional<int> hour = digits(text, 11, 2);
        const std::optional<int> minute = digits(text, 14, 2);
        if (text[10] != 'T' || text[13] != ':' || !hour || !minute || *hour > 23 || *minute > 59)
            return std::nullopt;
        clock = Minutes{60 * *hour + *minute};
    }
    return Moment(local_days(date)) + clock;
}

std::string clockText(Moment moment)
{
    const auto minutes = (moment - Moment(dayOf(moment))).count();
    return fmt::format("{:02}:{:02}", minutes / 60, minutes % 60);
}

std::string momentText(Moment moment)
{
    const year_month_day date(dayOf(moment));
    return fmt::format("{:04}-{:02}-{:02}T{}", static_cast<int>(date.year()),
                       static_cast<unsigned>(date.month()), static_cast<unsigned>(date.day()),
                       clockText(moment));
}

std::string dayText(Moment moment)
{
    const local_days day = dayOf(moment);
    const year_month_day date(day);
    return fmt::format("{} {} {}", kDayNames[weekday(day).c_encoding()], static_cast<unsigned>(date.day()),
                       kMonthNames[static_cast<unsigned>(date.month()) - 1]);
}

} // namespace inchpeg
