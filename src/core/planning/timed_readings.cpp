// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/timed_readings.h"

#include "core/base/utc_time.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kMinute_s = 60.0;
constexpr double kHour_s = 3600.0;
constexpr double kToleranceShare = 0.05;
constexpr double kLeastTolerance_s = 2.0;

/// Of the due time that a moment is nearest to.
std::size_t nearest(std::span<const double> due_s, double at_s)
{
    const auto found = std::min_element(due_s.begin(), due_s.end(), [at_s](double a, double b) {
        return std::abs(a - at_s) < std::abs(b - at_s);
    });
    return static_cast<std::size_t>(found - due_s.begin());
}

DueState stateOf(double due_s, double now_s, bool isPast)
{
    if (isPast)
        return DueState::Missed;
    if (now_s < due_s)
        return DueState::Ahead;
    return now_s <= due_s + tolerance_s(due_s) ? DueState::Now : DueState::Overdue;
}

/// The next one of a piece under load, or the load's end.
std::optional<DueReading> dueOf(const LoadedRun &run, Method method, std::int64_t now)
{
    const std::optional<std::int64_t> loaded = secondsSinceEpoch(run.loadedAt);
    if (!loaded || run.isOver)
        return std::nullopt;
    DueReading due;
    const std::optional<std::int64_t> unloaded = secondsSinceEpoch(run.unloadedAt);
    if (unloaded) {
        due.what = "set after unloading";
        due.due = *unloaded + static_cast<std::int64_t>(kSetAfter_s);
        due.state = stateOf(kSetAfter_s, static_cast<double>(now - *unloaded), false);
        return due;
    }
    const std::span<const double> times = dueTimes_s(method);
    const std::vector<TimedReading> readings =
        timedReadings(times, run.taken_s, static_cast<double>(now - *loaded));
    const std::optional<std::size_t> next = nextReading(readings);
    if (!next) {
        due.what = "take the load off";
        due.due = *loaded + static_cast<std::int64_t>(times.back());
        due.state = DueState::Now;
        due.canWait = true;
        return due;
    }
    due.what = dueReadingName(times[*next]);
    due.due = *loaded + static_cast<std::int64_t>(times[*next]);
    due.state = readings[*next].state;
    return due;
}

} // namespace

bool isTimed(Method method)
{
    return !dueTimes_s(method).empty();
}

std::span<const double> dueTimes_s(Method method)
{
    return factsOf(method).due_s;
}

std::string dueReadingName(double due_s)
{
    if (due_s < 1.0)
        return "creep reading at once";
    return due_s < kHour_s ? fmt::format("creep reading after {:g} min", due_s / kMinute_s)
                           : fmt::format("creep reading after {:g} h", due_s / kHour_s);
}

double tolerance_s(double due_s)
{
    return std::max(kLeastTolerance_s, kToleranceShare * due_s);
}

std::vector<TimedReading> timedReadings(std::span<const double> due_s, std::span<const double> taken_s,
                                        double now_s)
{
    std::vector<TimedReading> readings;
    for (const double due : due_s)
        readings.push_back({due, DueState::Ahead, {}});
    if (readings.empty())
        return readings;
    for (const double taken : taken_s) {
        TimedReading &reading = readings[nearest(due_s, taken)];
        if (!reading.taken_s)
            reading.taken_s = taken;
    }
    for (std::size_t i = 0; i < readings.size(); ++i) {
        TimedReading &reading = readings[i];
        if (reading.taken_s) {
            const bool isInTime = std::abs(*reading.taken_s - reading.due_s) <= tolerance_s(reading.due_s);
            reading.state = isInTime ? DueState::Taken : DueState::TakenLate;
            continue;
        }
        const bool isLaterTaken = std::any_of(readings.begin() + static_cast<std::ptrdiff_t>(i) + 1,
                                              readings.end(), [](const auto &one) { return one.taken_s; });
        reading.state = stateOf(reading.due_s, now_s, isLaterTaken || nearest(due_s, now_s) > i);
    }
    return readings;
}

std::optional<std::size_t> nextReading(std::span<const TimedReading> readings)
{
    const auto waits = [](const TimedReading &one) {
        return one.state == DueState::Now || one.state == DueState::Overdue || one.state == DueState::Ahead;
    };
    const auto found = std::find_if(readings.begin(), readings.end(), waits);
    return found == readings.end() ? std::nullopt
                                   : std::optional(static_cast<std::size_t>(found - readings.begin()));
}

std::vector<DueReading> dueReadings(const Study &study, std::int64_t now)
{
    std::vector<DueReading> all;
    for (const Piece &piece : study.pieces) {
        if (!piece.log.run || piece.exclusion || !factsOf(piece.test).isLeftUnderLoad)
            continue;
        std::optional<DueReading> due = dueOf(*piece.log.run, piece.test, now);
        if (!due)
            continue;
        due->study = study.id;
        due->piece = piece.id;
        due->code = piece.code;
        all.push_back(std::move(*due));
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const DueReading &a, const DueReading &b) { return a.due < b.due; });
    return all;
}

std::string durationText(double seconds)
{
    const auto whole = static_cast<std::int64_t>(std::llround(std::abs(seconds)));
    if (whole < 120)
        return fmt::format("{:.1f} s", std::abs(seconds));
    if (whole < 600)
        return fmt::format("{} min {:02} s", whole / 60, whole % 60);
    if (whole < 3600)
        return fmt::format("{} min", whole / 60);
    if (whole < 86400)
        return fmt::format("{} h {:02} min", whole / 3600, whole % 3600 / 60);
    return fmt::format("{} d {} h", whole / 86400, whole % 86400 / 3600);
}

std::string countdownText(double seconds)
{
    const double whole = std::round(std::abs(seconds));
    if (whole < 1.0)
        return "now";
    const std::string length = whole < 120.0 ? fmt::format("{:.0f} s", whole) : durationText(whole);
    return seconds > 0.0 ? "in " + length : length + " ago";
}

} // namespace inchpeg
