// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/heat/heat_reading.h"

#include "core/method/heat/heat_deflection.h"
#include "core/method/heat/softening.h"
#include "core/method/method.h"
#include "core/method/section_settings.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kKeeps{"Keeps its shape {} hotter than {}", "Loses its shape {} cooler than {}"};

constexpr std::array kHeatDeflectionProperties = {
    Property{"heat_deflection_temperature", "Heat-deflection temperature", Dimension::Temperature,
             "Temperature at which the loaded bar has bent by the standard deflection (ISO 75, ASTM D648)",
             Better::Higher, kKeeps, Scale::Interval},
    Property{"standard_deflection", "Standard deflection", Dimension::Length,
             "Deflection that decides: 0.2 % strain of the outer fibre (ISO 75) or 0.25 mm (ASTM D648)",
             Better::Neither},
    Property{"test_force", "Test force", Dimension::Force,
             "Force in the middle that gives the stress: 2σbh²/(3L)", Better::Neither},
    Property{"heating_rate",
             "Heating rate",
             Dimension::HeatingRate,
             "Least-squares slope of temperature over time",
             Better::Neither,
             {"Was heated {} faster than {}", "Was heated {} more slowly than {}"}},
};

constexpr std::array kSofteningProperties = {
    Property{"softening_temperature", "Softening temperature", Dimension::Temperature,
             "Temperature at which the deflection passes the threshold and stays above it, the probe's lag "
             "taken back (ISO 306 manner); or of the first sag that was seen",
             Better::Higher, kKeeps, Scale::Interval},
    Property{"heating_rate",
             "Heating rate",
             Dimension::HeatingRate,
             "Least-squares slope of temperature over time",
             Better::Neither,
             {"Was heated {} faster than {}", "Was heated {} more slowly than {}"}},
};

constexpr std::string_view kBarOrientations[] = {"flatwise", "edgewise"};
constexpr std::string_view kHeatStandards[] = {"iso", "astm"};

constexpr std::array kHeatDeflectionParameters = {
    required(kWidth),
    required(kThickness),
    Parameter{"span", "Span", "distance of the supports", "mm", ParameterSource::Shape, true},
    Parameter{"stress", "Stress", "in the outer fibre: 0.45, 1.80 or 8.00 MPa", "MPa", ParameterSource::Test,
              true},
    Parameter{"orientation", "Bar", "bent over its thickness or over its width", "", ParameterSource::Test,
              false, "flatwise", kBarOrientations},
    Parameter{"standard", "Standard", "whose deflection decides", "", ParameterSource::Test, false, "iso",
              kHeatStandards},
};

/// ISO 306: 10 N (A) or 50 N (B) on the needle, heated at 50 or 120 K/h.
constexpr std::string_view kNeedleProcedures[] = {"A50", "A120", "B50", "B120"};
constexpr std::string_view kTouches[] = {"hard", "gives", "rubbery", "soft"};

constexpr std::array kSofteningParameters = {
    Parameter{"threshold", "Threshold", "deflection that decides; 1 mm for a needle", "mm",
              ParameterSource::Test, true, "1 mm"},
    Parameter{"lag",
              "Probe's lag",
              "by which the thermometer is late",
              "s",
              ParameterSource::Rig,
              false,
              "",
              {},
              true},
    Parameter{"heating_rate", "Heating rate", "where the record has no time", "K/h", ParameterSource::Test},
    Parameter{"procedure", "Procedure",
              "of ISO 306: A 10 N or B 50 N on the needle, at 50 or 120 K/h; none in an oven", "",
              ParameterSource::Test, false, "", kNeedleProcedures},
    Parameter{"touch", "By touch afterwards", "how hard the piece is when the set time is over", "",
              ParameterSource::Piece, false, "", kTouches},
};

