// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/specimen/shape.h"

namespace inchpeg
{

/// Bending: the largest stress is the moment over this, in mm³. Rectangular b h²/6, h in the direction of the
/// load; round π d³/32. Source: Gere and Goodno, Mechanics of Materials, 8th ed., section 5.6 (from memory).
double bendingSectionModulus_mm3(const SpecimenShape &shape);

/// Torsion: the largest shear stress is the torque over this, in mm³. Round π d³/16; rectangular by
/// Saint-Venant's series, with a the longer and b the shorter side: (a b²/3) · [1 − (192 b/(π⁵ a)) Σ
/// tanh(nπa/2b)/n⁵] / [1 − (8/π²) Σ 1/(n² cosh(nπa/2b))], n = 1, 3, 5 … Source: Timoshenko and Goodier,
/// Theory of Elasticity, 3rd ed., article 109 (from memory).
double torsionSectionModulus_mm3(const SpecimenShape &shape);

/// The same of a measured section, and its torsion constant J in mm⁴: the twist over a length is T L / (G J).
/// Round π d⁴/32; rectangular (a b³/3) · [1 − (192 b/(π⁵ a)) Σ tanh(nπa/2b)/n⁵]. Source: as above.
struct TorsionSection {
    double modulus_mm3 = 0.0;
    double constant_mm4 = 0.0;
};
TorsionSection torsionOfRound(double diameter_mm);
/// All sides above zero, in either order.
TorsionSection torsionOfRectangle(double width_mm, double thickness_mm);

} // namespace inchpeg
