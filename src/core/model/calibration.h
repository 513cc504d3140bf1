// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// One point of a calibration: a known load, length or mass, and what the gauge showed.
struct CalibrationPoint {
    double applied = 0.0;
    double shown = 0.0;
    bool operator==(const CalibrationPoint &) const = default;
};

/// One calibration of a rig or gauge. Values are in the unit of the gauge.
struct Calibration {
    std::string on;                       ///< "2026-03-01"
    std::string due;                      ///< the last day on which it holds; empty: none is set
    std::vector<CalibrationPoint> points; ///< rising in what was shown
    double factor = 1.0;                  ///< true value over the shown one; without effect along points
    bool alongPoints = false; ///< readings are corrected along the points instead of by the factor
    std::optional<double> uncertainty_percent; ///< expanded (k = 2), of the reading
    std::string by;                            ///< who, or the number of the certificate
    bool operator==(const Calibration &) const = default;
};

/// What a gauge was at the time of a reading; kept with the reading, whatever becomes of the gauge's card.
struct UsedGauge {
    std::string name;
    std::string usedAt;                     ///< the day of the reading, "2026-06-01"
    std::optional<Calibration> calibration; ///< the one that was in force, or the last before
    double compliance_mm_per_N = 0.0;       ///< of a frame, taken off the travel of its crosshead
    bool operator==(const UsedGauge &) const = default;
};

/// The true value behind a shown one: along the points by straight lines, the last pieces prolonged; else
/// shown times factor.
double correctedReading(const Calibration &calibration, double shown);

/// The factor that fits the points best: least squares through zero of applied over shown.
/// Errors: InvalidArgument without a point, or where all points show zero.
Result<double> factorOf(std::span<const CalibrationPoint> points);

/// The newest calibration made on that day or before; nothing where there is none.
const Calibration *calibrationOn(const std::vector<Calibration> &calibrations, std::string_view day);

bool isExpired(const UsedGauge &used);
/// What must be known about a reading because of its gauge's calibration: expired at the time, or none at
/// all although the gauge has others. Empty where nothing must.
std::string calibrationWarning(const UsedGauge &used);

/// Errors: InvalidArgument for a day that is none, a due day before the calibration, a factor that is not
/// positive, and fewer than two or falling points where readings go along them.
Status checkCalibration(const Calibration &calibration);

/// "2026-06-01": nothing for anything else, or a day that does not exist.
bool isDay(std::string_view text);

} // namespace inchpeg
