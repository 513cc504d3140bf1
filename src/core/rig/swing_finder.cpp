// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/swing_finder.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kRaised_deg = 30.0; ///< from here on it is no sway
constexpr double kStill_deg = 1.0;
constexpr double kHeld_s = 0.2;     ///< near one angle for so long: held. A turning pendulum stays for less
constexpr double kTurned_deg = 1.0; ///< back from the furthest: more than the noise of an encoder

} // namespace

std::optional<FoundSwing> SwingFinder::add(double t_s, double angle_deg)
{
    if (std::abs(angle_deg - m_anchor_deg) > kStill_deg) {
        m_anchor_deg = angle_deg;
        m_since_s = t_s;
    }
    const bool isHeld = std::abs(angle_deg) > kRaised_deg && t_s - m_since_s >= kHeld_s;
    switch (m_state) {
    case State::Resting:
    case State::Caught:
        if (isHeld) {
            m_state = State::Raised;
            m_side = angle_deg > 0.0 ? 1.0 : -1.0;
            m_release_deg = std::abs(m_anchor_deg);
        }
        return std::nullopt;
    case State::Raised:
        if (isHeld && angle_deg * m_side > 0.0)
            m_release_deg = std::abs(m_anchor_deg); // raised further, before it is let go
        if (angle_deg * m_side > 0.0)
            return std::nullopt;
        m_state = State::Through;
        m_furthest_deg = std::abs(angle_deg);
        return std::nullopt;
    case State::Through: {
        const double through = -angle_deg * m_side;
        m_furthest_deg = std::max(m_furthest_deg, through);
        if (through > m_furthest_deg - kTurned_deg)
            return std::nullopt;
        m_state = State::Caught;
        return FoundSwing{m_release_deg, m_furthest_deg, m_side > 0.0};
    }
    }
    return std::nullopt;
}

} // namespace inchpeg
