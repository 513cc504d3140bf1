// SPDX-License-Identifier: GPL-3.0-or-later
// What the tests that read stress over strain share beyond their arithmetic: the markers, the parameters, the
// bounds and the picture.
#pragma once

#include "core/curve/force_curve.h"
#include "core/curve/stress_strain.h"
#include "core/method/method.h"

#include <array>

namespace inchpeg
{

inline constexpr std::array kStressStrainMarkers = {
    MarkerKind{"toe", "Toe",
               "The origin of strain. What lies before it, while grips and piece settle, is "
               "taken off every strain.",
               MarkerPlace::Shift, "modulus"},
    MarkerKind{"modulus_from", "Modulus from", "The modulus is the slope of stress over strain from here …",
               MarkerPlace::X, "modulus"},
    MarkerKind{"modulus_to", "Modulus to", "… to here (ISO 527-1: from 0.05 % to 0.25 % strain).",
               MarkerPlace::X, "modulus"},
    MarkerKind{"yield", "Yield",
               "First maximum after which strain goes on while stress falls or stays "
               "(ISO 527-1). Type \"none\" where there is none.",
               MarkerPlace::Sample, "yield_stress", true, true},
    MarkerKind{"strength", "Strength",
               "First maximum that stands clear of the noise, else the largest stress "
               "(ISO 527-1).",
               MarkerPlace::Sample, "strength", false, true},
    MarkerKind{"break", "Break", "Upper end of the fall by which the piece broke; energy counts up to it.",
               MarkerPlace::Sample, "stress_at_break"},
};

/// The parameters that say how such a curve is read: toe, capacity, modulus_from, modulus_to, break_drop.
inline constexpr Parameter kToe{
    "toe",
    "Toe correction",
    "the toe is the soft start while grips and piece settle; taken off, strains count from where the "
    "steepest straight part meets zero",
    "",
    ParameterSource::Test,
    false,
    "on",
    kOnOff};
inline constexpr Parameter kCapacity{
    "capacity", "Gauge's range",
    "the largest force that the gauge can read; a peak there is only \"at least\"", "N",
    ParameterSource::Rig};
inline constexpr Parameter kModulusFrom{
    "modulus_from",
    "Modulus from",
    "strain from which the modulus is fitted, after the toe (ISO 527-1: 0.05 % to 0.25 %)",
    "mm/mm",
    ParameterSource::Test,
    false,
    "0.05 %",
    {},
    true};
inline constexpr Parameter kModulusTo{
    "modulus_to",
    "Modulus to",
    "strain up to which the modulus is fitted, after the toe (ISO 527-1: 0.05 % to 0.25 %)",
    "mm/mm",
    ParameterSource::Test,
    false,
    "0.25 %"};
inline constexpr Parameter kBreakDrop{
    "break_drop", "Break drop",          "share of the peak that the load loses at once in a break",
    "mm/mm",      ParameterSource::Test, false,
    "50 %"};

/// What those parameters and the markers say.
void setRules(StressStrainRules &rules, const MethodSettings &settings, const PlacedMarkers &placed);

/// What is only known to be "at least": what the gauge cut off, and what lies behind a break that is not in
/// the record.
struct StressStrainBounds {
    BoundReason gauge = BoundReason::None; ///< of the peak
    BoundReason atBreak = BoundReason::None;
    double cutOffFrom_MPa = 0.0; ///< stresses from here on are cut off where the gauge was at its end

    [[nodiscard]] BoundReason of(const std::optional<double> &stress_MPa) const;
};
StressStrainBounds boundsOf(bool atLeast, const CurveMarkers &markers, std::optional<double> strength_MPa);

/// The parts of a result that the picture is drawn from; moved out of it.
struct StressStrainCurve {
    std::vector<double> stress_MPa;
    std::vector<double> strain;
    CurveMarkers markers;
    std::optional<double> toeStrain;
    std::optional<double> modulus_MPa;
    double lowStrain = 0.0; ///< of the modulus, as it was fitted
    double highStrain = 0.0;
    bool noYield = false; ///< a person says that there is none
    bool atLeast = false; ///< the gauge was at its end
};

/// Draws stress over strain, else over the travel, else over time; fills marks, picture and columns.
void drawStressStrain(Reading &reading, StressStrainCurve curve, ForceCurve record);

} // namespace inchpeg
