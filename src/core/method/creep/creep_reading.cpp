// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/creep/creep_reading.h"

#include "core/method/creep/creep.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kGives{"Gives way {} more than {}", "Gives way {} less than {}"};

constexpr std::array kCreepProperties = {
    Property{"initial_strain", "First strain", Dimension::Ratio, "Strain at the first reading under load",
             Better::Lower, kGives},
    Property{"creep_strain", "Creep strain", Dimension::Ratio,
             "Strain at the last reading under load (ISO 899-1, ISO 899-2)", Better::Lower, kGives},
    Property{"growth",
             "Growth",
             Dimension::Factor,
             "Last strain under load over the first",
             Better::Lower,
             {"Grows {} more than {}", "Grows {} less than {}"}},
    Property{"creep_modulus",
             "Creep modulus",
             Dimension::Stress,
             "Stress over the strain at the last reading under load",
             Better::Higher,
             {"Is {} stiffer than {} in the long run", "Is {} less stiff than {} in the long run"}},
    Property{"findley_e0", "Findley e0", Dimension::Ratio, "e0 of the fit e0 + m tⁿ, t in hours",
             Better::Lower, kGives},
    Property{"findley_m", "Findley m", Dimension::Ratio, "m of the fit e0 + m tⁿ, t in hours", Better::Lower,
             kGives},
    Property{"findley_n",
             "Findley n",
             Dimension::Number,
             "n of the fit e0 + m tⁿ, t in hours",
             Better::Lower,
             {"Has an exponent {} above {}", "Has an exponent {} below {}"}},
    Property{"creep_rate",
             "Creep rate",
             Dimension::PerTime,
             "m n tⁿ⁻¹ at the last reading under load",
             Better::Lower,
             {"Creeps {} faster than {} at the end", "Creeps {} more slowly than {} at the end"}},
    Property{
        "forecast_strain", "Forecast", Dimension::Ratio,
        "Strain at the chosen time by the laws weighed by the readings; among the readings by them alone",
        Better::Lower, kGives},
    Property{"recovered_fraction",
             "Recovered share",
             Dimension::Ratio,
             "(last strain under load − last strain) over the last strain under load",
             Better::Higher,
             {"Recovers {} more than {}", "Recovers {} less than {}"}},
};

constexpr std::string_view kFixtures[] = {"three-point", "cantilever", "tension"};

constexpr std::array kCreepParameters = {
    Parameter{"stress", "Stress", "in the outer fibre of a bar, or over the section of a piece in tension",
              "MPa", ParameterSource::Test},
    Parameter{"load", "Load", "that hangs on the piece, in place of the stress", "N", ParameterSource::Test},
    kWidth,
    kThickness,
    Parameter{"span", "Span", "distance of the supports; of a cantilever, from the clamp to the load", "mm",
              ParameterSource::Shape},
    Parameter{"gauge_length", "Gauge length", "of a piece in tension", "mm", ParameterSource::Shape},
    Parameter{"fixture", "Fixture", "how the piece is held", "", ParameterSource::Test, false, "three-point",
              kFixtures},
    Parameter{"forecast", "Forecast at", "time for which the strain is foretold", "h", ParameterSource::Test,
              false, "1000 h"},
};

constexpr std::array kCreepColumns = {
    RecordColumn{"time", ColumnQuantity::Time, "h", true, "Time"},
    RecordColumn{"deflection", ColumnQuantity::Extension, "mm", false, "Deflection"},
    RecordColumn{"strain", ColumnQuantity::Strain, "%", false, "Strain"},
    RecordColumn{"load", ColumnQuantity::Force, "N", false, "Load", true},
    RecordColumn{"room", ColumnQuantity::Temperature, "°C", false, "Room"},
};

