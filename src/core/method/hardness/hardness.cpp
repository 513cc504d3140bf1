// SPDX-License-Identifier: GPL-3.0-or-later
// ISO 868:2003 (from memory): five readings at least 6 mm apart, read 15 s after contact; a reading below 10
// is not exact; above 90 on scale A the scale D is used, below 20 on scale D the scale A.
#include "core/method/hardness/hardness.h"

#include "core/stats/summary.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::size_t kReadings = 5;
constexpr double kDwell_s = 15.0;
constexpr double kDwellApart_s = 1.0;
constexpr double kScaleEnd = 100.0;
constexpr double kLowestOfA = 10.0;
constexpr double kLowestOfD = 20.0;
constexpr double kHighestOfA = 90.0;

Check withinScale(const HardnessResult &result, ShoreScale scale)
{
    const bool isA = scale == ShoreScale::A;
    const bool isWithin =
        isA ? result.hardness >= kLowestOfA && result.hardness <= kHighestOfA : result.hardness >= kLowestOfD;
    return {"the scale fits the material", isWithin,
            isA ? "scale A reads well from 10 to 90; above it take D"
                : "scale D reads well from 20; below it take A"};
}

} // namespace

Result<HardnessResult> reduceHardness(std::span<const double> readings, const HardnessParameters &parameters)
{
    if (readings.empty())
        return Error{ErrorCode::TooFewPoints, "the record holds no hardness", {}};
    for (std::size_t i = 0; i < readings.size(); ++i) {
        if (!(readings[i] >= 0.0 && readings[i] <= kScaleEnd))
            return badInput(
                fmt::format("reading {} is {:g}; a durometer reads 0 to 100", i + 1, readings[i]));
    }
    const Summary summary = summarise(readings);
    HardnessResult result;
    result.n = summary.n;
    result.hardness = *summary.mean;
    result.sd = summary.sd;
    result.validity.push_back(withinScale(result, parameters.scale));
    result.validity.push_back(
        {"five readings or more", result.n >= kReadings,
         fmt::format("{} on this piece, 6 mm apart and 12 mm from its edges (ISO 868)", result.n)});
    if (parameters.dwell) {
        const double dwell_s = parameters.dwell->si();
        result.validity.push_back(
            {"read 15 s after contact", std::abs(dwell_s - kDwell_s) <= kDwellApart_s,
             fmt::format("{:g} s: polymers give way, so other times read otherwise", dwell_s)});
    }
    return result;
}

} // namespace inchpeg
