// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/live_trace.h"

#include <algorithm>

namespace inchpeg
{

void LiveTrace::add(double x, double y)
{
    ++m_points;
    if (!m_stretches.empty() && m_inLast < m_each) {
        Stretch &last = m_stretches.back();
        last.low = std::min(last.low, y);
        last.high = std::max(last.high, y);
        last.last = y;
        ++m_inLast;
        return;
    }
    if (m_stretches.size() == kMostStretches) {
        for (std::size_t i = 0; i < kMostStretches / 2; ++i) {
            const Stretch &a = m_stretches[2 * i];
            const Stretch &b = m_stretches[2 * i + 1];
            m_stretches[i] = {a.x, std::min(a.low, b.low), std::max(a.high, b.high), b.last};
        }
        m_stretches.resize(kMostStretches / 2);
        m_each *= 2;
    }
    m_stretches.push_back({x, y, y, y});
    m_inLast = 1;
}

void LiveTrace::clear()
{
    *this = {};
}

} // namespace inchpeg
