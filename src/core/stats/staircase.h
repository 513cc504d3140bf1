// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <span>

namespace inchpeg
{

/// One piece of an up-and-down test.
struct StaircaseTrial {
    double level = 0.0;
    bool failed = false;
};

struct Staircase {
    std::size_t used = 0;       ///< count of the less frequent outcome, from which all else is taken
    std::optional<double> mean; ///< level at which half fail; nothing where one outcome is missing
    std::optional<double> sd;   ///< nothing where the spread is too small against the step to be told
    std::optional<double> seMean;
    double step = 0.0;
    bool isValid = false; ///< (N B - A²)/N² > 0.3
};

/// Up-and-down method (Dixon & Mood 1948, J. Am. Stat. Assoc. 43, 109). Where both outcomes are equally
/// frequent the failures are used. Formulas: docs/methods.md, "Staircase".
/// Errors: TooFewPoints with fewer than two levels; BadInput where the levels are not equally spaced.
Result<Staircase> evaluateStaircase(std::span<const StaircaseTrial> trials);

} // namespace inchpeg
