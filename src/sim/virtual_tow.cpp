// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_tow.h"

#include "core/units/gravity.h"

#include <algorithm>

namespace inchpeg::sim
{

ForceCurve tow(const Tow &tow, const Rig &rig, std::uint64_t seed)
{
    Random random(seed);
    const double weight_N = tow.mass_kg * kStandardGravity_m_per_s2;
    const double letsGo_mm = rig.slack_mm + tow.stretch_mm;
    ForceCurve curve;
    for (std::size_t i = 0;; ++i) {
        const double time_s = static_cast<double>(i) / rig.rate_Hz;
        const double travel_mm = rig.speed_mm_per_s * time_s;
        if (travel_mm > letsGo_mm + tow.way_mm)
            return curve;
        const double taken = std::max(0.0, travel_mm - rig.slack_mm) / tow.stretch_mm;
        const double share = taken <= 1.0 ? tow.staticFriction * taken : tow.kineticFriction;
        curve.force_N.push_back(readBy(rig, share * weight_N + rig.forceNoise_N * random.normal()));
        curve.extension_mm.push_back(travel_mm);
        curve.time_s.push_back(time_s);
    }
}

} // namespace inchpeg::sim
