// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/tension/strain_values.h"

#include "core/curve/straight_line.h"

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kPercentPerMinute = 6000.0; ///< that a strain of 1 in 1 s is

std::optional<double> slopeIn(std::span<const double> x, std::span<const double> y, SampleRange range)
{
    if (x.size() != y.size() || range.last >= x.size() || range.last <= range.first)
        return std::nullopt;
    const std::size_t count = range.last - range.first + 1;
    const std::optional<StraightLine> line =
        fitLine(x.subspan(range.first, count), y.subspan(range.first, count));
    return line ? std::optional(line->slope) : std::nullopt;
}

} // namespace

std::optional<double> poissonsRatio(std::span<const double> axialStrain,
                                    std::span<const double> transverseStrain, SampleRange range)
{
    const std::optional<double> slope = slopeIn(axialStrain, transverseStrain, range);
    return slope ? std::optional(std::abs(*slope)) : std::nullopt;
}

std::optional<double> strainRate_percent_per_min(std::span<const double> strain,
                                                 std::span<const double> time_s, SampleRange range)
{
    const std::optional<double> slope = slopeIn(time_s, strain, range);
    return slope ? std::optional(*slope * kPercentPerMinute) : std::nullopt;
}

} // namespace inchpeg
