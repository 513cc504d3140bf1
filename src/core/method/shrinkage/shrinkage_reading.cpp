// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shrinkage/shrinkage_reading.h"

#include "core/method/method.h"
#include "core/method/numbered_picture.h"
#include "core/method/shrinkage/shrinkage.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kShrinks{"Shrinks {} more than {}", "Shrinks {} less than {}"};

constexpr std::array kShrinkageProperties = {
    Property{"shrinkage_percent", "Shrinkage", Dimension::Percent,
             "By how much the length is shorter than drawn, in percent of the drawn length", Better::Lower,
             kShrinks},
    Property{"n",
             "Readings",
             Dimension::Number,
             "How often the length was measured",
             Better::Neither,
             {"Was measured {} more often than {}", "Was measured {} less often than {}"}},
    Property{"sd",
             "Scatter of the readings",
             Dimension::Percent,
             "Standard deviation of the single readings, in percent of the drawn length",
             Better::Lower,
             {"Reads {} more scattered than {}", "Reads {} less scattered than {}"}},
};

constexpr std::array kShrinkageParameters = {
    Parameter{"nominal", "Drawn length", "the known length as drawn", "mm", ParameterSource::Test, true,
              "80 mm"},
};

constexpr std::array kShrinkageColumns = {
    RecordColumn{"length", ColumnQuantity::Length, "mm", true, "Length"},
};

Status checkShrinkage(const MethodSettings &settings)
{
    return checkRequired(settings, kShrinkageParameters);
}

Result<Reading> readShrinkage(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                              const TaskRunner &)
{
    if (const Status status = checkShrinkage(settings); !status)
        return status.error();
    const Length nominal = *settings.length("nominal");
    Result<ShrinkageResult> result = reduceShrinkage(table.columns[0], nominal);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("shrinkage_percent", result->shrinkage_percent);
    values.add("n", static_cast<double>(result->n));
    values.add("sd", result->sd_percent);
    reading.values = values.take();
    drawNumbered(reading, "Reading", {"Length", Dimension::Length},
                 {"length_mm", std::move(table.columns[0])},
                 {{"Drawn", in_mm(nominal)}, {"Mean", result->mean_mm}});
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kShrinkageReduction{"shrinkage",
                                              "read a known length that was measured again",
                                              1,
                                              kShrinkageProperties,
                                              kShrinkageParameters,
                                              kShrinkageColumns,
                                              {},
                                              checkShrinkage,
                                              readShrinkage};

} // namespace inchpeg
