// SPDX-License-Identifier: GPL-3.0-or-later
// Which level comes next where a load rises in steps until a piece gives way: drops from rising heights,
// weights, torque.
#pragma once

#include "core/base/result.h"

#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

enum class StepRule {
    Rise,     ///< one piece, a step up after each level that it held, until it fails
    UpAndDown ///< one level a piece: a step up after a piece that held, a step down after one that failed
};
std::string_view stepRuleName(StepRule rule); ///< "rise", "up and down"
std::optional<StepRule> stepRuleFrom(std::string_view name);

/// Levels are in the working unit of what is stepped: mm of a drop, N·m of a torque.
struct StepPlan {
    StepRule rule = StepRule::Rise;
    double start = 0.0;
    double step = 0.0;
    double top = 0.0; ///< the rig's end; 0: none is known
    bool operator==(const StepPlan &) const = default;
};
/// Errors: InvalidArgument for a start or step that is not above zero, or a top below the start.
Status checkStepPlan(const StepPlan &plan);

struct StepTrial {
    double level = 0.0;
    bool hasFailed = false;
    bool operator==(const StepTrial &) const = default;
};

/// trials: of the piece (Rise) or of the pieces of the rail so far (UpAndDown), in order. Nothing where no
/// level is left: the piece failed, or the rig is at its end. Source of the up-and-down rule: W. J. Dixon, A.
/// M. Mood, A method for obtaining and analyzing sensitivity data, J. Am. Stat. Assoc. 43 (1948) 109; as the
/// staircase of ISO 6603-1 (from memory). The lowest level is one step.
std::optional<double> nextLevel(const StepPlan &plan, std::span<const StepTrial> trials);

/// Whether a staircase can be evaluated: both outcomes occur. See stats staircase for how well.
bool hasBothOutcomes(std::span<const StepTrial> trials);

} // namespace inchpeg
