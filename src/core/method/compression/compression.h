// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/force_curve.h"
#include "core/curve/stress_strain.h"
#include "core/units/quantity.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// How a record of a piece between two plates is read: docs/methods.md, section "Compression". Stresses,
/// strains and the modulus range follow ISO 604:2002, 3 and 10; the limit of buckling 6.1 (from memory).
struct CompressionParameters : StressStrainRules {
    Area area;
    Length length;                     ///< of the piece between the plates
    std::optional<Length> gaugeLength; ///< where the travel is an extensometer's
    Length thinnest;                   ///< the smallest size across the load; zero where it is not known
    double givenStrain = 0.1;          ///< at which a stress is told
    bool operator==(const CompressionParameters &) const = default;
};

/// What is read; stresses and strains count up where the piece is pressed together.
struct CompressionResult {
    std::optional<double> modulus_MPa;
    double strength_MPa = 0.0;
    std::optional<double> strainAtStrength;
    std::optional<double> yieldStress_MPa;
    std::optional<double> stressAtGivenStrain_MPa; ///< nothing where the record ends before it
    double stressAtBreak_MPa = 0.0;
    std::optional<double> toeStrain;
    double peakForce_N = 0.0;
    bool atLeast = false;       ///< the gauge was at its end
    bool isStillRising = false; ///< the record ends on its largest stress: the strength is higher
    std::vector<double> stress_MPa;
    std::vector<double> strain;
    CurveMarkers markers;
    std::vector<Check> validity;
    std::vector<std::string> warnings; ///< quantities in them are marked()
};

/// Up to this strain a piece of these sizes is not expected to buckle: 0.4 (x/l)², x the smallest size across
/// the load and l the length (ISO 604:2002, 6.1; from memory).
double strainBeforeBuckling(Length thinnest, Length length);

/// Errors: InvalidArgument for sizes or a strain that are not positive, and those of
/// checkStressStrainRules(); TooFewPoints for fewer than two samples; BadInput without strain and travel, or
/// for a force that is zero throughout.
Result<CompressionResult> reduceCompression(const ForceCurve &curve, const CompressionParameters &parameters);
Status checkCompressionParameters(const CompressionParameters &parameters);

} // namespace inchpeg
