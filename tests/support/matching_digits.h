// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cmath>

namespace inchpeg::test
{

/// -log10 of the relative error (absolute where the reference is 0), 0 to 15; a NaN matches nothing.
inline double matchingDigits(double value, double reference)
{
    if (std::isnan(value) || std::isnan(reference))
        return 0.0;
    if (value == reference)
        return 15.0;
    const double error = reference == 0.0 ? std::abs(value) : std::abs((value - reference) / reference);
    return std::clamp(-std::log10(error), 0.0, 15.0);
}

} // namespace inchpeg::test
