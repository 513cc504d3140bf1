// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_load.h"

#include <algorithm>

namespace inchpeg::sim
{

namespace
{

constexpr double kStraightShare = 0.7; ///< of the peak
constexpr double kLeft = 0.04;         ///< of the peak, once the piece has let go
constexpr double kBehind = 0.8;        ///< of the way at the peak, that the record goes on

} // namespace

double LoadedPiece::workToPeak() const
{
    const double straight = kStraightShare * peak / stiffness;
    const double rounded = wayAtPeak() - straight;
    return 0.5 * straight * kStraightShare * peak + kStraightShare * peak * rounded +
           stiffness * rounded * rounded / 3.0;
}

double LoadedPiece::loadAt(double way) const
{
    const double straight = kStraightShare * peak / stiffness;
    const double rounded = wayAtPeak() - straight;
    if (way <= 0.0)
        return 0.0;
    if (way <= straight)
        return stiffness * way;
    const double over = way - straight;
    if (over <= rounded) // the slope falls evenly to zero
        return kStraightShare * peak + stiffness * over * (1.0 - over / (2.0 * rounded));
    if (isSudden)
        return kLeft * peak;
    return std::max(kLeft, 1.0 - (over - rounded) / (0.6 * wayAtPeak())) * peak;
}

ForceCurve loadUntilItLetsGo(const LoadedPiece &piece, const Rig &rig, std::uint64_t seed)
{
    Random random(seed);
    ForceCurve curve;
    for (std::size_t i = 0;; ++i) {
        const double time_s = static_cast<double>(i) / rig.rate_Hz;
        const double way = rig.speed_mm_per_s * time_s;
        if (way > rig.slack_mm + (1.0 + kBehind) * piece.wayAtPeak())
            return curve;
        curve.force_N.push_back(
            readBy(rig, piece.loadAt(way - rig.slack_mm) + rig.forceNoise_N * random.normal()));
        curve.extension_mm.push_back(way);
        curve.time_s.push_back(time_s);
    }
}

} // namespace inchpeg::sim
