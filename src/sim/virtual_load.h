// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/virtual_specimen.h"

namespace inchpeg::sim
{

/// A piece that carries a load until it lets go: a pin in a fork, an insert, a block under a probe, a twisted
/// bar. The load rises straight to 70 % of its peak and rounds over its top; then it falls at once, or dies
/// away. Units are those of the load and its way, whichever they are.
struct LoadedPiece {
    double peak = 500.0;
    double stiffness = 400.0; ///< of the straight part
    bool isSudden = true;

    [[nodiscard]] double wayAtPeak() const { return 1.3 * peak / stiffness; }
    /// Area under the load over the way up to the peak.
    [[nodiscard]] double workToPeak() const;
    [[nodiscard]] double loadAt(double way) const; ///< from first contact
};

/// Load over way, as a rig reads it: slack first, then the piece, then what is left of it. In the force and
/// extension of the curve stand load and way.
ForceCurve loadUntilItLetsGo(const LoadedPiece &piece, const Rig &rig, std::uint64_t seed);

} // namespace inchpeg::sim
