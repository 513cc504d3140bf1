// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>
#include <vector>

namespace inchpeg
{

/// A curve that grows while it is drawn, in memory that does not: where it becomes long, neighbours are
/// merged, and of each stretch its least and its largest value are kept.
class LiveTrace
{
public:
    struct Stretch {
        double x = 0.0; ///< of its first point
        double low = 0.0;
        double high = 0.0;
        double last = 0.0;
    };
    static constexpr std::size_t kMostStretches = 4096;

    void add(double x, double y);
    void clear();
    [[nodiscard]] const std::vector<Stretch> &stretches() const { return m_stretches; }
    [[nodiscard]] std::size_t points() const { return m_points; }

private:
    std::vector<Stretch> m_stretches;
    std::size_t m_points = 0;
    std::size_t m_each = 1;   ///< points to a stretch
    std::size_t m_inLast = 0; ///< points in the last one
};

} // namespace inchpeg
