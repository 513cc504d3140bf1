// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/task_runner.h"
#include "core/stats/power.h"
#include "sim/virtual_specimen.h"

#include <functional>
#include <stop_token>

namespace inchpeg
{

/// Breaks virtual specimens by the plan, compares them as the broken pieces will be
/// (core/stats/simultaneous.h), and counts how often the difference is found.
struct SimulationSetup {
    Comparison comparison = Comparison::AgainstReference;
    int conditions = 2;
    int pieces = 5;          ///< of each condition
    double expected = 100.0; ///< of the reference; a force in N where the rig's limits are to count
    double cv = 0.05;        ///< scatter of single values
    bool asRatio =
        true; ///< scatter is a share of each mean, and rails are compared by ratios; else by differences
    /// One condition differs from the reference by this fraction, the others equal it; for a trend the levels
    /// climb by it from the lowest to the highest; for AnyDifference the others lie midway; for GoodEnough
    /// one equals the reference and the others are off by all of it, in the direction that is worse.
    double difference = 0.1;
    std::vector<double> positions{}; ///< of a trend's levels; empty: equally spaced
    bool isBothSides = false;        ///< for GoodEnough: off to either side is worse
    double alpha = 0.05;
    double lost = 0.0; ///< share of pieces that give no value: jammed, slipped, spoiled
    sim::Rig rig;      ///< resolution and capacity of the gauge; 0 for an ideal one
    int runs = 1000;
    std::uint64_t seed = 1;
};

struct SimulationResult {
    int runs = 0;
    int found = 0; ///< the real difference was called real
    int falseAlarms =
        0; ///< a condition that equals the reference was called different (not counted for a trend)
    int undecided =
        0; ///< too few pieces were left, or the gauge's end was reached: a bound cannot be compared
    [[nodiscard]] double share() const { return runs > 0 ? static_cast<double>(found) / runs : 0.0; }
    /// Standard error of share(), √(p (1 − p) / runs).
    [[nodiscard]] double standardError() const;
};

/// progress: called with the runs done so far, from any thread.
/// Errors: InvalidArgument where a number is out of range; Cancelled.
Result<SimulationResult> simulatePlan(const SimulationSetup &setup, const TaskRunner &runner,
                                      std::stop_token stop, const std::function<void(int)> &progress = {});

} // namespace inchpeg
