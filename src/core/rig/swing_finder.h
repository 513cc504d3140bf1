// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace inchpeg
{

/// A swing of a pendulum, in degrees from the hanging position, both without a sign.
struct FoundSwing {
    double release_deg = 0.0;
    double through_deg = 0.0;  ///< how far it went on the other side
    bool isLetGoRight = false; ///< on the side where angles are above 0
};

/// Finds swings in a stream of angles (0 where the pendulum hangs): let go on one side, through the middle,
/// to where it turns on the other. What it does afterwards, to and fro until a hand catches it, is none.
class SwingFinder
{
public:
    /// The swing, once the pendulum has turned.
    std::optional<FoundSwing> add(double t_s, double angle_deg);

private:
    enum class State { Resting, Raised, Through, Caught };
    State m_state = State::Resting;
    double m_side = 1.0;         ///< sign of the side that it is let go on
    double m_release_deg = 0.0;  ///< where it last rested, raised
    double m_furthest_deg = 0.0; ///< on the other side
    double m_anchor_deg = 0.0;   ///< it has been near this …
    double m_since_s = 0.0;      ///< … since then
};

} // namespace inchpeg
