// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/hardness/hardness_reading.h"

#include "core/method/hardness/hardness.h"
#include "core/method/method.h"
#include "core/method/numbered_picture.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kHardnessProperties = {
    Property{
        "hardness",
        "Shore hardness",
        Dimension::Number,
        "Mean of the readings on the named scale; a scale with an arbitrary zero, so without percentages",
        Better::Neither,
        {"Reads {} harder than {}", "Reads {} softer than {}"},
        Scale::Interval},
    Property{"n",
             "Readings",
             Dimension::Number,
             "How often the piece was read",
             Better::Neither,
             {"Was read {} more often than {}", "Was read {} less often than {}"}},
    Property{"sd",
             "Scatter of the readings",
             Dimension::Number,
             "Standard deviation of the single readings",
             Better::Lower,
             {"Reads {} more scattered than {}", "Reads {} less scattered than {}"}},
};

constexpr std::string_view kScales[] = {"A", "D"};

constexpr std::array kHardnessParameters = {
    Parameter{"scale", "Scale", "A for soft, D for hard polymers; they are not the same numbers", "",
              ParameterSource::Test, true, "D", kScales},
    Parameter{"dwell", "Dwell", "from firm contact to the reading", "s", ParameterSource::Test, false,
              "15 s"},
};

constexpr std::array kHardnessColumns = {
    RecordColumn{"hardness", ColumnQuantity::Hardness, "1", true, "Hardness"},
};

Status checkHardness(const MethodSettings &settings)
{
    return checkRequired(settings, kHardnessParameters);
}

Result<Reading> readHardness(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                             const TaskRunner &)
{
    if (const Status status = checkHardness(settings); !status)
        return status.error();
    HardnessParameters parameters;
    parameters.scale = settings.word("scale") == kScales[0] ? ShoreScale::A : ShoreScale::D;
    if (const std::optional<double> dwell_s = settings.number("dwell"))
        parameters.dwell = Duration::fromSi(*dwell_s);
    Result<HardnessResult> result = reduceHardness(table.columns[0], parameters);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("hardness", result->hardness);
    values.add("n", static_cast<double>(result->n));
    values.add("sd", result->sd);
    reading.values = values.take();
    drawNumbered(reading, "Reading", {"Hardness", Dimension::Number},
                 {"hardness", std::move(table.columns[0])}, {{"Mean", result->hardness}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kHardnessReduction{"hardness",
                                             "read a durometer's readings",
                                             1,
                                             kHardnessProperties,
                                             kHardnessParameters,
                                             kHardnessColumns,
                                             {},
                                             checkHardness,
                                             readHardness};

} // namespace inchpeg
