// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/numbered_picture.h"

namespace inchpeg
{

void drawNumbered(Reading &reading, const std::string &numbers, PictureAxis axis, NamedColumn values,
                  const std::vector<std::pair<std::string, double>> &lines)
{
    const std::size_t count = values.values.size();
    const double last = static_cast<double>(count) + 0.5;
    reading.picture.x = {numbers, Dimension::Number};
    reading.picture.y = std::move(axis);
    for (const auto &[label, at] : lines)
        reading.picture.guides.push_back({label, 0.5, at, last, at});
    reading.picture.record = RecordCurve{0, 1, count - 1, true};
    NamedColumn number{numbers, {}};
    number.name[0] = static_cast<char>(number.name[0] - 'A' + 'a'); // as columns of files are named
    for (std::size_t i = 0; i < count; ++i)
        number.values.push_back(static_cast<double>(i + 1));
    reading.columns.push_back(std::move(number));
    reading.columns.push_back(std::move(values));
}

} // namespace inchpeg
