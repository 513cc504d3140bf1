// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/load_curve.h"
#include "core/units/quantity.h"

namespace inchpeg
{

struct DoubleShearResult {
    double shearStrength_MPa = 0.0;
    double peak_N = 0.0;
    LoadCurve curve;
};

/// A pin that is cut through at two places at once, in a fork: F / (2 A) at the largest force, A of one
/// cross-section. Source: any text on joints, for example Budynas and Nisbett, Shigley's Mechanical
/// Engineering Design, 10th ed., section 1-12 (from memory).
/// Errors: InvalidArgument for an area that is not above zero; those of readLoadCurve().
Result<DoubleShearResult> reduceDoubleShear(const LoadRecord &record, Area area, const LoadCurveRules &rules);

} // namespace inchpeg
