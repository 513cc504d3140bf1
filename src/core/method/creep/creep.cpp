// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/creep/creep.h"

#include "core/base/contract.h"
#include "core/curve/mended_record.h"
#include "core/method/sizes.h"
#include "core/text/notation.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kRemovedLoadShare = 0.05;
constexpr double kRemovedStrainShare = 0.20;
constexpr double kMostRoomRange_K = 4.0;
constexpr double kDay_h = 24.0;
constexpr double kMostGap_h = 1.5 * kDay_h;
constexpr std::size_t kWantedReadings = 6;
constexpr double kFar = 10.0; ///< times the last reading
/// Stress in the outer fibre beyond which a usual polymer creeps to failure is not known here; strains are.
constexpr double kMostCreepStrain = 0.05;

Result<double> sizeOf(const std::optional<Length> &size, const char *name)
{
    if (!size)
        return invalidArgument(fmt::format("\"{}\" is missing", name));
    if (const Status status = checkSizes({{name, *size}}); !status)
        return status.error();
    return in_mm(*size);
}

/// What a deflection of 1 mm strains.
Result<double> strainPer_mm(const CreepParameters &p)
{
    if (p.fixture == CreepFixture::Tension) {
        const Result<double> gauge = sizeOf(p.gaugeLength, "gauge_length");
        return gauge ? Result<double>(1.0 / *gauge) : gauge;
    }
    const Result<double> thickness = sizeOf(p.thickness, "thickness");
    const Result<double> span = sizeOf(p.span, "span");
    for (const Result<double> *size : {&thickness, &span}) {
        if (!*size)
            return size->error();
    }
    const double factor = p.fixture == CreepFixture::Cantilever ? 1.5 : 6.0;
    return factor * *thickness / (*span * *span);
}

Result<double> stressOf(const CreepParameters &p)
{
    if (p.stress) {
        if (!(in_MPa(*p.stress) > 0.0))
            return invalidArgument(
                fmt::format("stress is {:g} MPa; a stress above zero is wanted", in_MPa(*p.stress)));
        return in_MPa(*p.stress);
    }
    if (!p.load)
        return invalidArgument("\"stress\" is missing; give stress, or load with width, thickness and span");
    if (!(in_N(*p.load) > 0.0))
        return invalidArgument(fmt::format("load is {:g} N; a load above zero is wanted", in_N(*p.load)));
    const Result<double> width = sizeOf(p.width, "width");
    const Result<double> thickness = sizeOf(p.thickness, "thickness");
    for (const Result<double> *size : {&width, &thickness}) {
        if (!*size)
            return size->error();
    }
    if (p.fixture == CreepFixture::Tension)
        return in_N(*p.load) / (*width * *thickness);
    const Result<double> span = sizeOf(p.span, "span");
    if (!span)
        return span.error();
    const double factor = p.fixture == CreepFixture::Cantilever ? 6.0 : 1.5;
    return factor * in_N(*p.load) * *span / (*width * *thickness * *thickness);
}

Status checkRecord(const CreepRecord &record)
{
    const std::size_t n = record.time_s.size();
    if (record.deflection_mm.empty() && record.strain.empty())
        return badInput("the record has neither a deflection nor a strain; one of them over time is wanted");
    for (const std::vector<double> *column : {&record.deflection_mm, &record.strain, &record.load_N})
        require(column->empty() || column->size() == n, "reduceCreep(): columns of different lengths");
    if (n == 0)
        return badInput("the record holds no reading");
    const auto back = std::adjacent_find(record.time_s.begin(), record.time_s.end(),
                                         [](double a, double b) { return b < a; });
    if (back != record.time_s.end())
        return badInput(fmt::format("the time goes back after reading {}; put the readings in their order",
                                    back - record.time_s.begin() + 1));
    if (record.time_s.front() < 0.0)
        return badInput("the first time is before the load was put on; times count from then");
    return ok();
}

