// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/void_share/void_share.h"

#include "core/method/sizes.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr double kGramsPerKilogram = 1e3;
constexpr double kCubicMillimetresPerCubicCentimetre = 1e3;
constexpr double kBelowNothing = -0.02; ///< what callipers and scale may be off by (ours)
constexpr double kLightest_g = 1.0;     ///< below it a scale to 0.01 g reads to more than 1 %

} // namespace

Result<VoidShareResult> reduceVoidShare(const WeighedBlock &block)
{
    if (const Status status =
            checkSizes({{"width", block.width}, {"thickness", block.thickness}, {"length", block.length}});
        !status)
        return status.error();
    const double mass_g = block.mass.si() * kGramsPerKilogram;
    if (!(mass_g > 0.0))
        return invalidArgument(fmt::format("mass is {:g} g; a mass above zero is wanted", mass_g));
    if (block.solid_g_per_cm3 && !(*block.solid_g_per_cm3 > 0.0))
        return invalidArgument(fmt::format("solid_density is {:g} g/cm³; a density above zero is wanted",
                                           *block.solid_g_per_cm3));
    VoidShareResult result;
    const double volume_cm3 = in_mm(block.width) * in_mm(block.thickness) * in_mm(block.length) /
                              kCubicMillimetresPerCubicCentimetre;
    result.density_g_per_cm3 = mass_g / volume_cm3;
    if (block.solid_g_per_cm3) {
        result.voidShare = 1.0 - result.density_g_per_cm3 / *block.solid_g_per_cm3;
        result.validity.push_back({"no heavier than solid", *result.voidShare >= kBelowNothing,
                                   fmt::format("{:.3f} g/cm³ against {:.3f} g/cm³ solid",
                                               result.density_g_per_cm3, *block.solid_g_per_cm3)});
    } else {
        result.warnings.emplace_back("no void share: say the density of the solid polymer");
    }
    result.validity.push_back({"heavy enough for the scale", mass_g >= kLightest_g,
                               fmt::format("{:.2f} g; a scale to 0.01 g wants 1 g or more", mass_g)});
    return result;
}

} // namespace inchpeg
