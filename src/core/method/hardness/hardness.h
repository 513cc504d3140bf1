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

/// Which indenter and spring: A for soft, D for hard polymers.
enum class ShoreScale { A, D };

struct HardnessParameters {
    ShoreScale scale = ShoreScale::D;
    std::optional<Duration> dwell; ///< from the first firm contact to the reading
};

struct HardnessResult {
    double hardness = 0.0; ///< mean of the readings
    std::size_t n = 0;
    std::optional<double> sd; ///< of the single readings (n - 1); empty with one
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const HardnessResult &) const = default;
};

/// Reduces readings of a durometer by docs/methods.md, section "Hardness" (in the manner of ISO 868).
/// Errors: TooFewPoints without a reading; BadInput, with the reading's number, for one that is not 0 to 100.
Result<HardnessResult> reduceHardness(std::span<const double> readings, const HardnessParameters &parameters);

} // namespace inchpeg
