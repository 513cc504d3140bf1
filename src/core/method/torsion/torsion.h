// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/load_curve.h"
#include "core/specimen/section.h"
#include "core/units/quantity.h"

#include <optional>

namespace inchpeg
{

struct TorsionParameters {
    Section section; ///< rectangular or round
    Length length;   ///< that is twisted, between the clamps or of the narrow part
};

/// Angles in degrees, torques in N·m.
struct TorsionResult {
    double peakTorque_Nm = 0.0;
    std::optional<double> torqueAt90_Nm; ///< empty where the piece was not twisted so far before it broke
    double shearStress_MPa = 0.0;        ///< at the skin, by the elastic formula, at the largest torque
    std::optional<double> shearModulus_MPa;
    std::optional<double> angleAtPeak_deg;
    double play_deg = 0.0; ///< taken off all angles: what the rig turned before it twisted the piece
    LoadCurve curve;
};

/// A bar that is twisted: shear stress T over the torsion section modulus, shear modulus from the slope of
/// torque over angle below a tenth of the angle at the peak where that is straight, else over the steepest
/// straight part of the rise. Angles count from where the straight part meets zero. Source:
/// core/specimen/section_modulus.h. Errors: InvalidArgument for a size that is not above zero or a plain
/// area; those of readLoadCurve().
Result<TorsionResult> reduceTorsion(const LoadRecord &record, const TorsionParameters &parameters,
                                    const LoadCurveRules &rules);

} // namespace inchpeg
