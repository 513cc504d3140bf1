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

/// A force over the way of a piece that is towed under a known mass. travel_mm is empty or equally long.
struct TowRecord {
    std::vector<double> force_N;
    std::vector<double> travel_mm;
};

struct FrictionParameters {
    Mass mass;                     ///< that presses the piece on, its own included
    std::optional<Force> capacity; ///< of the gauge
    bool operator==(const FrictionParameters &) const = default;
};

struct FrictionResult {
    double staticFriction = 0.0;
    std::optional<double> kineticFriction; ///< empty without the way, or where too little of it follows
    double peak_N = 0.0;
    bool peakIsLowerBound = false;
    std::size_t peakAt = 0;
    double kineticFrom_mm = 0.0; ///< where the kinetic force is averaged
    double kineticTo_mm = 0.0;
    std::vector<double> force_N; ///< as read: sign turned, lone spikes taken out
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const FrictionResult &) const = default;
};

/// Reduces a record by docs/methods.md, section "Friction": static friction is the largest force over the
/// weight, kinetic friction the mean force from 10 to 60 mm behind it, at least 20 mm of it, over the weight
/// (in the manner of ISO 8295). Errors: InvalidArgument for a mass that is not above zero; TooFewPoints for
/// an empty record; BadInput for a force that is zero throughout.
Result<FrictionResult> reduceFriction(const TowRecord &record, const FrictionParameters &parameters);

} // namespace inchpeg
