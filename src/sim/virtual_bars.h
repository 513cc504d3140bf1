// SPDX-License-Identifier: GPL-3.0-or-later
// Bars that are bent, loaded, struck and warmed: virtual specimens of the tests beside tension. Like there,
// values are rough orders for printed pieces (common practice), for inventing data only. The same seed gives
// the same record on every machine.
#pragma once

#include "core/method/heat/heat_deflection.h"
#include "core/method/impact/pendulum.h"
#include "sim/virtual_specimen.h"

#include <span>
#include <string>

namespace inchpeg::sim
{

/// A bar as it lies on its supports; a cantilever's span goes from the clamp to the load.
struct Bar {
    double width_mm = 10.0;
    double thickness_mm = 4.0;
    double span_mm = 64.0;
};

/// What a polymer does beside being pulled.
struct BarFacts {
    double flexuralOverTensile = 1.4;
    double breakStrain = 0.05;     ///< of the outer fibre; above 0.055 the bar bends and does not break
    double creepShare = 0.05;      ///< growth of the strain in the first hour, a share of the first strain
    double creepExponent = 0.25;   ///< of Findley's law
    double impact_kJ_per_m2 = 4.0; ///< notched
    double noBreakShare = 0.0;     ///< of pieces that the hammer only bends
    double softens_C = 60.0;       ///< middle of the fall of the modulus
    double softeningWidth_K = 4.0; ///< the narrower, the sharper
    double shrinkage_percent = 0.2;
};
const BarFacts &barFacts(const Polymer &polymer);

/// Force over deflection until the bar breaks, or has bent by 5.5 % strain.
ForceCurve bend(const Polymer &polymer, const Bar &bar, const Rig &rig, std::uint64_t seed);

/// A typed table: loads in kg, times in s, a dial with steps of a hundredth; each load read at 1, 30 and 60
/// s.
std::string deadWeightTable(const Polymer &polymer, const Bar &bar, std::span<const double> masses_kg,
                            std::uint64_t seed);

/// A typed row: where the pointer stood, to half a degree, and the kind of break.
std::string swingTable(const Polymer &polymer, const Bar &bar, double remainingWidth_mm,
                       const PendulumRig &rig, std::uint64_t seed);

/// A typed table: hours since the load was put on and the dial.
std::string creepTable(const Polymer &polymer, const Bar &bar, double stress_MPa,
                       std::span<const double> times_h, std::uint64_t seed);

/// A bar under a stress, warmed at 120 K/h from 23 °C up to an end, a sample every ten seconds.
WarmingRecord warm(const Polymer &polymer, const Bar &bar, double stress_MPa, double end_C,
                   std::uint64_t seed);
/// The same as a logger writes it.
std::string warmingTable(const WarmingRecord &record);

/// A typed table: three readings of a known length with callipers.
std::string lengthTable(const Polymer &polymer, double nominal_mm, std::uint64_t seed);

} // namespace inchpeg::sim
