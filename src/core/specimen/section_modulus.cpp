// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/specimen/section_modulus.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

constexpr int kLastTerm = 39; ///< what follows is below 1e-9 of the sum

} // namespace

double bendingSectionModulus_mm3(const SpecimenShape &shape)
{
    if (isRound(shape))
        return std::numbers::pi * std::pow(shape.width_mm, 3.0) / 32.0;
    return shape.width_mm * shape.thickness_mm * shape.thickness_mm / 6.0;
}

double torsionSectionModulus_mm3(const SpecimenShape &shape)
{
    using std::numbers::pi;
    if (isRound(shape))
        return pi * std::pow(shape.width_mm, 3.0) / 16.0;
    const double a = std::max(shape.width_mm, shape.thickness_mm);
    const double b = std::min(shape.width_mm, shape.thickness_mm);
    if (!(b > 0.0))
        return 0.0;
    double stiffness = 0.0;
    double stress = 0.0;
    for (int n = 1; n <= kLastTerm; n += 2) {
        const double argument = n * pi * a / (2.0 * b);
        stiffness += std::tanh(argument) / std::pow(n, 5.0);
        stress += 1.0 / (n * n * std::cosh(argument));
    }
    return a * b * b / 3.0 * (1.0 - 192.0 * b / (std::pow(pi, 5.0) * a) * stiffness) /
           (1.0 - 8.0 / (pi * pi) * stress);
}

} // namespace inchpeg
