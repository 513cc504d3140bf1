// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "support/sanitized.h"

#include <gtest/gtest.h>

#include <cmath>
#include <cstdio>
#include <cstdlib>

namespace inchpeg::test
{

/// How many studies are simulated a case: few in the test, as many as INCHPEG_CALIBRATION says for the tables
/// of docs/validation.md.
inline int simulatedStudies(int usual = kSanitized ? 60 : 300)
{
    const char *text = std::getenv("INCHPEG_CALIBRATION");
    return text != nullptr ? std::atoi(text) : usual;
}

/// The share of studies for which happens() is true; printed as a line of a table where many are simulated.
template <typename F>
double simulatedShare(const char *name, const char *promise, F happens)
{
    const int studies = simulatedStudies();
    int count = 0;
    for (int i = 0; i < studies; ++i)
        count += happens() ? 1 : 0;
    const double share = static_cast<double>(count) / studies;
    if (std::getenv("INCHPEG_CALIBRATION") != nullptr)
        std::printf("| %s | %s | %.1f %% |\n", name, promise, 100.0 * share);
    return share;
}

/// Three standard errors of a share.
inline double chance(double share)
{
    return 3.0 * std::sqrt(share * (1.0 - share) / simulatedStudies());
}

} // namespace inchpeg::test
