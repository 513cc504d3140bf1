// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/by_feel_reading.h"

#include "core/method/grades/grade.h"
#include "core/method/method.h"

#include <fmt/format.h>

#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kSteady = 1.0; ///< grades that a person may be apart from themselves (ours)

constexpr std::array kByFeelProperties = {
    Property{"grade",
             "Grade by feel",
             Dimension::Number,
             "Mean of the grades that the piece was given, 1 worst to 5 best; it has an order and no more",
             Better::Higher,
             {"Graded {} above {}", "Graded {} below {}"},
             Scale::Ordinal},
    Property{"repeat_gap",
             "Apart when graded again",
             Dimension::Number,
             "How far the two grades of the same piece are apart",
             Better::Lower,
             {"Is graded {} less steadily than {}", "Is graded {} more steadily than {}"},
             Scale::Ordinal},
};

constexpr std::string_view kManners[] = {"by hand", "pliers", "hammer", "nail"};

constexpr std::array kByFeelParameters = {
    Parameter{"grade", "Grade", "how hard it was to break or bend: 1 very weak, 5 very strong", "",
              ParameterSource::Piece, true, "", kGrades},
    Parameter{"again", "Grade again",
              "the same piece, or its other half, graded again without looking at the first", "",
              ParameterSource::Piece, false, "", kGrades},
    Parameter{"manner", "Done with", "what it is pulled, bent or struck with", "", ParameterSource::Test,
              false, "by hand", kManners},
};

Status checkByFeel(const MethodSettings &settings)
{
    return checkRequired(settings, kByFeelParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readByFeel(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                           const TaskRunner &)
{
    if (const Status status = checkByFeel(settings); !status)
        return status.error();
    const double first = *gradeOf(settings, "grade");
    const std::optional<double> second = gradeOf(settings, "again");
    const double grade = second ? 0.5 * (first + *second) : first;
    Reading reading;
    ValueList values;
    values.add("grade", grade);
    std::vector<std::pair<std::string, double>> grades{{"first", first}};
    if (second) {
        const double gap = std::abs(first - *second);
        values.add("repeat_gap", gap);
        grades.emplace_back("again", *second);
        reading.validity.push_back(
            {"graded alike both times", gap <= kSteady,
             fmt::format("{:g} and {:g}; one grade apart is usual (ours)", first, *second)});
    } else {
        reading.warnings.emplace_back(
            "graded once: nothing tells how steady the hand is; grade every piece twice, blind");
    }
    reading.values = values.take();
    drawGrades(reading, "Time graded", grades, grade);
    return reading;
}

} // namespace

constinit const Reduction kByFeelReduction{"by-feel",
                                           "read grades that were given by hand",
                                           1,
                                           kByFeelProperties,
                                           kByFeelParameters,
                                           {},
                                           {},
                                           checkByFeel,
                                           readByFeel};

} // namespace inchpeg
