// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

struct WarpResult {
    double largest_mm = 0.0;
    double mean_mm = 0.0;
    std::optional<double> share; ///< the largest over the diagonal, a fraction
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const WarpResult &) const = default;
};

/// Reduces how far the corners of a plate stand off a flat one, by docs/methods.md, section "Warp" (common
/// practice: feeler gauge or callipers on a surface plate, one corner after another).
/// Errors: TooFewPoints without a reading; BadInput for one below zero; InvalidArgument for a diagonal that
/// is not above zero.
Result<WarpResult> reduceWarp(std::span<const double> lift_mm, const std::optional<Length> &diagonal);

} // namespace inchpeg
