// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>

namespace inchpeg
{

/// Notices a slip at the grips while a piece is pulled: the load falls by more than a share of its peak and
/// then climbs above that peak again (ours: a break does not climb again, yielding does not fall at once).
class SlipWatch
{
public:
    /// The next reading of a record. way: extension or time, growing. True where a slip was just noticed.
    bool add(double way, double load);
    [[nodiscard]] std::size_t slips() const { return m_slips; }
    [[nodiscard]] double lastFall() const { return m_lastFall; } ///< share of the peak before it
    void clear() { *this = {}; }

private:
    double m_peak = 0.0;
    double m_peakAt = 0.0;
    double m_lowest = 0.0; ///< since the peak
    double m_lowestAt = 0.0;
    double m_lastFall = 0.0;
    std::size_t m_slips = 0;
};

} // namespace inchpeg
