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

/// The drops of one piece: each higher than the one before, until it failed or there was no more height.
struct Drops {
    Mass mass;           ///< of the falling weight
    Length height;       ///< of the last drop
    bool failed = false; ///< at the last drop
    std::optional<Length>
        heldHeight; ///< highest drop that the piece held before; empty: this was its only one
    bool operator==(const Drops &) const = default;
};

struct FallingWeightResult {
    double dropEnergy_J = 0.0; ///< m·g·h of the last drop
    /// Midway between the highest energy that it held and the one that broke it; of a piece that held, the
    /// last energy, a lower bound. Empty where it failed at its only drop: then all that is known is "less".
    std::optional<double> failureEnergy_J;
    bool atLeast = false;
    std::optional<double> uncertainty_J; ///< standard, of the gap between the two: its width over √12
    double speed_m_per_s = 0.0;          ///< at the blow, √(2gh)
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const FallingWeightResult &) const = default;
};

/// Reduces the drops of one piece by docs/methods.md, section "Falling weight" (in the manner of ISO 6603-1).
/// Errors: InvalidArgument for a mass or height that is not above zero, or a held height that is not below
/// the last one.
Result<FallingWeightResult> reduceFallingWeight(const Drops &drops);

} // namespace inchpeg
