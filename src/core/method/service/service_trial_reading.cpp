// SPDX-License-Identifier: GPL-3.0-or-later
// A part that is used: how long, how it feels, whether it cracked. One person's eyes on few parts, so grades
// are grades and a part that still serves is a bound.
#include "core/method/service/service_trial_reading.h"

#include "core/method/grades/grade.h"
#include "core/method/method.h"
#include "core/units/quantity.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kServiceProperties = {
    Property{"service_hours",
             "Hours in service",
             Dimension::Number,
             "Hours of use until the part failed; at least that while it still serves",
             Better::Higher,
             {"Serves {} longer than {}", "Serves {} shorter than {}"}},
    Property{"stiffness",
             "Stiffness felt",
             Dimension::Number,
             "Grade for how stiff the part is in its place: 1 gives way, 5 firm",
             Better::Higher,
             {"Graded {} above {}", "Graded {} below {}"},
             Scale::Ordinal},
    Property{"confidence",
             "Confidence",
             Dimension::Number,
             "Grade for how far the user would trust it: 1 not at all, 5 fully",
             Better::Higher,
             {"Trusted {} above {}", "Trusted {} below {}"},
             Scale::Ordinal},
    Property{"cracks",
             "Cracks heard",
             Dimension::Number,
             "How often it was heard to crack when it was fitted or tightened",
             Better::Lower,
             {"Cracked {} more often than {}", "Cracked {} less often than {}"}},
};

constexpr std::string_view kServiceOutcomes[] = {"serves", "failed"};

constexpr std::array kServiceParameters = {
    Parameter{"hours",
              "Time in service",
              "so far, or until it failed",
              "h",
              ParameterSource::Piece,
              true,
              "",
              {},
              true},
    Parameter{"outcome", "Outcome", "still serves, or failed", "", ParameterSource::Piece, true, "",
              kServiceOutcomes},
    Parameter{"stiffness", "Stiffness", "felt or seen: 1 gives way, 5 firm", "", ParameterSource::Piece,
              false, "", kGrades},
    Parameter{"confidence", "Confidence", "would you leave it there? 1 no, 5 surely", "",
              ParameterSource::Piece, false, "", kGrades},
    Parameter{"cracks",
              "Cracks heard",
              "on fitting and tightening",
              "1",
              ParameterSource::Piece,
              false,
              "",
              {},
              true},
};

Status checkService(const MethodSettings &settings)
{
    return checkRequired(settings, kServiceParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readService(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                            const TaskRunner &)
{
    if (const Status status = checkService(settings); !status)
        return status.error();
    const bool serves = settings.word("outcome") == kServiceOutcomes[0];
    const double hours = *settings.number("hours") / kSecondsPerHour;
    Reading reading;
    ValueList values;
    values.add("service_hours", hours, serves ? BoundReason::InService : BoundReason::None);
    values.add("stiffness", gradeOf(settings, "stiffness"));
    values.add("confidence", gradeOf(settings, "confidence"));
    values.add("cracks", settings.number("cracks"));
    reading.values = values.take();
    reading.picture.x = {"Hours in service", Dimension::Number};
    reading.picture.y = {"Serves", Dimension::Number};
    reading.picture.series.push_back({"In service", {0.0, hours}, {1.0, 1.0}});
    reading.marks.push_back({{}, serves ? "Still serves" : "Failed", hours, 1.0, {}});
    reading.validity.push_back(
        {"its time is over", !serves, serves ? "it still serves: the hours are a lower bound" : "it failed"});
    return reading;
}

} // namespace

constinit const Reduction kServiceTrialReduction{"service-trial",
                                                 "read how parts did in service",
                                                 1,
                                                 kServiceProperties,
                                                 kServiceParameters,
                                                 {},
                                                 {},
                                                 checkService,
                                                 readService};

} // namespace inchpeg
