// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/stats/many_groups.h"

#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// One value with its level of each of two factors, counted from 0.
struct TwoWayValue {
    double value = 0.0;
    std::size_t a = 0;
    std::size_t b = 0;
};

enum class SquaresType {
    Second, ///< each factor after the other, the interaction after both
    Third,  ///< each term after all others, in sum-to-zero contrasts
};

struct TwoWayTerm {
    double df = 0.0;
    double squares = 0.0;
    std::optional<double> meanSquare; ///< nothing without a degree of freedom
    std::optional<double> f;          ///< nothing for the residual, or where it does not vary
    std::optional<double> p;
    std::optional<double> partialEta2;
};

struct TwoWayAnova {
    TwoWayTerm a;
    TwoWayTerm b;
    TwoWayTerm interaction;
    TwoWayTerm residual;
};

/// Two-way analysis of variance with interaction, unbalanced data allowed; every F over the residual of the
/// full model. Source: docs/methods.md, "Two factors".
/// Errors: TooFewPoints where a factor has fewer than two levels; InvalidArgument for the third type where a
/// combination of levels holds no value.
Result<TwoWayAnova> twoWayAnova(std::span<const TwoWayValue> values, SquaresType type = SquaresType::Second);

} // namespace inchpeg
