// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace inchpeg
{

/// Standard gravity, exact (ISO 80000-3).
inline constexpr double kStandardGravity_m_per_s2 = 9.80665;

} // namespace inchpeg
