// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/heat/heat_deflection.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/curve/straight_line.h"
#include "core/method/sizes.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr double kIsoStrain = 0.002;
constexpr double kAstmDeflection_mm = 0.25;
constexpr double kWantedRate_K_per_h = 120.0; ///< ISO 75-1: 120 ± 10 K/h; ASTM D648: 2 ± 0.2 K/min
constexpr double kRateTolerance_K_per_h = 12.0;
constexpr double kHottestStart_C = 27.0; ///< ISO 75-1: the bath begins below 27 °C

/// b and h as they are bent.
std::pair<double, double> bentSides_mm(const HeatDeflectionParameters &p)
{
    const std::pair sides{in_mm(p.width), in_mm(p.thickness)};
    return p.orientation == BarOrientation::Flatwise ? sides : std::pair{sides.second, sides.first};
}

Status checkParameters(const HeatDeflectionParameters &p)
{
    if (const Status status = checkSizes({{"width", p.width}, {"thickness", p.thickness}, {"span", p.span}});
        !status)
        return status;
    if (!(in_MPa(p.stress) > 0.0))
        return invalidArgument(fmt::format(
            "stress is {:g} MPa; 0.45, 1.80 or 8.00 MPa in the outer fibre are usual", in_MPa(p.stress)));
    return ok();
}

void check(HeatDeflectionResult &result, const WarmingRecord &record)
{
    if (result.heatingRate_K_per_h)
        result.validity.push_back(
            {"heated at 120 K/h",
             std::abs(*result.heatingRate_K_per_h - kWantedRate_K_per_h) <= kRateTolerance_K_per_h,
             fmt::format("{}; 120 ± 12 K/h is wanted (ISO 75-1, ASTM D648)",
                         marked(*result.heatingRate_K_per_h, Dimension::HeatingRate, 3))});
    else
        result.warnings.emplace_back("no time in the record: the heating rate was not checked");
    result.validity.push_back({"the bath begins cold", record.temperature_C.front() <= kHottestStart_C,
                               fmt::format("{} at the start; 27 °C or less is wanted (ISO 75-1)",
                                           marked(record.temperature_C.front(), Dimension::Temperature, 3))});
    result.validity.push_back(
        {"the deflection is reached", result.temperature_C.has_value(),
         result.temperature_C ? fmt::format("{}", marked(result.standardDeflection_mm, Dimension::Length, 3))
                              : fmt::format("the record ends at {} with {} of {}",
                                            marked(result.highest_C, Dimension::Temperature, 3),
                                            marked(result.deflection_mm.back(), Dimension::Length, 3),
                                            marked(result.standardDeflection_mm, Dimension::Length, 3))});
}

} // namespace

std::optional<double> heatingRate_K_per_h(const WarmingRecord &record)
{
    if (record.time_s.empty())
        return std::nullopt;
    const std::optional<StraightLine> line = fitLine(record.time_s, record.temperature_C);
    return line ? std::optional(line->slope * kSecondsPerHour) : std::nullopt;
}

Check warmsThroughout(const WarmingRecord &record, std::optional<std::size_t> decided)
{
    constexpr double kProbe_K = 1.0;
    const std::vector<double> &temperature_C = record.temperature_C;
    double warmest_C = temperature_C.front();
    double furthest_K = 0.0;
    double from_C = warmest_C;
    const std::size_t end = decided ? *decided + 1 : temperature_C.size();
    for (std::size_t i = 1; i < end; ++i) {
        warmest_C = std::max(warmest_C, temperature_C[i]);
        if (warmest_C - temperature_C[i] <= furthest_K)
            continue;
        furthest_K = warmest_C - temperature_C[i];
        from_C = warmest_C;
    }
    const bool isSteady = furthest_K <= kProbe_K;
    return {"the temperature never goes back", isSteady,
            isSteady ? std::string("it rises throughout")
                     : fmt::format("it goes back by {} from {}: was the oven opened, or are the rows out of "
                                   "order? A deflection reached while it cools is none of that temperature",
                                   marked(furthest_K, Dimension::TemperatureDifference, 2),
                                   marked(from_C, Dimension::Temperature, 3))};
}

Result<HeatDeflectionResult> reduceHeatDeflection(const WarmingRecord &record,
                                                  const HeatDeflectionParameters &parameters)
{
    if (const Status status = checkParameters(parameters); !status)
        return status.error();
    const std::size_t n = record.temperature_C.size();
    require(record.deflection_mm.size() == n && (record.time_s.empty() || record.time_s.size() == n),
            "reduceHeatDeflection(): columns of different lengths");
    if (n < 2)
        return Error{
            ErrorCode::TooFewPoints,
            fmt::format("the record holds {} sample; deflections over a rising temperature are wanted", n),
            {}};
    const auto [width_mm, height_mm] = bentSides_mm(parameters);
    const double span_mm = in_mm(parameters.span);
    HeatDeflectionResult result;
    result.testForce_N = 2.0 * in_MPa(parameters.stress) * width_mm * height_mm * height_mm / (3.0 * span_mm);
    result.standardDeflection_mm = parameters.standard == HeatStandard::Iso
                                       ? kIsoStrain * span_mm * span_mm / (6.0 * height_mm)
                                       : kAstmDeflection_mm;
    result.highest_C = *std::max_element(record.temperature_C.begin(), record.temperature_C.end());
    result.heatingRate_K_per_h = heatingRate_K_per_h(record);
    for (double value_mm : record.deflection_mm)
        result.deflection_mm.push_back(value_mm - record.deflection_mm.front());
    turnUpright(result.deflection_mm, "deflection", result.warnings);
    std::optional<std::size_t> decided;
    for (std::size_t i = 1; i < n && !result.temperature_C; ++i) {
        const double before = result.deflection_mm[i - 1];
        const double here = result.deflection_mm[i];
        if (here < result.standardDeflection_mm || before >= result.standardDeflection_mm)
            continue;
        decided = i;
        result.temperature_C = std::lerp(record.temperature_C[i - 1], record.temperature_C[i],
                                         (result.standardDeflection_mm - before) / (here - before));
    }
    result.validity.push_back(warmsThroughout(record, decided));
    check(result, record);
    return result;
}

} // namespace inchpeg
