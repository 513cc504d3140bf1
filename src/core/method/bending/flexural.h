// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/force_curve.h"
#include "core/curve/stress_strain.h"
#include "core/units/quantity.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Where a bar on two supports is loaded: in the middle, or at two points a third or half of the span apart.
enum class BendingLoad { ThreePoint, FourPointThird, FourPointHalf };
std::string_view bendingLoadName(BendingLoad load); ///< "three-point", "four-point-third", "four-point-half"

/// What the travel of a bending record is that of: the middle of the bar, by a gauge under it, or the load
/// points, which a crosshead shows.
enum class DeflectionAt { Middle, LoadPoints };

/// How a bending record is read. Stress and strain of the outer fibre, F the force, s the deflection in the
/// middle, L the span, b the width, h the thickness:
///
/// | load | stress | strain | source (clauses from memory) |
/// |---|---|---|---|
/// | three points | 3FL/(2bh²) | 6sh/L² | ISO 178:2019, 9.1 and 9.2 |
/// | four points, a third apart | FL/(bh²) | 4.70 sh/L² | ASTM D6272-17, 12.2 and 12.7 |
/// | four points, half apart | 3FL/(4bh²) | 4.36 sh/L² | ASTM D6272-17, 12.3 and 12.7 |
struct FlexuralParameters : StressStrainRules {
    Length width;
    Length thickness;
    Length span;
    BendingLoad load = BendingLoad::ThreePoint;
    /// Multiplies the stress by 1 + 6(s/L)² − 4sh/L² (three points only), which counts for deflections beyond
    /// a tenth of the span. Source: ASTM D790-17, 12.3.
    bool largeDeflection = false;
    /// Where the deflection was taken; empty: not said. Under four points the load points move by 20/23 (a
    /// third apart) or 8/11 (half apart) of the middle. Source: beam with two loads, Gere and Goodno,
    /// Mechanics of Materials, table G-2, case 6 (from memory).
    std::optional<DeflectionAt> deflectionAt;
    bool operator==(const FlexuralParameters &) const = default;
};

/// What is read from one bending record; a property that the record does not give is empty.
struct FlexuralResult {
    std::optional<double> flexuralModulus_MPa;
    std::optional<double> flexuralStrength_MPa;
    std::optional<double> strainAtStrength;
    /// At a deflection of 1.5 times the thickness; empty where the piece breaks before.
    std::optional<double> stressAtConventionalDeflection_MPa;
    std::optional<double> stressAtBreak_MPa;
    std::optional<double> strainAtBreak;
    std::optional<double> peakForce_N;
    std::optional<double> energyToBreak_J;
    std::optional<double> toeStrain;
    bool atLeast = false;
    std::vector<double> stress_MPa;
    std::vector<double> strain; ///< after the toe correction
    CurveMarkers markers;
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const FlexuralResult &) const = default;
};

/// Reduces a record of force over deflection by docs/methods.md, section "Bending".
/// curve.extension_mm holds the deflection; a strain column goes before it.
/// Errors: InvalidArgument for a size, span or capacity that is not positive, or large deflections under
/// four points; TooFewPoints for fewer than two samples; BadInput without a deflection or for a force that is
/// zero throughout.
Result<FlexuralResult> reduceFlexural(const ForceCurve &curve, const FlexuralParameters &parameters);

/// The conventional deflection, in thicknesses (ISO 178:2019, 3.6).
inline constexpr double kConventionalDeflections = 1.5;

/// The strain of the outer fibre at a deflection in the middle, both without a unit or in the same one.
double bendingStrain(double deflection_mm, const FlexuralParameters &parameters);

} // namespace inchpeg
