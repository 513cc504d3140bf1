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

TorsionSection torsionOfRound(double diameter_mm)
{
    return {std::numbers::pi * std::pow(diameter_mm, 3.0) / 16.0,
            std::numbers::pi * std::pow(diameter_mm, 4.0) / 32.0};
}

TorsionSection torsionOfRectangle(double width_mm, double thickness_mm)
{
    using std::numbers::pi;
    const double a = std::max(width_mm, thickness_mm);
    const double b = std::min(width_mm, thickness_mm);
    double stiffness = 0.0;
    double stress = 0.0;
    for (int n = 1; n <= kLastTerm; n += 2) {
        const double argument = n * pi * a / (2.0 * b);
        stiffness += std::tanh(argument) / std::pow(n, 5.0);
        stress += 1.0 / (n * n * std::cosh(argument));
    }
    const double share = 1.0 - 192.0 * b / (std::pow(pi, 5.0) * a) * stiffness;
    return {a * b * b / 3.0 * share / (1.0 - 8.0 / (pi * pi) * stress), a * b * b * b / 3.0 * share};
}

double torsionSectionModulus_mm3(const SpecimenShape &shape)
{
    if (isRound(shape))
        return torsionOfRound(shape.width_mm).modulus_mm3;
    const bool hasSides = shape.width_mm > 0.0 && shape.thickness_mm > 0.0;
    return hasSides ? torsionOfRectangle(shape.width_mm, shape.thickness_mm).modulus_mm3 : 0.0;
}

} // namespace inchpeg
