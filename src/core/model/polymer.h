// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string_view>

namespace inchpeg
{

/// A generic polymer with rough values for printed pieces (common practice), offered until own results and
/// the spool's own figures are known. They can all be changed in the plan or on the spool's card.
struct PolymerFacts {
    std::string_view name;
    double density_g_per_cm3 = 0.0;
    double strength_MPa = 0.0; ///< tensile, printed flat and solid
    double modulus_MPa = 0.0;
    double layerShare = 0.0;       ///< layer strength over flat strength
    double impact_kJ_per_m2 = 0.0; ///< notched, printed flat
    double dry_C = 0.0;
    double dry_h = 0.0;
    double conditioning_h = 0.0; ///< at 23 °C and 50 %, before a test
    bool takesUpWater = false;   ///< conditioning to equilibrium takes far longer
    bool fumes = false;          ///< extraction is wanted while it prints
    bool dust = false;           ///< fibre-filled: splinters and dust
};

std::span<const PolymerFacts> polymers();
/// The polymer whose name or abbreviation the text holds ("glycol-modified polyester, lot Heather 7", "PETG
/// blk"); the first, a low-heat polyester, where none fits: isKnown tells.
struct PolymerGuess {
    const PolymerFacts *facts = nullptr;
    bool isKnown = false;
};
PolymerGuess polymerIn(std::string_view material);

} // namespace inchpeg
