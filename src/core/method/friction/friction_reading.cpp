// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/friction/friction_reading.h"

#include "core/method/friction/friction.h"
#include "core/method/method.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kGrips{"Grips {} more than {}", "Grips {} less than {}"};

constexpr std::array kFrictionProperties = {
    Property{"static_friction", "Static friction", Dimension::Number,
             "Largest force over the weight that presses the piece on", Better::Neither, kGrips},
    Property{"kinetic_friction", "Kinetic friction", Dimension::Number,
             "Mean force from 10 to 60 mm behind the largest, over the weight (ISO 8295 manner)",
             Better::Neither, kGrips},
    Property{"peak_force", "Peak force", Dimension::Force, "Largest force of the pull", Better::Neither},
};

constexpr std::array kFrictionParameters = {
    Parameter{"mass",
              "Mass",
              "that presses the piece on, its own included",
              "kg",
              ParameterSource::Test,
              true,
              "",
              {},
              false,
              {.share = 0.002}},
    Parameter{"capacity", "Range", "largest force of the gauge", "N", ParameterSource::Rig},
};

constexpr std::array kTowColumns = {
    RecordColumn{"force", ColumnQuantity::Force, "N", true, "Force"},
    RecordColumn{"extension", ColumnQuantity::Extension, "mm", false, "Travel"},
    RecordColumn{"time", ColumnQuantity::Time, "s", false, "Time"},
};

Status checkFriction(const MethodSettings &settings)
{
    return checkRequired(settings, kFrictionParameters);
}

/// The force over the way, or over the time; a single reading of a hand scale has no picture.
void drawTow(Reading &reading, RecordTable table, FrictionResult &result)
{
    const bool hasTravel = table.has(1);
    if (result.force_N.size() > 1 && (hasTravel || table.has(2))) {
        std::vector<double> &x = table.columns[hasTravel ? 1 : 2];
        reading.picture.x =
            hasTravel ? PictureAxis{"Travel", Dimension::Length} : PictureAxis{"Time", Dimension::Time};
        reading.picture.y = {"Force", Dimension::Force};
        reading.marks.push_back({{}, "Static", x[result.peakAt], result.peak_N, {}});
        if (result.kineticFriction) {
            const double kinetic_N = *result.kineticFriction * result.peak_N / result.staticFriction;
            reading.picture.guides.push_back(
                {"Kinetic", result.kineticFrom_mm, kinetic_N, result.kineticTo_mm, kinetic_N});
        }
        reading.picture.record = RecordCurve{0, 1, x.size() - 1, false};
        reading.columns.push_back({hasTravel ? "travel_mm" : "time_s", std::move(x)});
    }
    reading.columns.push_back({"force_N", std::move(result.force_N)});
}

Result<Reading> readFriction(RecordTable table, const MethodSettings &settings, const PlacedMarkers &,
                             const TaskRunner &)
{
    if (const Status status = checkFriction(settings); !status)
        return status.error();
    const std::optional<double> capacity_N = settings.number("capacity");
    Result<FrictionResult> result =
        reduceFriction({table.columns[0], table.columns[1]},
                       {Mass::fromSi(*settings.number("mass")),
                        capacity_N ? std::optional(newtons(*capacity_N)) : std::nullopt});
    if (!result)
        return result.error();
    const BoundReason bound = result->peakIsLowerBound ? BoundReason::GaugeAtEnd : BoundReason::None;
    Reading reading;
    ValueList values;
    values.add("static_friction", result->staticFriction, bound);
    values.add("kinetic_friction", result->kineticFriction);
    values.add("peak_force", result->peak_N, bound);
    reading.values = values.take();
    drawTow(reading, std::move(table), *result);
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kFrictionReduction{"friction",
                                             "read pieces that are towed under a mass",
                                             2,
                                             kFrictionProperties,
                                             kFrictionParameters,
                                             kTowColumns,
                                             {},
                                             checkFriction,
                                             readFriction};

} // namespace inchpeg
