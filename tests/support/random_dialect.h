// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/curve/force_curve.h"

#include <cstdint>
#include <string>

namespace inchpeg::test
{

/// One record in a dialect drawn at random: delimiter, decimal mark, digit groups, quotes, metadata above, a
/// summary or another table below, units in brackets, names or a row of their own, headings of several
/// languages, columns that are no readings, encodings, line ends, a delimiter at the end of each line.
struct DialectFile {
    std::string bytes;
    std::string description;  ///< what was drawn, for the message of a test
    ForceCurve curve;         ///< what the file says, in working units and as far as its digits go
    double forceStep_N = 0.0; ///< of its last digit
    double extensionStep_mm = 0.0;
    double timeStep_s = 0.0;
};

/// The same seed gives the same file.
DialectFile randomDialect(std::uint64_t seed);

} // namespace inchpeg::test
