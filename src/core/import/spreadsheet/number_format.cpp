// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/number_format.h"

#include "core/units/number.h"
#include "core/units/unit.h"

#include <fmt/format.h>

#include <chrono>
#include <cmath>
#include <cstdint>

namespace inchpeg
{

namespace
{

/// A format's first section without its literal text, in lower case, and the literals.
struct FormatParts {
    std::string codes;
    std::string literals;
    bool isElapsed = false; ///< "[h]:mm": hours that pass 24
};

FormatParts partsOf(std::string_view format)
{
    FormatParts parts;
    for (std::size_t i = 0; i < format.size() && format[i] != ';'; ++i) {
        const char c = format[i];
        if (c == '"') {
            const std::size_t end = format.find('"', i + 1);
            parts.literals += format.substr(i + 1, end == std::string_view::npos ? end : end - i - 1);
            if (end == std::string_view::npos)
                break;
            i = end;
        } else if (c == '\\' || c == '_' || c == '*') {
            if (c == '\\' && i + 1 < format.size())
                parts.literals += format[i + 1];
            ++i;
        } else if (c == '[') {
            const std::size_t end = format.find(']', i);
            if (end == std::string_view::npos)
                break;
            const char first = static_cast<char>(format[i + 1] | 0x20);
            parts.isElapsed = parts.isElapsed || ((first == 'h' || first == 'm' || first == 's') &&
                                                  format[end - 1] == format[i + 1]);
            i = end;
        } else {
            parts.codes += c >= 'A' && c <= 'Z' ? static_cast<char>(c + 0x20) : c;
        }
    }
    return parts;
}

} // namespace

NumberLook lookOf(std::string_view format)
{
    const FormatParts parts = partsOf(format);
    const auto has = [&](std::string_view codes) {
        return parts.codes.find_first_of(codes) != std::string::npos;
    };
    if (parts.codes == "general" || parts.codes == "standard")
        return {};
    if (has("%"))
        return {ShownAs::Percent, {}};
    if (parts.isElapsed)
        return {ShownAs::TimeOfDay, {}};
    const bool isNumber = has("0#?");
    if (!isNumber || has("y")) {
        if (has("yd"))
            return {ShownAs::Day, {}};
        if (has("hs"))
            return {ShownAs::TimeOfDay, {}};
        if (has("m"))
            return {ShownAs::Day, {}};
    }
    if (has("hs") && has(":")) // "hh:mm:ss.000" has digits of its own
        return {has("d") ? ShownAs::Day : ShownAs::TimeOfDay, {}};
    const std::string_view unit = trimmed(parts.literals);
    return {ShownAs::Number, findUnit(unit) ? std::string(unit) : std::string()};
}

NumberLook builtInLook(std::size_t id)
{
    if (id == 9 || id == 10)
        return {ShownAs::Percent, {}};
    if ((id >= 14 && id <= 17) || id == 22 || (id >= 27 && id <= 31) || id == 36 || (id >= 50 && id <= 58))
        return {ShownAs::Day, {}};
    if ((id >= 18 && id <= 21) || (id >= 32 && id <= 35) || (id >= 45 && id <= 47))
        return {ShownAs::TimeOfDay, {}};
    return {};
}

std::string dayText(std::string_view number, ShownAs as, bool startsIn1904)
{
    const Cell cell = readCell(number, {});
    constexpr double kMostDays = 2958466.0; // the end of the year 9999
    if (cell.kind != CellKind::Number || cell.value < 0.0 || cell.value > kMostDays)
        return std::string(number);
    // A double holds a day of this century to half a microsecond.
    constexpr std::int64_t kTenthsOfMs_per_s = 10000;
    constexpr std::int64_t kPerDay = 86400 * kTenthsOfMs_per_s;
    const auto ticks = static_cast<std::int64_t>(std::llround(cell.value * static_cast<double>(kPerDay)));
    const auto clock = [](std::int64_t t) {
        const std::int64_t s = t / kTenthsOfMs_per_s;
        std::string text = fmt::format("{:02}:{:02}:{:02}", s / 3600, s / 60 % 60, s % 60);
        if (const std::int64_t rest = t % kTenthsOfMs_per_s; rest != 0) {
            text += fmt::format(".{:04}", rest);
            text.erase(text.find_last_not_of('0') + 1);
        }
        return text;
    };
    if (as == ShownAs::TimeOfDay)
        return clock(ticks);
    const std::chrono::sys_days first = startsIn1904
                                            ? std::chrono::sys_days(std::chrono::year(1904) / 1 / 1)
                                            : std::chrono::sys_days(std::chrono::year(1899) / 12 / 30);
    const std::chrono::year_month_day day(first + std::chrono::days(ticks / kPerDay));
    const std::string date =
        fmt::format("{:04}-{:02}-{:02}", int(day.year()), unsigned(day.month()), unsigned(day.day()));
    return ticks % kPerDay == 0 ? date : date + "T" + clock(ticks % kPerDay);
}

} // namespace inchpeg
