// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>

namespace inchpeg
{

/// Tests of whether a sample may come from a normal distribution. Formulas and sources: docs/methods.md,
/// "Normality and outliers".

struct ShapiroWilk {
    double w = 0.0;
    double p = 0.0;
};

/// Royston (1995), Appl. Stat. 44, 547: AS R94. Nothing below 3 or above 5,000 values, or where all are
/// equal.
std::optional<ShapiroWilk> shapiroWilk(std::span<const double> values);

struct AndersonDarling {
    double a2 = 0.0;         ///< for estimated mean and sd, before the small-sample factor
    std::optional<double> p; ///< nothing below 8 values
};

/// Stephens' case 3 (D'Agostino & Stephens 1986, Goodness-of-Fit Techniques, table 4.9). Nothing below 3
/// values or where all are equal.
std::optional<AndersonDarling> andersonDarling(std::span<const double> values);

} // namespace inchpeg
