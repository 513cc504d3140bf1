// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/print_outcome_reading.h"

#include "core/method/grades/grade.h"
#include "core/method/method.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr PropertyWords kBetter{"Graded {} above {}", "Graded {} below {}"};

constexpr Property gradeProperty(std::string_view name, std::string_view label, std::string_view definition)
{
    return {name, label, Dimension::Number, definition, Better::Higher, kBetter, Scale::Ordinal};
}

constexpr std::array kOutcomeProperties = {
    gradeProperty(
        "outcome", "Print outcome",
        "The lowest of the grades that the print was given: it is as clean as its worst aspect (ours)"),
    gradeProperty("stringing", "Free of strings", "Grade for threads between parts of the print: 5 none"),
    gradeProperty("overhang", "Overhangs", "Grade for the undersides of overhangs: 5 smooth and in shape"),
    gradeProperty("bridge", "Bridges", "Grade for spans over nothing: 5 straight"),
    gradeProperty("surface", "Surface", "Grade for the outer face: 5 even, without blobs, gaps or ringing"),
    gradeProperty("bed_adhesion", "Hold on the bed",
                  "Grade for how the first layer held: 5 flat to its edges"),
    Property{"corner_lift",
             "Corner lift",
             Dimension::Length,
             "How far the worst corner stands off the bed",
             Better::Lower,
             {"Lifts {} more than {}", "Lifts {} less than {}"}},
};

constexpr Parameter gradeParameter(std::string_view name, std::string_view label, std::string_view meaning)
{
    return {name, label, meaning, "", ParameterSource::Piece, false, "", kGrades};
}

constexpr std::array kOutcomeParameters = {
    gradeParameter("stringing", "Strings", "1 a web, 5 none"),
    gradeParameter("overhang", "Overhangs", "1 hanging loose, 5 smooth and in shape"),
    gradeParameter("bridge", "Bridges", "1 torn, 5 straight"),
    gradeParameter("surface", "Surface", "1 rough with gaps, 5 even"),
    gradeParameter("bed_adhesion", "Hold on the bed", "1 came off, 5 flat to its edges"),
    Parameter{"corner_lift",
              "Corner lift",
              "of the worst corner, with a feeler gauge",
              "mm",
              ParameterSource::Piece,
              false,
              "",
              {},
              true},
};

/// The graded aspects, in the order of the parameters.
std::vector<std::pair<std::string, double>> gradesIn(const MethodSettings &settings)
{
    std::vector<std::pair<std::string, double>> grades;
    for (const Parameter &parameter : kOutcomeParameters) {
        if (const std::optional<double> grade = gradeOf(settings, parameter.name))
            grades.emplace_back(parameter.name, *grade);
    }
    return grades;
}

Status checkOutcome(const MethodSettings &settings)
{
    if (gradesIn(settings).empty() && !settings.number("corner_lift"))
        return invalidArgument("\"stringing\" is missing, and so are all the other grades: say at least one");
    return ok();
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readOutcome(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                            const TaskRunner &)
{
    if (const Status status = checkOutcome(settings); !status)
        return status.error();
    std::vector<std::pair<std::string, double>> grades = gradesIn(settings);
    Reading reading;
    ValueList values;
    if (!grades.empty()) {
        const auto worst = std::min_element(grades.begin(), grades.end(),
                                            [](const auto &a, const auto &b) { return a.second < b.second; });
        values.add("outcome", worst->second);
        for (const auto &[name, grade] : grades)
            values.add(name, grade);
        for (auto &[name, grade] : grades)
            name = findParameter(kOutcomeParameters, name)->label;
        drawGrades(reading, "Aspect", grades, worst->second);
    }
    values.add("corner_lift", settings.number("corner_lift"));
    reading.values = values.take();
    return reading;
}

} // namespace

constinit const Reduction kPrintOutcomeReduction{"print-outcome",
                                                 "read grades of how prints came out",
                                                 1,
                                                 kOutcomeProperties,
                                                 kOutcomeParameters,
                                                 {},
                                                 {},
                                                 checkOutcome,
                                                 readOutcome};

} // namespace inchpeg
