// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/weibull.h"

#include "core/stats/distributions.h"

#include <boost/math/special_functions/gamma.hpp>
#include <boost/math/tools/roots.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// The sample as the likelihood sees it: logarithms below that of the largest value, so that no power
/// overflows.
struct LogSample {
    std::vector<double> logs; ///< at most 0
    double largestLog = 0.0;
    double broken = 0.0;        ///< values that are not bounds
    double meanBrokenLog = 0.0; ///< of those
};

struct PowerSums {
    double plain = 0.0;  ///< Σ x^k
    double first = 0.0;  ///< Σ x^k ln x
    double second = 0.0; ///< Σ x^k (ln x)²
};

PowerSums powerSums(const LogSample &sample, double shape)
{
    PowerSums sums;
    for (double log : sample.logs) {
        const double power = std::exp(shape * log);
        sums.plain += power;
        sums.first += power * log;
        sums.second += power * log * log;
    }
    return sums;
}

Result<LogSample> logSampleOf(std::span<const BoundedValue> values)
{
    LogSample sample;
    double logSum = 0.0;
    for (const BoundedValue &value : values) {
        if (!(value.value > 0.0))
            return badInput(
                fmt::format("{:g} is not above 0; a Weibull distribution has no such value", value.value));
        sample.logs.push_back(std::log(value.value));
        if (!value.isLowerBound) {
            sample.broken += 1.0;
            logSum += sample.logs.back();
        }
    }
    if (sample.broken == 0.0)
        return Error{
            ErrorCode::TooFewPoints, "all values are lower bounds; at least one that broke is wanted", {}};
    sample.largestLog = *std::max_element(sample.logs.begin(), sample.logs.end());
    sample.meanBrokenLog = logSum / sample.broken - sample.largestLog;
    for (double &log : sample.logs)
        log -= sample.largestLog;
    if (!(sample.meanBrokenLog < 0.0))
        return Error{ErrorCode::TooFewPoints,
                     "no value lies below the others; a Weibull shape wants values that differ",
                     {}};
    return sample;
}

/// Root of the likelihood's slope along the shape, the scale being at its best.
double shapeOf(const LogSample &sample)
{
    const auto slope = [&](double shape) {
        const PowerSums sums = powerSums(sample, shape);
        return sums.first / sums.plain - 1.0 / shape - sample.meanBrokenLog;
    };
    double high = 1.0;
    while (slope(high) < 0.0)
        high *= 2.0;
    double low = 0.5 * high;
    while (slope(low) > 0.0)
        low *= 0.5;
    std::uintmax_t steps = 200;
    const auto bracket = boost::math::tools::toms748_solve(
        slope, low, high, boost::math::tools::eps_tolerance<double>(50), steps);
    return 0.5 * (bracket.first + bracket.second);
}

Interval onLogScale(double value, double logError, double z)
{
    return {value * std::exp(-z * logError), value * std::exp(z * logError)};
}

/// Plain A² of the fitted distribution. logs as in LogSample, logScale in their units.
double andersonDarlingOf(std::vector<double> logs, double shape, double logScale)
{
    std::sort(logs.begin(), logs.end());
    const std::size_t count = logs.size();
    double sum = 0.0;
    for (std::size_t i = 0; i < count; ++i) {
        const double hazard = std::exp(shape * (logs[i] - logScale));
        const double mirrored = std::exp(shape * (logs[count - 1 - i] - logScale));
        sum += (2.0 * static_cast<double>(i) + 1.0) * (std::log(-std::expm1(-hazard)) - mirrored);
    }
    const auto n = static_cast<double>(count);
    return -n - sum / n;
}

} // namespace

Result<WeibullFit> fitWeibull(std::span<const BoundedValue> values, double confidence)
{
    const Result<LogSample> sample = logSampleOf(values);
    if (!sample)
        return sample.error();
    const double shape = shapeOf(*sample);
    const PowerSums sums = powerSums(*sample, shape);
    const double r = sample->broken;
    const double logScale = std::log(sums.plain / r) / shape; // below the largest value's
    const double scale = std::exp(logScale + sample->largestLog);
    // Observed information of (ln scale, ln shape); z = (x/scale)^shape sums to r at the maximum.
    const double zLog = r * sums.first / sums.plain - r * logScale;
    const double zLog2 =
        r * sums.second / sums.plain - 2.0 * logScale * r * sums.first / sums.plain + r * logScale * logScale;
    const double infoScale = shape * shape * r;
    const double infoShape = r + shape * shape * zLog2;
    const double infoBoth = -shape * shape * zLog;
    const double determinant = infoScale * infoShape - infoBoth * infoBoth;
    const double z = normalQuantile(0.5 + 0.5 * confidence);

    WeibullFit fit;
    fit.n = values.size();
    fit.bounds = values.size() - static_cast<std::size_t>(r);
    fit.shape = {shape, onLogScale(shape, std::sqrt(infoScale / determinant), z)};
    fit.scale = {scale, onLogScale(scale, std::sqrt(infoShape / determinant), z)};
    fit.logLikelihood = r * std::log(shape) - r * shape * logScale +
                        (shape - 1.0) * r * sample->meanBrokenLog - r * sample->largestLog - r;
    fit.b10 = scale * std::pow(-std::log1p(-0.1), 1.0 / shape);
    fit.b50 = scale * std::pow(std::log(2.0), 1.0 / shape);
    fit.mean = scale * boost::math::tgamma(1.0 + 1.0 / shape);
    if (fit.bounds == 0)
        fit.andersonDarling = andersonDarlingOf(sample->logs, shape, logScale);
    return fit;
}

} // namespace inchpeg
