// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_gauge.h"

#include <fmt/format.h>

#include <cmath>

namespace inchpeg::sim
{

SimulatedGauge::SimulatedGauge(Setup setup) : m_setup(std::move(setup)), m_random(m_setup.seed) {}

Result<SimulatedGauge::Setup> SimulatedGauge::usualSetup(std::string_view kind)
{
    Setup setup;
    if (kind == "calliper")
        return setup;
    if (kind == "scale") {
        setup.unit = "g";
        setup.around = 9.0;
        setup.scatter = 0.03;
        return setup;
    }
    return invalidArgument(
        fmt::format("\"{}\" is no gauge that can be played; calliper and scale are", kind));
}

std::string SimulatedGauge::press()
{
    const double value = m_next < m_setup.readings.size()
                             ? m_setup.readings[m_next++]
                             : m_setup.around + m_setup.scatter * m_random.normal();
    const double shown = m_setup.resolution * std::round(value / m_setup.resolution);
    return fmt::format("{:+08.2f} {}\r\n", shown, m_setup.unit);
}

} // namespace inchpeg::sim
