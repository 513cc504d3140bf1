// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/measuring.h"

namespace inchpeg::test
{

/// The places of the log that most tests type into.
inline constexpr LogPlace kWidth{LogField::Width, 0};
inline constexpr LogPlace kThickness{LogField::Thickness, 0};
inline constexpr LogPlace kMass{LogField::Mass, 0};

} // namespace inchpeg::test
