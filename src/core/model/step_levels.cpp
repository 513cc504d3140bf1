// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/step_levels.h"

#include "core/base/named.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::pair<StepRule, std::string_view> kRules[] = {{StepRule::Rise, "rise"},
                                                            {StepRule::UpAndDown, "up and down"}};
constexpr double kRounding = 1e-9; ///< of a step: levels are sums of steps

} // namespace

std::string_view stepRuleName(StepRule rule)
{
    return nameIn(kRules, rule);
}

std::optional<StepRule> stepRuleFrom(std::string_view name)
{
    return valueIn(kRules, name);
}

Status checkStepPlan(const StepPlan &plan)
{
    if (!(plan.start > 0.0) || !(plan.step > 0.0))
        return invalidArgument("the first level and the step must be above zero");
    if (plan.top > 0.0 && plan.top < plan.start)
        return invalidArgument("the first level is beyond the rig's end");
    return ok();
}

std::optional<double> nextLevel(const StepPlan &plan, std::span<const StepTrial> trials)
{
    if (trials.empty())
        return plan.start;
    const StepTrial &last = trials.back();
    if (plan.rule == StepRule::Rise && last.hasFailed)
        return std::nullopt;
    const double level = last.level + (last.hasFailed ? -plan.step : plan.step);
    const bool isBeyond = plan.top > 0.0 && level > plan.top + kRounding * plan.step;
    if (plan.rule == StepRule::Rise)
        return isBeyond ? std::nullopt : std::optional(level);
    return isBeyond ? last.level : std::max(level, plan.step);
}

bool hasBothOutcomes(std::span<const StepTrial> trials)
{
    const auto failed =
        std::count_if(trials.begin(), trials.end(), [](const auto &one) { return one.hasFailed; });
    return failed > 0 && failed < static_cast<std::ptrdiff_t>(trials.size());
}

} // namespace inchpeg
