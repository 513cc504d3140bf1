// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"
#include "core/specimen/section.h"
#include "sim/random.h"

#include <cstdint>
#include <string_view>

namespace inchpeg::sim
{

/// A generic polymer as printed. Values are rough orders for printed pieces (common practice), for inventing
/// demo data only; no material of a maker is meant.
struct Polymer {
    std::string_view name;
    double modulus_MPa = 0.0;
    double strength_MPa = 0.0;  ///< flat-printed
    double strainAtBreak = 0.0; ///< flat-printed
    double softening = 0.0;    ///< share of the strength lost between yield and break; 0: breaks while rising
    double layerShare = 0.0;   ///< standing strength over flat strength at the best nozzle temperature
    double bestNozzle_C = 0.0; ///< middle of the broad top
    double nozzleReach_K = 0.0; ///< off the top by this much, the layers hold half as well
    double scatter = 0.0;       ///< coefficient of variation of strength between pieces
};

const Polymer &lowHeatPolyester();
const Polymer &glycolPolyester();
const Polymer &styrenic();
const Polymer &polyamide();

/// How a piece was printed and is pulled.
struct PrintCondition {
    bool standing = false;
    double nozzle_C = 0.0; ///< 0: the polymer's best
    double fanShare = 0.0; ///< part cooling, 0 to 1; cools the layers before they weld
};

/// The rig that pulls it.
struct Rig {
    double gaugeLength_mm = 50.0;
    double slack_mm = 0.0;         ///< taken up before the piece carries its load
    double forceNoise_N = 0.0;     ///< standard deviation of a reading
    double resolution_N = 0.0;     ///< 0: none
    double capacity_N = 0.0;       ///< 0: never reached
    double speed_mm_per_s = 0.083; ///< 5 mm/min
    double rate_Hz = 10.0;
};

/// The mean strength of the layers or the plane under a condition, in MPa: the truth that a test looks for.
double expectedStrength_MPa(const Polymer &polymer, const PrintCondition &condition);

/// The strength of one piece: normal around the expected one, scatter as a coefficient of variation.
double drawnStrength(double expected, double scatter, Random &random);
/// A force as the rig reads it: in steps of its resolution, at most its capacity.
double readBy(const Rig &rig, double force_N);

/// Pulls one piece. The same seed gives the same record on every machine.
ForceCurve pull(const Polymer &polymer, const PrintCondition &condition, Area area, const Rig &rig,
                std::uint64_t seed);

} // namespace inchpeg::sim
