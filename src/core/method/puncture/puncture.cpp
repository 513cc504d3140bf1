// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/puncture/puncture.h"

namespace inchpeg
{

Result<PunctureResult> reducePuncture(const LoadRecord &record, const LoadCurveRules &rules)
{
    Result<LoadCurve> curve = readLoadCurve(record, rules);
    if (!curve)
        return curve.error();
    PunctureResult result;
    result.peak_N = curve->load[curve->peak];
    if (rules.capacity)
        result.isCensored = curve->atLeast;
    if (!curve->way.empty())
        result.depthAtPeak_mm = curve->way[curve->peak] - curve->way[curve->contact];
    result.stiffness_N_per_mm = curve->stiffness();
    if (const std::optional<double> work = curve->workToBreak()) // N·mm is mJ
        result.energy_J = *work / 1e3;
    result.curve = std::move(*curve);
    return result;
}

} // namespace inchpeg
