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

/// A printed tool or socket that is turned by one torque after another, each higher than the one before.
struct TorqueSteps {
    double last_Nm = 0.0;
    bool failed = false;           ///< at the last one
    std::optional<double> held_Nm; ///< highest that it held before; 0: it failed at its first
    bool operator==(const TorqueSteps &) const = default;
};

struct SteppedTorqueResult {
    double held_Nm = 0.0; ///< highest torque that it is known to have held
    bool atLeast = false; ///< it held the last one too
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const SteppedTorqueResult &) const = default;
};

/// The torque that the piece held: the last step before the one at which it failed. Not the middle between
/// the two, as with drops: what a tool is used up to is what it held (common practice). Errors:
/// InvalidArgument for a torque that is not above zero, a held one that is not below the last, or a piece
/// that failed without a word on what it held before.
Result<SteppedTorqueResult> reduceSteppedTorque(const TorqueSteps &steps);

} // namespace inchpeg
