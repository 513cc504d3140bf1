// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shrinkage/shrinkage_reading.h"

#include "core/method/method.h"
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

/// Each reading as a dot, with the drawn length and the mean across.
void drawLengths(Reading &reading, std::vector<double> length_mm, double nominal_mm, double mean_mm)
{
    const double last = static_cast<double>(length_mm.size());
    reading.picture.x = {"Reading", Dimension::Number};
    reading.picture.y = {"Length", Dimension::Length};
    reading.picture.guides = {{"Drawn", 0.5, nominal_mm, last + 0.5, nominal_mm},
                              {"Mean", 0.5, mean_mm, last + 0.5, mean_mm}};
    reading.picture.record = RecordCurve{0, 1, length_mm.size() - 1, true};
    std::vector<double> number(length_mm.size());
    for (std::size_t i = 0; i < number.size(); ++i)
        number[i] = static_cast<double>(i + 1);
    reading.columns.push_back({"reading", std::move(number)});
    reading.columns.push_back({"length_mm", std::move(length_mm)});
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
    drawLengths(reading, std::move(table.columns[0]), in_mm(nominal), result->mean_mm);
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
