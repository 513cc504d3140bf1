// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/heat/softening.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kSlowRate_K_per_h = 50.0; ///< ISO 306: 50 ± 5 or 120 ± 10 K/h
constexpr double kFastRate_K_per_h = 120.0;
constexpr double kRateTolerance = 0.10;

bool isNear(double rate_K_per_h, double wanted_K_per_h)
{
    return std::abs(rate_K_per_h - wanted_K_per_h) <= kRateTolerance * wanted_K_per_h;
}

Check checkRate(double rate_K_per_h, const std::optional<double> &wanted_K_per_h)
{
    const std::string shown = marked(rate_K_per_h, Dimension::HeatingRate, 3);
    if (wanted_K_per_h)
        return {fmt::format("heated at {:g} K/h", *wanted_K_per_h), isNear(rate_K_per_h, *wanted_K_per_h),
                fmt::format("{}; {:g} ± {:g} K/h is wanted (ISO 306)", shown, *wanted_K_per_h,
                            kRateTolerance * *wanted_K_per_h)};
    return {"heated at 50 or 120 K/h",
            isNear(rate_K_per_h, kSlowRate_K_per_h) || isNear(rate_K_per_h, kFastRate_K_per_h),
            fmt::format("{}; 50 ± 5 or 120 ± 12 K/h is wanted (ISO 306)", shown)};
}

/// The sample from which on the deflection stays above the threshold; nothing where it does not.
std::optional<std::size_t> staysAbove(std::span<const double> deflection_mm, double threshold_mm)
{
    std::size_t first = deflection_mm.size();
    while (first > 0 && deflection_mm[first - 1] > threshold_mm)
        --first;
    return first < deflection_mm.size() ? std::optional(first) : std::nullopt;
}

/// What the probe shows late is taken back. Errors: InvalidArgument for a lag without a heating rate.
Status takeBackLag(SofteningResult &result, double lag_s)
{
    if (lag_s > 0.0 && !result.heatingRate_K_per_h)
        return invalidArgument(
            "lag needs the heating rate, and so a time column in the record, or heating_rate");
    if (result.shown_C)
        result.temperature_C =
            *result.shown_C - lag_s * result.heatingRate_K_per_h.value_or(0.0) / kSecondsPerHour;
    return ok();
}

/// A person saw the first sag at a temperature.
Result<SofteningResult> firstSag(const WarmingRecord &record, const SofteningParameters &parameters)
{
    if (record.temperature_C.size() > 1)
        return invalidArgument(
            "the record has no deflection: a deflection over the temperature is wanted, or "
            "a single row with the temperature of the first sag");
    SofteningResult result;
    result.shown_C = record.temperature_C.front();
    result.highest_C = *result.shown_C;
    result.heatingRate_K_per_h = parameters.saidRate_K_per_h;
    if (const Status taken = takeBackLag(result, parameters.lag_s); !taken)
        return taken.error();
    result.warnings.emplace_back(
        "the first sag as it was seen: no threshold decided, so it is not to be held "
        "against a needle's temperature");
    return result;
}

} // namespace

Result<SofteningResult> reduceSoftening(const WarmingRecord &record, const SofteningParameters &parameters)
{
    const double threshold_mm = in_mm(parameters.threshold);
    if (!(threshold_mm > 0.0))
        return invalidArgument(fmt::format(
            "threshold is {:g} mm; a depth above zero, 1 mm for a needle, is wanted", threshold_mm));
    if (parameters.lag_s < 0.0)
        return invalidArgument(
            fmt::format("lag is {:g} s; the time by which the probe is late is wanted", parameters.lag_s));
    const std::size_t n = record.temperature_C.size();
    if (record.deflection_mm.empty() && n > 0)
        return firstSag(record, parameters);
    require(record.deflection_mm.size() == n && (record.time_s.empty() || record.time_s.size() == n),
            "reduceSoftening(): columns of different lengths");
    if (n < 2)
        return Error{
            ErrorCode::TooFewPoints,
            fmt::format("the record holds {} sample; deflections over a rising temperature are wanted", n),
            {}};
    SofteningResult result;
    result.heatingRate_K_per_h = heatingRate_K_per_h(record);
    if (!result.heatingRate_K_per_h)
        result.heatingRate_K_per_h = parameters.saidRate_K_per_h;
    result.highest_C = *std::max_element(record.temperature_C.begin(), record.temperature_C.end());
    result.deflection_mm = record.deflection_mm;
    turnUpright(result.deflection_mm, "deflection", result.warnings);
    const std::optional<std::size_t> first = staysAbove(result.deflection_mm, threshold_mm);
    if (first && *first > 0) {
        const double before = result.deflection_mm[*first - 1];
        const double here = result.deflection_mm[*first];
        result.shown_C = std::lerp(record.temperature_C[*first - 1], record.temperature_C[*first],
                                   (threshold_mm - before) / (here - before));
    } else if (first) {
        result.warnings.emplace_back(
            "the deflection is above the threshold from the first sample on: zero the dial before warming");
    }
    if (const Status taken = takeBackLag(result, parameters.lag_s); !taken)
        return taken.error();
    if (result.heatingRate_K_per_h)
        result.validity.push_back(checkRate(*result.heatingRate_K_per_h, parameters.wantedRate_K_per_h));
    else
        result.warnings.emplace_back("no time in the record: the heating rate was not checked");
    result.validity.push_back(warmsThroughout(record, first));
    result.validity.push_back(
        {"the threshold is passed", result.temperature_C.has_value(),
         fmt::format("deepest {} up to {}, threshold {}",
                     marked(*std::max_element(result.deflection_mm.begin(), result.deflection_mm.end()),
                            Dimension::Length, 3),
                     marked(result.highest_C, Dimension::Temperature, 3),
                     marked(threshold_mm, Dimension::Length, 3))});
    return result;
}

} // namespace inchpeg
