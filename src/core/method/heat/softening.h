// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/method/heat/heat_deflection.h"
#include "core/units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// A needle under 10 or 50 N that sinks in by 1 mm (ISO 306:2022), or a cantilever in an oven that sags.
struct SofteningParameters {
    Length threshold;
    double lag_s = 0.0;                         ///< by which the probe shows the temperature late
    std::optional<double> saidRate_K_per_h{};   ///< how fast it was heated, for a record without time
    std::optional<double> wantedRate_K_per_h{}; ///< of the procedure; empty: either of the two usual ones
    bool operator==(const SofteningParameters &) const = default;
};

struct SofteningResult {
    std::optional<double> temperature_C; ///< empty where the record ends before the threshold is passed
    std::optional<double> shown_C;       ///< by the probe, before its lag was taken back
    std::optional<double> heatingRate_K_per_h;
    double highest_C = 0.0;
    std::vector<double> deflection_mm; ///< signs turned where needed
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const SofteningResult &) const = default;
};

/// Reduces a record by docs/methods.md, section "Softening": the temperature where the deflection first
/// exceeds the threshold and stays above it, interpolated linearly, less lag × heating rate.
/// A single temperature without a deflection is that of the first sag that was seen.
/// Errors: InvalidArgument for a threshold that is not positive, a lag below zero, a lag without a rate, or
/// several temperatures without deflections; TooFewPoints for fewer than two samples with deflections.
Result<SofteningResult> reduceSoftening(const WarmingRecord &record, const SofteningParameters &parameters);

} // namespace inchpeg
