// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/bend_steps/bend_steps_reading.h"

#include "core/method/bend_steps/bend_steps.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kBendStepsProperties = {
    Property{"apparent_modulus",
             "Apparent modulus",
             Dimension::Stress,
             "L³F/(4bh³s) from the last reading of a load: a modulus only while the load does not creep",
             Better::Higher,
             {"Is {} stiffer than {}", "Is {} less stiff than {}"}},
    Property{"time_ratio",
             "Growth under constant load",
             Dimension::Factor,
             "Last reading of a load over its first",
             Better::Lower,
             {"Gives way {} more than {} while the load rests", "Gives way {} less than {} while the load "
                                                                "rests"}},
    Property{"steady", "Holds still", Dimension::Number,
             "1 where the last two readings of a load differ by at most 2 % of the last, else 0"},
    Property{"steady_load", "Steady load", Dimension::Force,
             "Largest load up to which the beam held still under each"},
};

constexpr std::string_view kBarFixtures[] = {"three-point", "cantilever"};

constexpr std::array kBendStepsParameters = {
    required(kWidth),
    required(kThickness),
    Parameter{"span", "Span", "distance of the supports; of a cantilever, from the clamp to the load", "mm",
              ParameterSource::Shape, true},
    Parameter{"fixture", "Fixture", "how the bar is held", "", ParameterSource::Test, false, "three-point",
              kBarFixtures},
};

constexpr std::array kBendStepsColumns = {
    RecordColumn{"load", ColumnQuantity::Force, "N", true, "Load", true},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
    RecordColumn{"deflection", ColumnQuantity::Extension, "mm", true, "Deflection"},
};

std::vector<LoadReading> readingsFrom(const RecordTable &table)
{
    std::vector<LoadReading> readings(table.rows);
    for (std::size_t i = 0; i < table.rows; ++i) {
        readings[i].load_N = table.columns[0][i];
        if (table.has(1))
            readings[i].time_s = table.columns[1][i];
        readings[i].deflection_mm = table.columns[2][i];
    }
    return readings;
}

void draw(Reading &reading, RecordTable &table, const BendStepsResult &result)
{
    reading.picture.x = {"Load", Dimension::Force};
    reading.picture.y = {"Deflection", Dimension::Length};
    // What the beam would do if it held still: the first load's own straight line.
    const LoadStep &first = result.steps.front();
    const LoadStep &last = result.steps.back();
    const double slope = table.columns[2][first.first] / first.load_N;
    reading.picture.guides.push_back({"First load, carried on", 0.0, 0.0, last.load_N, slope * last.load_N});
    const auto steady = std::find_if(result.steps.begin(), result.steps.end(), [&](const LoadStep &step) {
        return step.load_N == result.steadyLoad_N;
    });
    if (steady != result.steps.end())
        reading.marks.push_back({{},
                                 result.neverMoved ? "Still steady" : "Steady up to here",
                                 steady->load_N,
                                 table.columns[2][steady->last],
                                 {}});
    const char *names[] = {"load_N", "time_s", "deflection_mm"};
    for (std::size_t c = 0; c < table.columns.size(); ++c) {
        if (table.has(c))
            reading.columns.push_back({names[c], std::move(table.columns[c])});
    }
    reading.picture.record = RecordCurve{0, reading.columns.size() - 1, table.rows - 1, true};
}

Status checkBendSteps(const MethodSettings &settings)
{
    return checkRequired(settings, kBendStepsParameters);
}

Result<Reading> readBendSteps(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                              const TaskRunner &)
{
    if (const Status status = checkBendSteps(settings); !status)
        return status.error();
    Result<BendStepsResult> result = reduceBendSteps(
        readingsFrom(table), {*settings.length("width"), *settings.length("thickness"),
                              *settings.length("span"), settings.word("fixture") == "cantilever"});
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    const auto label = [](const LoadStep &step) { return fmt::format("{:.6g} N", step.load_N); };
    for (const LoadStep &step : result->steps)
        values.add("apparent_modulus", step.apparentModulus_MPa, BoundReason::None, label(step));
    for (const LoadStep &step : result->steps)
        values.add("time_ratio", step.timeRatio, BoundReason::None, label(step));
    for (const LoadStep &step : result->steps)
        values.add("steady", step.steady ? std::optional(*step.steady ? 1.0 : 0.0) : std::nullopt,
                   BoundReason::None, label(step));
    values.add("steady_load", result->steadyLoad_N,
               result->neverMoved ? BoundReason::NeverMoved : BoundReason::None);
    reading.values = values.take();
    draw(reading, table, *result);
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kBendStepsReduction{"bend-steps",
                                              "read deflections under dead weights",
                                              1,
                                              kBendStepsProperties,
                                              kBendStepsParameters,
                                              kBendStepsColumns,
                                              {},
                                              checkBendSteps,
                                              readBendSteps};

} // namespace inchpeg
