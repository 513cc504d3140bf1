// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/grades/grade.h"

#include "core/method/reading.h"

namespace inchpeg
{

std::optional<double> gradeOf(const MethodSettings &settings, std::string_view name)
{
    const std::string_view word = settings.word(name);
    for (std::size_t i = 0; i < std::size(kGrades); ++i) {
        if (kGrades[i] == word)
            return kLeastGrade + static_cast<double>(i);
    }
    return std::nullopt;
}

void drawGrades(Reading &reading, std::string_view axis,
                const std::vector<std::pair<std::string, double>> &grades, double result)
{
    NamedColumn place{"place", {}};
    NamedColumn grade{"grade", {}};
    for (const auto &[label, value] : grades) {
        place.values.push_back(static_cast<double>(place.values.size() + 1));
        grade.values.push_back(value);
        reading.marks.push_back({{}, label, place.values.back(), value, {}});
    }
    reading.picture.x = {std::string(axis), Dimension::Number};
    reading.picture.y = {"Grade, 5 best", Dimension::Number};
    reading.picture.record = RecordCurve{0, 1, place.values.size() - 1, true};
    reading.picture.guides.push_back(
        {"Its grade", 0.5, result, static_cast<double>(grades.size()) + 0.5, result});
    reading.columns = {std::move(place), std::move(grade)};
}

} // namespace inchpeg
