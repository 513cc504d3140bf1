// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <time.h>

namespace inchpeg::app
{

/// Seconds of a clock that nobody can set and that goes on while the machine sleeps; its zero means nothing.
using SteadySeconds = std::function<double()>;

inline double secondsSinceStart()
{
    timespec now{};
    ::clock_gettime(CLOCK_BOOTTIME, &now);
    return static_cast<double>(now.tv_sec) + 1e-9 * static_cast<double>(now.tv_nsec);
}

} // namespace inchpeg::app