/// So many readings from the start are under load.
std::size_t loadedReadings(const CreepRecord &record, std::span<const double> strain)
{
    const double highestLoad =
        record.load_N.empty() ? 0.0 : *std::max_element(record.load_N.begin(), record.load_N.end());
    for (std::size_t i = 0; i < strain.size(); ++i) {
        const bool unloaded = highestLoad > 0.0 && record.load_N[i] < kRemovedLoadShare * highestLoad;
        const bool fellBack = i > 0 && strain[i] < (1.0 - kRemovedStrainShare) * strain[i - 1];
        if (unloaded || fellBack)
            return i;
    }
    return strain.size();
}

/// To three digits, and never as a power of ten.
std::string hoursText(double hours)
{
    if (hours < 10.0)
        return fmt::format("{:.3g}", hours);
    const double step = std::pow(10.0, std::floor(std::log10(hours)) - 2.0);
    return fmt::format("{:.0f}", std::round(hours / step) * step);
}

void fit(CreepResult &result, double forecast_h)
{
    const auto time = std::span(result.time_h).first(result.loaded);
    const auto strain = std::span(result.strain).first(result.loaded);
    result.findley = fitCreep(CreepLaw::Findley, time, strain);
    result.logarithmic = fitCreep(CreepLaw::Logarithmic, time, strain);
    if (time.front() > 0.0) // the power law is zero at once, so it says nothing of a reading there
        result.power = fitCreep(CreepLaw::Power, time, strain);
    if (!result.findley) {
        result.warnings.emplace_back(
            result.loaded < 3 ? "no Findley fit: readings at three different times or more are wanted"
                              : "no Findley fit: the strain does not grow, or too few times are different");
        return;
    }
    if (time.back() > 0.0)
        result.creepRate_per_h = result.findley->rateAt_per_h(time.back());
    result.laws = CreepForecaster::of(time, strain);
    if (!result.laws || !(time.back() > 0.0))
        return;
    const CreepForecast forecast = result.laws->at(forecast_h);
    if (forecast.halfWidth() <= kWidestForecast) {
        result.forecast = forecast;
        return;
    }
    result.warnings.push_back(
        fmt::format("nothing is foretold for {} h: the laws that the readings bear out lie up to {:.0f} % "
                    "apart there; they agree within {:.0f} % up to {} h",
                    hoursText(forecast_h), 100.0 * forecast.halfWidth(), 100.0 * kWidestForecast,
                    hoursText(result.laws->horizon_h())));
}

/// A run of days is read once a day; a reading may be half a day late (common practice).
void checkDays(CreepResult &result)
{
    if (result.loaded == 0 || result.time_h[result.loaded - 1] <= kDay_h)
        return;
    std::size_t widest = 1;
    const auto gap_h = [&](std::size_t i) { return result.time_h[i] - result.time_h[i - 1]; };
    for (std::size_t i = 2; i < result.loaded; ++i)
        widest = gap_h(i) > gap_h(widest) ? i : widest;
    const bool isDaily = gap_h(widest) <= kMostGap_h;
    result.validity.push_back(
        {"a reading every day", isDaily,
         fmt::format("the widest gap is {:.0f} h, from {:.0f} to {:.0f} h{}", gap_h(widest),
                     result.time_h[widest - 1], result.time_h[widest],
                     isDaily ? "" : ": a reading was missed, and what the curve did there is not known")});
}

/// A warmer room lets everything creep faster: 23 ± 2 °C, class 2 of ISO 291 (from memory).
void checkRoom(CreepResult &result, std::span<const double> room_C)
{
    if (room_C.empty())
        return;
    const auto [coldest, warmest] = std::minmax_element(room_C.begin(), room_C.end());
    const bool isSteady = *warmest - *coldest <= kMostRoomRange_K;
    result.validity.push_back(
        {"the room stays within 4 K", isSteady,
         fmt::format("between {} and {}{}", marked(*coldest, Dimension::Temperature, 3),
                     marked(*warmest, Dimension::Temperature, 3),
                     isSteady ? "" : ": part of the growth may be the room's, not the load's")});
}

