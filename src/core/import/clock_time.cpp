// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/clock_time.h"

#include "core/units/number.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <chrono>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kDay_s = 86400.0;
constexpr int kMinutesOfHour = 60;

/// Takes numbers and marks off the front of a text.
class Taker
{
public:
    explicit Taker(std::string_view text) : m_rest(text) {}

    std::optional<int> digits(std::size_t atLeast, std::size_t atMost)
    {
        std::size_t n = 0;
        while (n < m_rest.size() && n <= atMost && isDigit(m_rest[n]))
            ++n;
        if (n < atLeast || n > atMost)
            return std::nullopt;
        int value = 0;
        std::from_chars(m_rest.data(), m_rest.data() + n, value);
        m_rest.remove_prefix(n);
        return value;
    }
    bool take(char c)
    {
        const bool isThere = m_rest.starts_with(c);
        if (isThere)
            m_rest.remove_prefix(1);
        return isThere;
    }
    std::optional<char> takeOneOf(std::string_view marks)
    {
        if (m_rest.empty() || marks.find(m_rest.front()) == std::string_view::npos)
            return std::nullopt;
        const char mark = m_rest.front();
        m_rest.remove_prefix(1);
        return mark;
    }
    void skipBlanks() { m_rest = trimmed(m_rest); }
    /// The digits of a fraction as a number below one.
    double fraction()
    {
        double value = 0.0;
        for (double place = 0.1; !m_rest.empty() && isDigit(m_rest.front()); place *= 0.1) {
            value += place * (m_rest.front() - '0');
            m_rest.remove_prefix(1);
        }
        return value;
    }
    [[nodiscard]] std::string_view rest() const { return m_rest; }
    void skip(std::size_t n) { m_rest.remove_prefix(n); }

private:
    std::string_view m_rest;
};

struct TimeOfDay {
    int first = 0;
    int second = 0;
    std::optional<double> third;            ///< seconds, where there are three parts
    std::optional<double> fractionOfSecond; ///< behind the second of two parts
    std::optional<bool> isAfternoon;
    double zone_s = 0.0;
};

struct Date {
    bool isWritten = false;
    bool yearFirst = false;
    bool isDotted = false; ///< "1.12.2026": the day stands first
    int a = 0;
    int b = 0;
    int c = 0;
};

struct WrittenClock {
    Date date;
    TimeOfDay time;
};

std::optional<Date> takeDate(Taker &taker)
{
    Date date;
    const std::size_t firstMark = taker.rest().find_first_of("-/.:");
    if (firstMark == std::string_view::npos || taker.rest()[firstMark] == ':' || firstMark > 4)
        return date;
    const std::optional<int> a = taker.digits(1, 4);
    const std::optional<char> mark = taker.takeOneOf("-/.");
    const std::optional<int> b = mark ? taker.digits(1, 2) : std::nullopt;
    const std::optional<int> c = b && taker.take(*mark) ? taker.digits(1, 4) : std::nullopt;
    if (!a || !c)
        return std::nullopt;
    date = {true, firstMark == 4, *mark == '.' && firstMark < 4, *a, *b, *c};
    if (!taker.take('T') && !taker.take('t')) {
        taker.take(',');
        if (!taker.rest().starts_with(' ') && !taker.rest().starts_with('\t'))
            return std::nullopt; // a day without a time is no clock
        taker.skipBlanks();
    }
    return date;
}

std::optional<double> takeZone(Taker &taker)
{
    if (taker.rest().empty() || taker.take('Z'))
        return 0.0;
    const std::optional<char> sign = taker.takeOneOf("+-");
    const std::optional<int> hours = sign ? taker.digits(2, 2) : std::nullopt;
    if (!hours)
        return std::nullopt;
    taker.take(':');
    const int minutes = taker.digits(2, 2).value_or(0);
    return (*sign == '-' ? -1.0 : 1.0) * 60.0 * (*hours * kMinutesOfHour + minutes);
}

std::optional<TimeOfDay> takeTime(Taker &taker)
{
    TimeOfDay time;
    const std::optional<int> first = taker.digits(1, 4);
    const std::optional<int> second = first && taker.take(':') ? taker.digits(2, 2) : std::nullopt;
    if (!second || *second >= kMinutesOfHour)
        return std::nullopt;
    time.first = *first;
    time.second = *second;
    if (taker.take(':')) {
        const std::optional<int> third = taker.digits(2, 2);
        if (!third || *third > kMinutesOfHour) // a leap second is written as 60
            return std::nullopt;
        time.third = *third;
        if (taker.takeOneOf(".,:"))
            *time.third += taker.fraction();
    } else if (taker.takeOneOf(".,")) {
        time.fractionOfSecond = taker.fraction();
    }
    taker.skipBlanks();
    for (const std::string_view half : {"AM", "PM", "am", "pm", "a.m.", "p.m."}) {
        if (taker.rest().starts_with(half)) {
            time.isAfternoon = (half[0] | 0x20) == 'p';
            taker.skip(half.size());
            break;
        }
    }
    const std::optional<double> zone = takeZone(taker);
    if (!zone || !taker.rest().empty())
        return std::nullopt;
    time.zone_s = *zone;
    return time;
}

