// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// A block that was weighed and measured.
struct WeighedBlock {
    Mass mass;
    Length width;
    Length thickness;
    Length length;
    std::optional<double> solid_g_per_cm3; ///< density of the polymer without voids
    bool operator==(const WeighedBlock &) const = default;
};

struct VoidShareResult {
    double density_g_per_cm3 = 0.0;  ///< mass over the volume within the outer faces
    std::optional<double> voidShare; ///< 1 - density over that of the solid; below zero is a wrong input
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const VoidShareResult &) const = default;
};

/// Apparent density of a block from its mass and outer sizes, and the share of it that is not polymer.
/// Source: ISO 845:2006 (apparent density of cellular plastics) for the density; docs/methods.md, "Mass and
/// void share". Errors: InvalidArgument for a mass, size or density that is not above zero.
Result<VoidShareResult> reduceVoidShare(const WeighedBlock &block);

} // namespace inchpeg
