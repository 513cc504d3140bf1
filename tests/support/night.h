// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "support/sanitized.h"

#include <cstdlib>

namespace inchpeg::test
{

/// What takes minutes and is run with each issue, not with each submission: bench/night sets INCHPEG_NIGHT.
inline bool isNight()
{
    return std::getenv("INCHPEG_NIGHT") != nullptr;
}

/// So many in a night, by day, and under the sanitizers.
constexpr int timesOf(bool night, int inANight, int byDay, int sanitized)
{
    return night ? inANight : kSanitized ? sanitized : byDay;
}

} // namespace inchpeg::test
