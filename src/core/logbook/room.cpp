// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/room.h"

#include "core/text/notation.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kStandard_C = 23.0;
constexpr double kReach_K = 2.0;
constexpr double kStandard_percent = 50.0;
constexpr double kReach_percent = 10.0;
constexpr double kColdest_C = -20.0;
constexpr double kWarmest_C = 60.0;

} // namespace

Result<RoomReading> roomFrom(std::string_view text, const Unit &temperatureUnit)
{
    const auto wanted = [&] {
        return badInput(
            fmt::format("\"{}\" is no room: write its temperature and humidity, as in 23 °C, 50 %", text));
    };
    std::string_view rest = trimmed(text);
    const std::size_t digits = numberPrefixLength(rest);
    const std::optional<double> temperature = parseTypedNumber(rest.substr(0, digits));
    if (!temperature)
        return wanted();
    rest = trimmed(rest.substr(digits));
    Unit unit = temperatureUnit;
    for (const std::string_view symbol : {"°C", "°F", "K"}) {
        if (rest.starts_with(symbol)) {
            unit = *findUnit(symbol);
            rest = trimmed(rest.substr(symbol.size()));
            break;
        }
    }
    while (!rest.empty() && (rest.front() == ',' || rest.front() == ';'))
        rest = trimmed(rest.substr(1));
    const std::size_t percent = numberPrefixLength(rest);
    const std::optional<double> humidity = parseTypedNumber(rest.substr(0, percent));
    const std::string_view end = humidity ? trimmed(rest.substr(percent)) : rest;
    if (!humidity || !(end.empty() || end == "%"))
        return wanted();
    RoomReading room;
    room.temperature_C = unit.toWorking(*temperature);
    room.humidity_percent = *humidity;
    if (room.humidity_percent < 0.0 || room.humidity_percent > 100.0)
        return badInput("a humidity lies between 0 and 100 %");
    if (room.temperature_C < kColdest_C || room.temperature_C > kWarmest_C)
        return badInput(
            fmt::format("a room at {:.0f} °C is none to test in; is the unit right?", room.temperature_C));
    return room;
}

const RoomReading *roomBetween(const StudyLog &log, std::string_view from, std::string_view to)
{
    for (auto room = log.rooms.rbegin(); room != log.rooms.rend(); ++room) {
        if (room->when >= from && room->when < to) // moments in UTC follow each other as texts too
            return &*room;
    }
    return nullptr;
}

std::string roomSentence(const RoomReading &room)
{
    const bool isStandard = std::abs(room.temperature_C - kStandard_C) <= kReach_K &&
                            std::abs(room.humidity_percent - kStandard_percent) <= kReach_percent;
    if (isStandard)
        return {};
    return fmt::format(
        "The room is at {} and {:.0f} %: the standard atmosphere is {} and 50 %, within 2 K and 10 % "
        "(ISO 291).",
        marked(room.temperature_C, Dimension::Temperature, 3), room.humidity_percent,
        marked(kStandard_C, Dimension::Temperature, 3));
}

} // namespace inchpeg
