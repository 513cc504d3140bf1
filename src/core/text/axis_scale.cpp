// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/axis_scale.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

std::vector<double> AxisScale::marks() const
{
    std::vector<double> out;
    const double tolerance = 1e-9 * step;
    for (int i = 0; low + i * step <= high + tolerance; ++i)
        out.push_back(low + i * step);
    return out;
}

AxisScale scaleAround(const std::vector<double> &values, int wantedMarks)
{
    if (values.empty())
        return {};
    auto [least, most] = std::minmax_element(values.begin(), values.end());
    double low = *least;
    double high = *most;
    if (!(high > low)) {
        const double room = low == 0.0 ? 1.0 : 0.1 * std::abs(low);
        low -= room;
        high += room;
    }
    const double rough = (high - low) / std::max(1, wantedMarks - 1);
    const double power = std::pow(10.0, std::floor(std::log10(rough)));
    const double lead = rough / power;
    AxisScale scale;
    scale.step = (lead <= 1.0 ? 1.0 : lead <= 2.0 ? 2.0 : lead <= 5.0 ? 5.0 : 10.0) * power;
    scale.low = std::floor(low / scale.step) * scale.step;
    scale.high = std::ceil(high / scale.step) * scale.step;
    scale.decimals = std::max(0, -static_cast<int>(std::floor(std::log10(scale.step) + 1e-9)));
    return scale;
}

Unit axisUnit(Dimension dimension, double longest, const Notation &notation)
{
    constexpr double kHoursFrom_s = 7200.0;
    const Unit unit = notation.unitOf(dimension);
    return dimension == Dimension::Time && longest > kHoursFrom_s ? findUnit("h").value_or(unit) : unit;
}

} // namespace inchpeg
