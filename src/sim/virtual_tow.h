// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/virtual_specimen.h"

namespace inchpeg::sim
{

/// A piece that is towed over a plate at a steady speed.
struct Tow {
    double staticFriction = 0.30;
    double kineticFriction = 0.24;
    double mass_kg = 1.0;
    double way_mm = 120.0;
    double stretch_mm = 2.0; ///< of the cord, before the piece lets go
};

/// Force over travel: the cord is taken up, the piece lets go, and slides on.
ForceCurve tow(const Tow &tow, const Rig &rig, std::uint64_t seed);

} // namespace inchpeg::sim
