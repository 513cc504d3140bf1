// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/text/notation.h"

#include <vector>

namespace inchpeg
{

/// A stretch of numbers with round marks on it.
struct AxisScale {
    double low = 0.0;
    double high = 1.0;
    double step = 0.2;
    int decimals = 1; ///< that the marks need
    [[nodiscard]] double share(double value) const { return (value - low) / (high - low); }
    [[nodiscard]] std::vector<double> marks() const;
};

/// The scale around all values, its step 1, 2 or 5 times a power of ten and about wantedMarks marks on it.
/// values may be empty or all equal.
AxisScale scaleAround(const std::vector<double> &values, int wantedMarks);

/// The unit of an axis whose values go up to longest: the person's, of a time beyond two hours the hour.
Unit axisUnit(Dimension dimension, double longest, const Notation &notation);

} // namespace inchpeg
