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
struct TensileParameters {
    Area area;
    std::optional<Length> gaugeLength;  ///< over which the extension is measured
    std::optional<Length> gripDistance; ///< for a crosshead travel
    bool toeCorrection = true;
    std::optional<Force> capacity; ///< of the gauge: a peak at 99 % of it or more is only "at least"
    double lowStrain = 0.0005;     ///< the modulus is fitted from here …
    double highStrain = 0.0025;    ///< … to here, both ends included
    double offsetStrain = 0.002;   ///< of the offset yield line
    double breakDrop = 0.5;        ///< share of the peak that the force loses in a break
    MarkerOverrides markers;
    bool operator==(const TensileParameters &) const = default;
};

/// Rises whenever the same record and parameters would give other numbers than before, so that results which
/// were kept from an earlier version are made again.
inline constexpr int kTensileMethodVersion = 2;

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
/// run: for the passes over long records.
Result<TensileResult> reduceTensile(const ForceCurve &curve, const TensileParameters &parameters,
                                    const TaskRunner &run = inOrder);

/// Errors: InvalidArgument, as reduceTensile().
Status checkTensileParameters(const TensileParameters &parameters);

/// One property of a result: its name in files, its name for people, unit, definition and value.
struct TensileProperty {
    std::string_view name;
    std::string_view label;
    Dimension dimension = Dimension::Ratio;
    std::string_view definition;
    std::optional<double> TensileResult::*value;
    bool boundByGauge;         ///< is a lower bound where TensileResult::atLeast
    bool boundByBreak = false; ///< is a lower bound where the piece had not broken when the record ended
};

/// Whether a property's value is only "at least": the gauge was at its end, or the record ends before the
/// break.
bool isLowerBound(const TensileProperty &property, const TensileResult &result);

/// All properties in the order in which they are listed.
std::span<const TensileProperty> tensileProperties();

/// Errors: NotFound with the names there are.
Result<TensileProperty> tensileProperty(std::string_view name);

} // namespace inchpeg
