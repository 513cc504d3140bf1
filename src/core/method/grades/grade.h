// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/settings.h"

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace inchpeg
{

struct Reading;

/// Grades that a person gives: from 1, the worst, to 5, the best. They have an order and nothing else.
inline constexpr std::string_view kGrades[] = {"1", "2", "3", "4", "5"};
inline constexpr double kLeastGrade = 1.0;
inline constexpr double kBestGrade = 5.0;

/// The grade of a setting with kGrades as its choices; nothing where it was not given.
std::optional<double> gradeOf(const MethodSettings &settings, std::string_view name);

/// Each grade as a dot over its place, with the grade that the piece gets as a line across.
void drawGrades(Reading &reading, std::string_view axis,
                const std::vector<std::pair<std::string, double>> &grades, double result);

} // namespace inchpeg
