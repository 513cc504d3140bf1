// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/shear/double_shear.h"

#include <fmt/format.h>

namespace inchpeg
{

Result<DoubleShearResult> reduceDoubleShear(const LoadRecord &record, Area area, const LoadCurveRules &rules)
{
    if (!(in_mm2(area) > 0.0))
        return invalidArgument(
            fmt::format("the cross-section is {:g} mm²; a measured area above zero is wanted", in_mm2(area)));
    Result<LoadCurve> curve = readLoadCurve(record, rules);
    if (!curve)
        return curve.error();
    const double peak_N = curve->load[curve->peak];
    return DoubleShearResult{peak_N / (2.0 * in_mm2(area)), peak_N, std::move(*curve)};
}

} // namespace inchpeg
