// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/oven_trace.h"

#include "core/units/quantity.h"

namespace inchpeg
{

namespace
{

constexpr double kWindow_s = 300.0;
constexpr double kLeast_s = 60.0;

} // namespace

void OvenTrace::add(double t_s, double temperature_C)
{
    if (!m_recent.empty() && t_s < m_recent.back().t_s)
        m_recent.clear();
    m_recent.push_back({t_s, temperature_C});
    while (m_recent.back().t_s - m_recent.front().t_s > kWindow_s)
        m_recent.pop_front();
}

std::optional<double> OvenTrace::latest_C() const
{
    return m_recent.empty() ? std::nullopt : std::optional(m_recent.back().temperature_C);
}

std::optional<double> OvenTrace::rate_K_per_h() const
{
    if (m_recent.empty() || m_recent.back().t_s - m_recent.front().t_s < kLeast_s)
        return std::nullopt;
    const double n = static_cast<double>(m_recent.size());
    double meanTime = 0.0;
    double meanTemperature = 0.0;
    for (const Sample &sample : m_recent) {
        meanTime += sample.t_s / n;
        meanTemperature += sample.temperature_C / n;
    }
    double over = 0.0;
    double under = 0.0;
    for (const Sample &sample : m_recent) {
        over += (sample.t_s - meanTime) * (sample.temperature_C - meanTemperature);
        under += (sample.t_s - meanTime) * (sample.t_s - meanTime);
    }
    return over / under * kSecondsPerHour;
}

} // namespace inchpeg
