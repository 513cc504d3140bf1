// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/slip_watch.h"

namespace inchpeg
{

namespace
{

constexpr double kFall = 0.05;        ///< of the peak: below that a gauge's noise and a knock at the bench
constexpr double kSuddenShare = 0.05; ///< of the way so far: a slip falls at once, a piece that yields slowly

} // namespace

bool SlipWatch::add(double way, double load)
{
    const double fall = m_peak > 0.0 ? (m_peak - m_lowest) / m_peak : 0.0;
    if (load > m_peak) {
        const bool wasSudden = m_lowestAt - m_peakAt <= kSuddenShare * m_peakAt;
        const bool hasSlipped = fall > kFall && wasSudden;
        if (hasSlipped) {
            ++m_slips;
            m_lastFall = fall;
        }
        m_peak = m_lowest = load;
        m_peakAt = m_lowestAt = way;
        return hasSlipped;
    }
    if (load < m_lowest) {
        m_lowest = load;
        m_lowestAt = way;
    }
    return false;
}

} // namespace inchpeg
