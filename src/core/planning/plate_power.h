// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/piece_count.h"

#include <optional>
#include <string>

namespace inchpeg
{

/// Of plates as shares of their mean, where nobody says more (assumed; printers differ).
inline constexpr double kAssumedPlateCv = 0.02;

/// What a plan can show where each rail is printed on plates of its own: then plates are what was drawn, and
/// pieces of one plate say little of the next.
struct PlatePower {
    int plates = 0;       ///< a rail, where the pieces of a round fit on one
    double plateCv = 0.0; ///< of plates about their rail
    double power = 0.0;   ///< to find the difference that matters; 0 with one plate a rail
    double visible = 0.0; ///< found with the plan's power, a fraction of the reference; 0 with one plate
    int wanted = 0;       ///< rounds that find the difference that matters; 0: more than there are pieces
    std::string sentence;
};

/// Plates a rail where no two of the compared rails can share one: they differ in a factor that is set per
/// plate, or in their material; 0 where some can.
int ownPlatesARail(const Study &study);

/// Plates as units: their means scatter by √(σ_plate² + σ²/m), m pieces a plate. Nothing where rails share
/// plates, or where pieces are compared in pairs.
std::optional<PlatePower> platePower(const Study &study, const PieceQuestion &question,
                                     const Notation &notation);

} // namespace inchpeg
