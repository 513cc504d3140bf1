// SPDX-License-Identifier: GPL-3.0-or-later
// A load over a way, whatever the test: the force of a pull-out over its travel, a torque over its angle.
// Definitions: docs/methods.md, section "Loads over a way".
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/units/unit.h"

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A record in working units; the way is empty or as long as the load.
struct LoadRecord {
    std::vector<double> load;
    std::vector<double> way;
};

/// What the columns are, for words; and what a person said.
struct LoadCurveRules {
    Dimension load = Dimension::Force;
    std::string_view loadName = "force";
    std::string_view wayName = "extension";
    std::string_view bounded = "the peak is a lower bound"; ///< where the gauge was at its end
    std::optional<double> capacity;                         ///< of the gauge, in the unit of the load
    double breakDrop = 0.5;          ///< share of the peak that the load loses in a break
    std::optional<std::size_t> peak; ///< placed by hand
    std::optional<std::size_t> lastBeforeBreak;
};

struct LoadCurve {
    std::vector<double> load; ///< sign turned, lone spikes mended
    std::vector<double> way;  ///< sign turned; empty where none was recorded
    double noise = 0.0;       ///< standard deviation of a single reading of the load
    std::size_t contact = 0;  ///< the last sample before the load clearly rises from zero
    std::size_t peak = 0;
    std::size_t lastBeforeBreak = 0; ///< upper end of the fall by which the piece broke, else the last sample
    bool broke = false;
    bool atLeast = false; ///< the gauge was at its end: the peak is a lower bound
    std::vector<Check> validity;
    std::vector<std::string> warnings; ///< quantities in them are marked()

    /// The record goes on until the piece had let go: it broke, or carries less than half of its peak.
    [[nodiscard]] bool isWhole() const { return broke || load.back() <= 0.5 * load[peak]; }
    /// Area under the load over the way up to the break; empty without a way.
    [[nodiscard]] std::optional<double> workToBreak() const;
    /// The steepest least-squares slope over a rise of 30 % of the peak, before the peak; empty without a way
    /// or without such a rise.
    [[nodiscard]] std::optional<double> stiffness() const;
};

/// Reads a record; a single load is what a hand scale shows, and is its peak.
/// Errors: TooFewPoints for an empty record; BadInput for a load that is zero throughout; InvalidArgument for
/// a capacity or a break drop that makes no sense, or a marker outside the record.
Result<LoadCurve> readLoadCurve(const LoadRecord &record, const LoadCurveRules &rules);

} // namespace inchpeg
