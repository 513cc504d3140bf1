// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/stats/factorial.h"

#include <cstddef>
#include <span>

namespace inchpeg
{

/// One value with its level of each of two factors, counted from 0.
struct TwoWayValue {
    double value = 0.0;
    std::size_t a = 0;
    std::size_t b = 0;
};

struct TwoWayAnova {
    FactorialTerm a;
    FactorialTerm b;
    FactorialTerm interaction;
    FactorialTerm residual;
};

/// Two-way analysis of variance with interaction, unbalanced data allowed; every F over the residual of the
/// full model. Source: docs/methods.md, "Several factors".
/// Errors: TooFewPoints where a factor has fewer than two levels; InvalidArgument for the third type where a
/// combination of levels holds no value.
Result<TwoWayAnova> twoWayAnova(std::span<const TwoWayValue> values, SquaresType type = SquaresType::Second);

} // namespace inchpeg
