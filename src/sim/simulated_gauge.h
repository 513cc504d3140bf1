// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "sim/random.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg::sim
{

/// A calliper or scale that sends a line at each press of its button, as docs/rig_protocol.md has it.
class SimulatedGauge
{
public:
    struct Setup {
        std::string unit{"mm"};
        double around = 4.0;   ///< readings scatter around it …
        double scatter = 0.02; ///< … with this standard deviation
        double resolution = 0.01;
        std::uint64_t seed = 1;
        std::vector<double> readings; ///< sent first, in this order, as they are
    };
    explicit SimulatedGauge(Setup setup);

    /// "calliper": mm in steps of 0.01 around 4; "scale": g in steps of 0.01 around 9.
    /// Errors: InvalidArgument for another kind.
    static Result<Setup> usualSetup(std::string_view kind);

    /// The line of the next press: "+0004.02 mm\r\n".
    std::string press();

private:
    Setup m_setup;
    Random m_random;
    std::size_t m_next = 0;
};

} // namespace inchpeg::sim