constexpr std::array kSofteningColumns = {
    RecordColumn{"temperature", ColumnQuantity::Temperature, "°C", true, "Temperature"},
    RecordColumn{"deflection", ColumnQuantity::Extension, "mm", false, "Deflection"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

constexpr std::array kWarmingColumns = {
    RecordColumn{"temperature", ColumnQuantity::Temperature, "°C", true, "Temperature"},
    RecordColumn{"deflection", ColumnQuantity::Extension, "mm", true, "Deflection"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

WarmingRecord warmingRecord(RecordTable table)
{
    return {std::move(table.columns[0]), std::move(table.columns[1]), std::move(table.columns[2])};
}

/// The deflection over the temperature, up to where it was decided.
void draw(Reading &reading, WarmingRecord record, std::vector<double> deflection_mm,
          const std::optional<double> &decidedAt_C, double decided_mm, const char *what)
{
    reading.picture.x = {"Temperature", Dimension::Temperature};
    reading.picture.y = {"Deflection", Dimension::Length};
    const auto [low, high] = std::minmax_element(record.temperature_C.begin(), record.temperature_C.end());
    reading.picture.guides.push_back({what, *low, decided_mm, *high, decided_mm});
    if (decidedAt_C)
        reading.marks.push_back({{}, what, *decidedAt_C, decided_mm, {}});
    const std::size_t last = record.temperature_C.size() - 1;
    if (!record.time_s.empty())
        reading.columns.push_back({"time_s", std::move(record.time_s)});
    reading.picture.record = RecordCurve{reading.columns.size(), reading.columns.size() + 1, last, false};
    reading.columns.push_back({"temperature_C", std::move(record.temperature_C)});
    reading.columns.push_back({"deflection_mm", std::move(deflection_mm)});
}

Status checkHeatDeflection(const MethodSettings &settings)
{
    return checkRequired(settings, kHeatDeflectionParameters);
}

Result<Reading> readHeatDeflection(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                                   const TaskRunner &)
{
    if (const Status status = checkHeatDeflection(settings); !status)
        return status.error();
    WarmingRecord record = warmingRecord(std::move(table));
    Result<HeatDeflectionResult> result = reduceHeatDeflection(
        record,
        {*settings.length("width"), *settings.length("thickness"), *settings.length("span"),
         megapascals(*settings.number("stress")),
         settings.word("orientation") == "edgewise" ? BarOrientation::Edgewise : BarOrientation::Flatwise,
         settings.word("standard") == "astm" ? HeatStandard::Astm : HeatStandard::Iso});
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("heat_deflection_temperature", result->temperature_C);
    values.add("standard_deflection", result->standardDeflection_mm);
    values.add("test_force", result->testForce_N);
    values.add("heating_rate", result->heatingRate_K_per_h);
    reading.values = values.take();
    draw(reading, std::move(record), std::move(result->deflection_mm), result->temperature_C,
         result->standardDeflection_mm, "Standard deflection");
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

std::optional<double> wantedRate_K_per_h(std::string_view procedure)
{
    if (procedure.empty())
        return std::nullopt;
    return procedure.ends_with("120") ? 120.0 : 50.0;
}

Status checkSoftening(const MethodSettings &settings)
{
    return checkRequired(settings, kSofteningParameters);
}

Result<Reading> readSoftening(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                              const TaskRunner &)
{
    if (const Status status = checkSoftening(settings); !status)
        return status.error();
    WarmingRecord record = warmingRecord(std::move(table));
    const SofteningParameters parameters{*settings.length("threshold"), settings.number("lag", 0.0),
                                         settings.number("heating_rate"),
                                         wantedRate_K_per_h(settings.word("procedure"))};
    Result<SofteningResult> result = reduceSoftening(record, parameters);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("softening_temperature", result->temperature_C);
    values.add("heating_rate", result->heatingRate_K_per_h);
    reading.values = values.take();
    if (!record.deflection_mm.empty())
        draw(reading, std::move(record), std::move(result->deflection_mm), result->shown_C,
             in_mm(parameters.threshold), "Threshold");
    reading.validity = std::move(result->validity);
    if (const std::string_view touch = settings.word("touch"); !touch.empty())
        reading.validity.push_back({"hard by touch afterwards", touch == kTouches[0], std::string(touch)});
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kHeatDeflectionReduction{"heat-deflection",
                                                   "read bars warmed under a load",
                                                   2, // 1 said nothing of a temperature that went back
                                                   kHeatDeflectionProperties,
                                                   kHeatDeflectionParameters,
                                                   kWarmingColumns,
                                                   {},
                                                   checkHeatDeflection,
                                                   readHeatDeflection};

constinit const Reduction kSofteningReduction{"softening",
                                              "read needles that sink in and bars that sag",
                                              3, // 2 said nothing of a temperature that went back
                                              kSofteningProperties,
                                              kSofteningParameters,
                                              kSofteningColumns,
                                              {},
                                              checkSoftening,
                                              readSoftening};

} // namespace inchpeg
