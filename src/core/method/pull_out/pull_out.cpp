// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/pull_out/pull_out.h"

#include "core/method/sizes.h"

#include <numbers>

namespace inchpeg
{

Result<PullOutResult> reducePullOut(const LoadRecord &record, const PullOutParameters &parameters,
                                    const LoadCurveRules &rules)
{
    if (const Status status = checkSizes({{"diameter", parameters.diameter}, {"depth", parameters.depth}});
        !status)
        return status.error();
    Result<LoadCurve> curve = readLoadCurve(record, rules);
    if (!curve)
        return curve.error();
    PullOutResult result;
    result.peak_N = curve->load[curve->peak];
    result.interfaceShear_MPa =
        result.peak_N / (std::numbers::pi * in_mm(parameters.diameter) * in_mm(parameters.depth));
    result.stiffness_N_per_mm = curve->stiffness();
    if (const std::optional<double> work = curve->workToBreak()) // N·mm is mJ
        result.energy_J = *work / 1e3;
    result.curve = std::move(*curve);
    return result;
}

} // namespace inchpeg
