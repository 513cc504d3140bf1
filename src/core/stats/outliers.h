// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// Two-sided tests for values that lie too far out in a normal sample. They point at pieces to look at; none
/// of them leaves a piece out. Positions count from 0 in the sample. Formulas and sources: docs/methods.md,
/// "Normality and outliers".

struct GrubbsTest {
    double g = 0.0; ///< largest distance from the mean over the sd
    double critical = 0.0;
    double p = 0.0;
    std::size_t position = 0; ///< of the farthest value
    bool outlier = false;
};

/// Grubbs (1950), Ann. Math. Stat. 21, 27. Nothing below three values or where all are equal.
std::optional<GrubbsTest> grubbs(std::span<const double> values, double alpha = 0.05);

struct NormedResidual {
    double statistic = 0.0; ///< of the whole sample
    double critical = 0.0;
    std::vector<std::size_t> outliers; ///< in the order in which they were taken out
};

/// Maximum normed residual (CMH-17 vol. 1, 8.3.3.1), repeated without the value found until none is beyond.
/// Nothing below three values or where all are equal.
std::optional<NormedResidual> maximumNormedResidual(std::span<const double> values, double alpha = 0.05);

/// Rosner's generalised test (Rosner 1983, Technometrics 25, 165) for up to half of the values: those found,
/// the farthest first.
std::vector<std::size_t> rosnerOutliers(std::span<const double> values, double alpha = 0.05);

} // namespace inchpeg
