// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/load_curve.h"
#include "core/units/quantity.h"

#include <optional>

namespace inchpeg
{

struct PullOutParameters {
    Length diameter; ///< of the insert, or of the thread over its crests
    Length depth;    ///< over which it holds
};

struct PullOutResult {
    double peak_N = 0.0;
    double interfaceShear_MPa = 0.0;
    std::optional<double> stiffness_N_per_mm;
    std::optional<double> energy_J; ///< up to the break
    LoadCurve curve;
};

/// An insert, nut or thread that is pulled out of a printed part: interface shear F / (π d depth) at the
/// largest force, spread evenly over the cylinder that it holds by (ours, common practice).
/// Errors: InvalidArgument for a size that is not above zero; those of readLoadCurve().
Result<PullOutResult> reducePullOut(const LoadRecord &record, const PullOutParameters &parameters,
                                    const LoadCurveRules &rules);

} // namespace inchpeg
