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

/// One reading of the dial after a weight was put on.
struct LoadReading {
    double load_N = 0.0;
    std::optional<double> time_s; ///< since the weight was put on, or since the first one
    double deflection_mm = 0.0;
    bool operator==(const LoadReading &) const = default;
};

/// A bar that carries one dead weight after another: on two supports, loaded in the middle, or clamped at one
/// end.
struct BendStepsParameters {
    Length width;
    Length thickness;
    Length span; ///< of a cantilever, from the clamp to the load
    bool isCantilever = false;
    bool operator==(const BendStepsParameters &) const = default;
};

/// What one load did.
struct LoadStep {
    double load_N = 0.0;
    std::size_t first = 0; ///< of its readings
    std::size_t last = 0;
    /// L³F/(4bh³s), of a cantilever 4L³F/(bh³s), from the last reading; a modulus only while the load does
    /// not creep. Empty at no deflection.
    std::optional<double> apparentModulus_MPa;
    std::optional<double> timeRatio; ///< last reading over the first; empty with one reading, or a first of 0
    std::optional<bool> steady; ///< the last two readings differ by at most 2 % of the last; empty with one
    bool operator==(const LoadStep &) const = default;
};

struct BendStepsResult {
    std::vector<LoadStep> steps; ///< in the order in which the loads were put on
    /// The largest load up to which all held still; empty where the first did not, or nothing tells.
    std::optional<double> steadyLoad_N;
    bool neverMoved = false; ///< all loads held still: the steady load is a lower bound
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const BendStepsResult &) const = default;
};

/// Reduces readings under dead weights by docs/methods.md, section "Bending under dead weights".
/// readings: in the order in which they were taken; neighbours with the same load belong to one step, and
/// readings without a load to none.
/// Errors: InvalidArgument for a size that is not positive; BadInput without a reading under load.
Result<BendStepsResult> reduceBendSteps(std::span<const LoadReading> readings,
                                        const BendStepsParameters &parameters);

} // namespace inchpeg