CreepParameters creepParameters(const MethodSettings &settings)
{
    CreepParameters parameters;
    if (const auto stress_MPa = settings.number("stress"))
        parameters.stress = megapascals(*stress_MPa);
    if (const auto load_N = settings.number("load"))
        parameters.load = newtons(*load_N);
    parameters.width = settings.length("width");
    parameters.thickness = settings.length("thickness");
    parameters.span = settings.length("span");
    parameters.gaugeLength = settings.length("gauge_length");
    const std::string_view fixture = settings.word("fixture");
    for (const CreepFixture one : {CreepFixture::Cantilever, CreepFixture::Tension}) {
        if (creepFixtureName(one) == fixture)
            parameters.fixture = one;
    }
    // Along the axis there is a gauge length and no span; who gives these need not say it again.
    if (!settings.words.contains("fixture") && parameters.gaugeLength && !parameters.span)
        parameters.fixture = CreepFixture::Tension;
    if (const auto forecast_s = settings.number("forecast"))
        parameters.forecast_h = *forecast_s / kSecondsPerHour;
    return parameters;
}

/// Fewer are taken for readings by hand, and drawn as dots.
constexpr std::size_t kFewReadings = 200;

void draw(Reading &reading, const CreepResult &result)
{
    reading.picture.x = {"Time", Dimension::Time};
    reading.picture.y = {"Strain", Dimension::Ratio};
    std::vector<double> time_s;
    for (double time_h : result.time_h)
        time_s.push_back(time_h * kSecondsPerHour);
    reading.columns = {{"time_s", time_s}, {"strain", result.strain}};
    reading.picture.record = RecordCurve{0, 1, result.loaded - 1, time_s.size() < kFewReadings};
    const double end_h = result.time_h[result.loaded - 1];
    if (result.laws && end_h > 0.0) {
        constexpr int kPoints = 100;
        PictureSeries fit{"Weighed laws", {}, {}};
        for (int i = 0; i <= kPoints; ++i) {
            const double share = static_cast<double>(i) / kPoints;
            const double time_h = end_h * share * share; // close together where it bends
            if (time_h < result.time_h.front())
                continue; // the laws part before the first reading
            fit.x.push_back(time_h * kSecondsPerHour);
            fit.y.push_back(result.laws->strainAt(time_h));
        }
        reading.picture.series.push_back(std::move(fit));
    }
    reading.marks.push_back({{}, "First", time_s.front(), result.strain.front(), {}});
    reading.marks.push_back({{},
                             result.stillRunning ? "Last so far" : "Last under load",
                             time_s[result.loaded - 1],
                             result.creepStrain,
                             {}});
    if (!result.stillRunning)
        reading.marks.push_back({{}, "Set", time_s.back(), result.strain.back(), {}});
}

Status checkCreep(const MethodSettings &settings)
{
    return checkCreepParameters(creepParameters(settings));
}

Result<Reading> readCreep(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                          const TaskRunner &)
{
    const CreepRecord record{std::move(table.columns[0]), std::move(table.columns[1]),
                             std::move(table.columns[2]), std::move(table.columns[3]),
                             std::move(table.columns[4])};
    Result<CreepResult> result = reduceCreep(record, creepParameters(settings));
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("initial_strain", result->initialStrain);
    values.add("creep_strain", result->creepStrain);
    values.add("growth", result->growth);
    values.add("creep_modulus", result->creepModulus_MPa);
    if (const std::optional<CreepFit> &fit = result->findley) {
        values.add("findley_e0", fit->e0);
        values.add("findley_m", fit->m);
        values.add("findley_n", fit->n);
    }
    values.add("creep_rate", result->creepRate_per_h);
    if (result->forecast)
        values.add("forecast_strain", result->forecast->strain, BoundReason::None,
                   fmt::format("{:g} h", result->forecast->time_h));
    values.add("recovered_fraction", result->recoveredFraction);
    reading.values = values.take();
    draw(reading, *result);
    if (!record.room_C.empty())
        reading.columns.push_back({"room_C", record.room_C});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kCreepReduction{
    "creep",
    "read creep under a constant load",
    4, // 3 chose one law; 2 took every piece without a fixture for a beam
    kCreepProperties,
    kCreepParameters,
    kCreepColumns,
    {},
    checkCreep,
    readCreep};

} // namespace inchpeg
