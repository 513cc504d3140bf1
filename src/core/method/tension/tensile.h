// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/force_curve.h"
#include "core/curve/stress_strain.h"
#include "core/units/quantity.h"
#include "core/units/unit.h"

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How a tensile record is read. Windows and the offset follow ISO 527-1:2019, 3.6 to 3.9, where they are
/// from there; docs/methods.md, section "Tension", tells which are ours.
struct TensileParameters : StressStrainRules {
    Area area;
    std::optional<Length> gaugeLength;                   ///< over which the extension is measured
    std::optional<Length> gripDistance;                  ///< for a crosshead travel
    double offsetStrain = 0.002;                         ///< of the offset yield line
    std::optional<double> plannedRate_percent_per_min{}; ///< that the strain rate is held against
    bool operator==(const TensileParameters &) const = default;
};

/// Everything that is read from one tensile or layer-adhesion record. A property that the record does not
/// give is empty.
struct TensileResult {
    std::optional<double> tensileModulus_MPa;
    std::optional<double> yieldStress_MPa;
    std::optional<double> yieldStrain;
    std::optional<double> offsetYieldStress_MPa;
    std::optional<double> offsetYieldStrain;
    std::optional<double> tensileStrength_MPa;
    std::optional<double> strainAtStrength;
    std::optional<double> stressAtBreak_MPa;
    std::optional<double> strainAtBreak;
    std::optional<double> energyToBreak_J;
    std::optional<double> toughness_MJ_per_m3;
    std::optional<double> toeStrain;
    std::optional<double> peakForce_N;
    std::optional<double> poissonsRatio;              ///< needs a transverse strain
    std::optional<double> strainRate_percent_per_min; ///< in the modulus range; needs strain and time
    bool atLeast = false; ///< the gauge was at its end: strength, peak force and energy are lower bounds
    std::vector<double> stress_MPa; ///< of every sample, signs turned and lone spikes mended
    std::vector<double> strain;     ///< after the toe correction; empty where no strain is known
    CurveMarkers markers;
    std::vector<Check> validity;
    std::vector<std::string> warnings; ///< quantities in them are marked()
    bool operator==(const TensileResult &) const = default;
};

/// Reduces a record by the definitions in docs/methods.md, section "Tension".
/// Errors: InvalidArgument for an area, length or capacity that is not positive, a modulus range, offset or
/// break drop that makes no sense, or a marker outside the record; TooFewPoints for fewer than
/// two samples; BadInput for a force that is zero throughout.
/// A single force without anything else is what a hand scale shows: strength and peak force follow from it.
/// run: for the passes over long records.
Result<TensileResult> reduceTensile(const ForceCurve &curve, const TensileParameters &parameters,
                                    const TaskRunner &run = inOrder);

/// Errors: InvalidArgument, as reduceTensile().
Status checkTensileParameters(const TensileParameters &parameters);

} // namespace inchpeg