void check(CreepResult &result, std::size_t readings)
{
    result.validity.push_back(
        {"six readings or more under load", result.loaded >= kWantedReadings,
         fmt::format("{} readings; with fewer the laws cannot be told apart", result.loaded)});
    result.validity.push_back({"strains stay small", result.creepStrain <= kMostCreepStrain,
                               fmt::format("{:.2g} % at the last reading under load; beyond 5 % the formulas "
                                           "of the beam do not hold",
                                           100.0 * result.creepStrain)});
    checkDays(result);
    bool falls = false;
    for (std::size_t i = 1; i < result.loaded; ++i)
        falls = falls || result.strain[i] < result.strain[i - 1];
    result.validity.push_back({"the strain never falls under load", !falls,
                               falls ? "a reading lies below the one before: was the dial touched, or the "
                                       "room colder?"
                                     : "each reading is at least the one before"});
    if (result.stillRunning && readings > 0)
        result.warnings.emplace_back("the load was not taken off in this record: nothing recovered yet");
    if (result.forecast && result.forecast->interval)
        result.validity.push_back(
            {"the forecast goes no further than ten times the time seen",
             result.forecast->time_h <= kFar * result.time_h[result.loaded - 1],
             fmt::format("after {} h {:.3g} to {:.3g} % strain (95 %, three laws weighed)",
                         hoursText(result.forecast->time_h), 100.0 * result.forecast->interval->low,
                         100.0 * result.forecast->interval->high)});
}

} // namespace

std::string_view creepFixtureName(CreepFixture fixture)
{
    switch (fixture) {
    case CreepFixture::ThreePoint:
        return "three-point";
    case CreepFixture::Cantilever:
        return "cantilever";
    case CreepFixture::Tension:
        return "tension";
    }
    throw ContractViolation("unknown creep fixture");
}

Result<CreepResult> reduceCreep(const CreepRecord &record, const CreepParameters &parameters)
{
    if (const Status status = checkRecord(record); !status)
        return status.error();
    const Result<double> stress_MPa = stressOf(parameters);
    if (!stress_MPa)
        return stress_MPa.error();
    CreepResult result;
    result.stress_MPa = *stress_MPa;
    for (double time_s : record.time_s)
        result.time_h.push_back(time_s / kSecondsPerHour);
    result.strain = record.strain;
    if (result.strain.empty()) {
        const Result<double> factor = strainPer_mm(parameters);
        if (!factor)
            return factor.error();
        for (double deflection_mm : record.deflection_mm)
            result.strain.push_back(*factor * deflection_mm);
    }
    turnUpright(result.strain, record.strain.empty() ? "deflection" : "strain", result.warnings);
    result.loaded = loadedReadings(record, result.strain);
    if (result.loaded == 0)
        return badInput("no reading under load: the first one is without");
    result.stillRunning = result.loaded == result.strain.size();
    result.initialStrain = result.strain.front();
    result.creepStrain = result.strain[result.loaded - 1];
    if (!(result.creepStrain > 0.0))
        return badInput("the strain is zero at the last reading under load; was the dial set up?");
    if (result.initialStrain > 0.0)
        result.growth = result.creepStrain / result.initialStrain;
    result.creepModulus_MPa = result.stress_MPa / result.creepStrain;
    if (!result.stillRunning)
        result.recoveredFraction = (result.creepStrain - result.strain.back()) / result.creepStrain;
    fit(result, parameters.forecast_h);
    check(result, record.time_s.size());
    checkRoom(result, record.room_C);
    return result;
}

Status checkCreepParameters(const CreepParameters &parameters)
{
    const Result<double> stress_MPa = stressOf(parameters);
    return stress_MPa ? ok() : Status(stress_MPa.error());
}

} // namespace inchpeg
