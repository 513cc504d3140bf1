// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/torsion/stepped_torque.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr double kWidestStepShare = 0.25; ///< of the last torque (ours): wider says little

} // namespace

Result<SteppedTorqueResult> reduceSteppedTorque(const TorqueSteps &steps)
{
    if (!(steps.last_Nm > 0.0))
        return invalidArgument(
            fmt::format("torque is {:g} N·m; the last torque, above zero, is wanted", steps.last_Nm));
    if (steps.failed && !steps.held_Nm)
        return invalidArgument(
            "held_torque is missing: say what the piece held before it failed, 0 where it was the "
            "first step");
    if (steps.held_Nm && !(*steps.held_Nm >= 0.0 && *steps.held_Nm < steps.last_Nm))
        return invalidArgument(fmt::format(
            "held_torque is {:g} N·m; the highest torque before the last one ({:g} N·m) is wanted",
            *steps.held_Nm, steps.last_Nm));
    SteppedTorqueResult result;
    result.atLeast = !steps.failed;
    result.held_Nm = steps.failed ? *steps.held_Nm : steps.last_Nm;
    result.validity.push_back({"the piece fails", steps.failed, steps.failed ? "failed" : "held"});
    if (steps.held_Nm) {
        const double step = 1.0 - *steps.held_Nm / steps.last_Nm;
        result.validity.push_back({"the last step is at most a quarter of the torque",
                                   step <= kWidestStepShare, fmt::format("{:.0f} % (ours)", 100.0 * step)});
    }
    if (!steps.failed)
        result.warnings.emplace_back("it held the last step: the torque is a lower bound");
    else if (result.held_Nm == 0.0)
        result.warnings.emplace_back("it failed at its first step: start lower");
    return result;
}

} // namespace inchpeg
