// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/calibration.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>

namespace inchpeg
{

namespace
{

std::optional<int> digits(std::string_view text)
{
    int value = 0;
    const auto [end, failure] = std::from_chars(text.data(), text.data() + text.size(), value);
    return failure == std::errc() && end == text.data() + text.size() ? std::optional(value) : std::nullopt;
}

} // namespace

bool isDay(std::string_view text)
{
    if (text.size() != 10 || text[4] != '-' || text[7] != '-')
        return false;
    const auto year = digits(text.substr(0, 4));
    const auto month = digits(text.substr(5, 2));
    const auto day = digits(text.substr(8, 2));
    return year && month && day && *month > 0 && *day > 0 &&
           std::chrono::year_month_day(std::chrono::year(*year),
                                       std::chrono::month(static_cast<unsigned>(*month)),
                                       std::chrono::day(static_cast<unsigned>(*day)))
               .ok();
}

double correctedReading(const Calibration &calibration, double shown)
{
    const std::vector<CalibrationPoint> &points = calibration.points;
    if (!calibration.alongPoints || points.size() < 2)
        return calibration.factor * shown;
    const auto above =
        std::lower_bound(points.begin() + 1, points.end() - 1, shown,
                         [](const CalibrationPoint &point, double value) { return point.shown < value; });
    const CalibrationPoint &high = *above;
    const CalibrationPoint &low = *(above - 1);
    return low.applied + (high.applied - low.applied) * (shown - low.shown) / (high.shown - low.shown);
}

Result<double> factorOf(std::span<const CalibrationPoint> points)
{
    double products = 0.0;
    double squares = 0.0;
    for (const CalibrationPoint &point : points) {
        products += point.applied * point.shown;
        squares += point.shown * point.shown;
    }
    if (!(squares > 0.0))
        return invalidArgument("a factor needs at least one point where the gauge shows something");
    return products / squares;
}

const Calibration *calibrationOn(const std::vector<Calibration> &calibrations, std::string_view day)
{
    const Calibration *newest = nullptr;
    for (const Calibration &one : calibrations) {
        if (one.on <= day && (newest == nullptr || newest->on <= one.on))
            newest = &one;
    }
    return newest;
}

bool isExpired(const UsedGauge &used)
{
    return used.calibration && !used.calibration->due.empty() && used.calibration->due < used.usedAt;
}

std::string calibrationWarning(const UsedGauge &used)
{
    if (!isExpired(used))
        return {};
    return fmt::format("{} was used on {}, but its calibration of {} held only until {}: have it calibrated, "
                       "and judge these results by what is found",
                       used.name, used.usedAt, used.calibration->on, used.calibration->due);
}

Status checkCalibration(const Calibration &calibration)
{
    if (!isDay(calibration.on))
        return invalidArgument(
            fmt::format("\"{}\" is no day; a calibration's day is written like 2026-03-01", calibration.on));
    if (!calibration.due.empty() && !isDay(calibration.due))
        return invalidArgument(
            fmt::format("\"{}\" is no day; the day it is due is written like 2027-03-01", calibration.due));
    if (!calibration.due.empty() && calibration.due < calibration.on)
        return invalidArgument(fmt::format("the calibration of {} would be due before it was made, on {}",
                                           calibration.on, calibration.due));
    if (!(calibration.factor > 0.0) || !std::isfinite(calibration.factor))
        return invalidArgument(fmt::format("the calibration of {}: its factor must be above zero (true value "
                                           "over the shown one)",
                                           calibration.on));
    if (calibration.uncertainty_percent && !(*calibration.uncertainty_percent >= 0.0))
        return invalidArgument(
            fmt::format("the calibration of {}: its uncertainty must not be below zero", calibration.on));
    for (std::size_t i = 1; i < calibration.points.size(); ++i) {
        if (!(calibration.points[i].shown > calibration.points[i - 1].shown))
            return invalidArgument(
                fmt::format("the calibration of {}: its points must rise in what the gauge "
                            "showed; {:g} does not lie above {:g}",
                            calibration.on, calibration.points[i].shown, calibration.points[i - 1].shown));
    }
    if (calibration.alongPoints && calibration.points.size() < 2)
        return invalidArgument(fmt::format(
            "the calibration of {}: a correction along its points needs at least two", calibration.on));
    return ok();
}

} // namespace inchpeg
