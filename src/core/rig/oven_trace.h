// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <deque>
#include <optional>

namespace inchpeg
{

/// What an oven's probe shows over time, and how fast it is being heated.
class OvenTrace
{
public:
    /// t_s: rising; a step back starts anew.
    void add(double t_s, double temperature_C);
    [[nodiscard]] std::optional<double> latest_C() const;
    /// Least-squares slope over the last five minutes; nothing over less than one.
    [[nodiscard]] std::optional<double> rate_K_per_h() const;
    void clear() { m_recent.clear(); }

private:
    struct Sample {
        double t_s = 0.0;
        double temperature_C = 0.0;
    };
    std::deque<Sample> m_recent; ///< of the last five minutes
};

} // namespace inchpeg
