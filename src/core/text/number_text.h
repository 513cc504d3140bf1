// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/summary.h"

#include <string>

namespace inchpeg
{

/// Decimals so that a value with this uncertainty is written to two digits of it (JCGM 100:2008, 7.2.6);
/// between 0 and 6.
int decimalsFor(double uncertainty);

/// With so many decimals; the true minus sign in front of negative numbers.
std::string fixedText(double value, int decimals);

/// To so many significant digits; below 1e-4 and above 1e9 with a power of ten, "1.94 × 10⁻⁶".
std::string significantText(double value, int digits);

/// As typed: up to so many significant digits, no trailing zeros.
std::string plainText(double value, int digits = 6);

/// A calliper reading: two decimals, three where the third is not 0.
std::string measuredText(double value);

/// "+18 %", "−5 %", "0 %": a change as a fraction, to whole percent, below 10 % to one decimal.
std::string signedPercentText(double fraction);

/// "6 to 31 %".
std::string percentRangeText(const Interval &fractions);

} // namespace inchpeg
