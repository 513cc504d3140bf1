// SPDX-License-Identifier: GPL-3.0-or-later
// Heat and creep under another load are another property.
#pragma once

#include "core/method/method.h"

#include <cmath>

namespace inchpeg
{

/// Whether the property of a test hangs on the stress that rests on the piece.
inline bool isReadUnderLoad(Method test)
{
    return test == Method::HeatDeflection || test == Method::Creep;
}

/// Within 2 % of the second (ours): as far as dead weights and measured sections let them be the same.
inline bool isSameLoad(double stress_MPa, double wanted_MPa)
{
    constexpr double kSameShare = 0.02;
    return std::abs(stress_MPa - wanted_MPa) <= kSameShare * wanted_MPa;
}

} // namespace inchpeg
