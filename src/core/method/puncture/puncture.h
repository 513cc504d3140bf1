// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/load_curve.h"

#include <optional>

namespace inchpeg
{

struct PunctureResult {
    double peak_N = 0.0;
    std::optional<bool> isCensored;       ///< the gauge was at its end; empty where its range is not known
    std::optional<double> depthAtPeak_mm; ///< from first contact
    std::optional<double> stiffness_N_per_mm;
    std::optional<double> energy_J; ///< up to the break
    LoadCurve curve;
};

/// A probe that is pressed through a printed block.
/// Errors: those of readLoadCurve().
Result<PunctureResult> reducePuncture(const LoadRecord &record, const LoadCurveRules &rules);

} // namespace inchpeg
