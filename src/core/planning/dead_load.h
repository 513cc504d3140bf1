// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study_test.h"
#include "core/specimen/shape.h"
#include "core/units/gravity.h"
#include "core/units/quantity.h"

namespace inchpeg
{

/// Loads on a bar over two supports, pressed in the middle. b: width, h: thickness in the direction of the
/// load, L: span; all above 0.

/// F = 2 σ b h² / (3 L). Source: ISO 75-1:2013, 8.1 (from memory); ISO 178:2019, equation for flexural
/// stress, turned over.
Force threePointForce(Stress stress, Length width, Length thickness, Length span);
/// σ = 3 F L / (2 b h²), the reverse.
Stress threePointStress(Force force, Length width, Length thickness, Length span);

/// The force that bends a piece of this shape to a stress in its outer fibre, over the span of its test: of
/// three points F = 4 W σ / L, of a cantilever F = W σ / L with its free length L; W:
/// bendingSectionModulus_mm3(). 0 where the shape gives no section or no length.
Force bendingForce(Stress stress, const SpecimenShape &shape, Fixture fixture, double length_mm);

/// The mass whose weight is this force, at standard gravity.
Mass deadMass(Force force);
Force weightOf(Mass mass);

/// Deflection at which the heat-deflection temperature is read: s = L² Δε / (600 h) with Δε = 0.2 %.
/// Source: ISO 75-1:2013, 9.3 (from memory).
Length standardDeflection(Length span, Length thickness);

} // namespace inchpeg
