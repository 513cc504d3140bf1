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

struct ShrinkageResult {
    double shrinkage_percent = 0.0; ///< negative where the piece came out longer than drawn
    std::size_t n = 0;
    std::optional<double> sd_percent; ///< of the single readings (n - 1); empty with one
    double mean_mm = 0.0;
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const ShrinkageResult &) const = default;
};

/// Reduces readings of a known length by docs/methods.md, section "Shrinkage":
/// 100 (nominal - mean) / nominal. Source: common practice; ISO 294-4 defines moulding shrinkage so.
/// Errors: InvalidArgument for a nominal length that is not above zero; TooFewPoints without a reading;
/// BadInput, with the reading's number, for a length that is not above zero.
Result<ShrinkageResult> reduceShrinkage(std::span<const double> length_mm, Length nominal);

} // namespace inchpeg