std::optional<WrittenClock> writtenClock(std::string_view text)
{
    Taker taker(trimmed(text));
    if (taker.rest().empty() || !isDigit(taker.rest().front()))
        return std::nullopt;
    const std::optional<Date> date = takeDate(taker);
    const std::optional<TimeOfDay> time = date ? takeTime(taker) : std::nullopt;
    if (!time)
        return std::nullopt;
    return WrittenClock{*date, *time};
}

std::optional<double> daySeconds(const Date &date, DateOrder order)
{
    const auto twoDigits = [](int year) { return year < 100 ? 2000 + year : year; };
    const bool monthFirst = !date.isDotted && order == DateOrder::MonthFirst;
    const int year = date.yearFirst ? date.a : twoDigits(date.c);
    const int month = date.yearFirst || !monthFirst ? date.b : date.a;
    const int day = date.yearFirst ? date.c : monthFirst ? date.b : date.a;
    const std::chrono::year_month_day written{std::chrono::year(year),
                                              std::chrono::month(static_cast<unsigned>(month)),
                                              std::chrono::day(static_cast<unsigned>(day))};
    if (!written.ok())
        return std::nullopt;
    return kDay_s * static_cast<double>(std::chrono::sys_days(written).time_since_epoch().count());
}

} // namespace

std::optional<ClockForm> clockFormOf(std::span<const std::string_view> cells)
{
    ClockForm form;
    bool any = false;
    bool mayBeDayFirst = true;
    bool mayBeMonthFirst = true;
    bool hasHalves = false;
    bool isMinutes = false;
    std::optional<Date> firstDate;
    bool daysDiffer = false;
    for (const std::string_view cell : cells) {
        if (trimmed(cell).empty())
            continue;
        const std::optional<WrittenClock> clock = writtenClock(cell);
        if (!clock || (any && clock->date.isWritten != form.hasDate))
            return std::nullopt;
        const Date &date = clock->date;
        any = true;
        form.hasDate = date.isWritten;
        if (date.isWritten && !date.yearFirst && !date.isDotted) {
            mayBeDayFirst = mayBeDayFirst && date.b <= 12;
            mayBeMonthFirst = mayBeMonthFirst && date.a <= 12;
            firstDate = firstDate.value_or(date);
            daysDiffer =
                daysDiffer || date.a != firstDate->a || date.b != firstDate->b || date.c != firstDate->c;
        }
        const TimeOfDay &time = clock->time;
        hasHalves = hasHalves || time.isAfternoon.has_value();
        if (!time.third) {
            form.isTwoParts = true;
            isMinutes = isMinutes || time.fractionOfSecond.has_value() || time.first >= 24;
        }
    }
    if (!any)
        return std::nullopt;
    form.isMinutes = form.isTwoParts && isMinutes && !form.hasDate;
    form.isTwoParts = form.isTwoParts && !form.isMinutes && !form.hasDate && !hasHalves;
    if (!firstDate)
        form.order = DateOrder::DayFirst; // year, month and day, or dots: the text tells
    if (firstDate) {
        const bool monthFirst = !mayBeDayFirst || (hasHalves && mayBeMonthFirst);
        form.order = monthFirst         ? DateOrder::MonthFirst
                     : !mayBeMonthFirst ? DateOrder::DayFirst
                                        : DateOrder::Unknown;
        form.orderMatters = form.order == DateOrder::Unknown && daysDiffer;
    }
    return form;
}

std::optional<double> clockSeconds(std::string_view text, const ClockForm &form)
{
    const std::optional<WrittenClock> clock = writtenClock(text);
    if (!clock || clock->date.isWritten != form.hasDate)
        return std::nullopt;
    const TimeOfDay &time = clock->time;
    double seconds = 0.0;
    if (!time.third && form.isMinutes) {
        seconds = 60.0 * time.first + time.second + time.fractionOfSecond.value_or(0.0);
    } else {
        int hours = time.first;
        if (time.isAfternoon)
            hours = hours % 12 + (*time.isAfternoon ? 12 : 0);
        seconds = 3600.0 * hours + 60.0 * time.second + time.third.value_or(0.0);
    }
    if (!form.hasDate)
        return seconds;
    const std::optional<double> day = daySeconds(clock->date, form.order);
    if (!day)
        return std::nullopt;
    return *day + seconds - time.zone_s;
}

} // namespace inchpeg
