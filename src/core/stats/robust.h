// SPDX-License-Identifier: GPL-3.0-or-later
// Two groups, and the middle of one, where a stray value shall not decide.
#pragma once

#include "core/base/result.h"
#include "core/stats/two_groups.h"

#include <cstdint>
#include <optional>
#include <span>

namespace inchpeg
{

/// Yuen's test of trimmed means (Yuen 1974, Biometrika 61, 165): the share of values that is left out at
/// either end, at most 0.5 less one value. b - a. Nothing where fewer than two values stay, or nothing
/// varies.
struct TrimmedTest {
    double difference = 0.0; ///< of the trimmed means
    TTest test;
};
std::optional<TrimmedTest> yuenTest(std::span<const double> a, std::span<const double> b, double trim = 0.2,
                                    double confidence = 0.95);

/// Huber's estimate of location with the normal-consistent median absolute deviation as its scale (Huber
/// 1981, Robust Statistics, 6.4): values beyond k scales count as at k. Nothing where the scale is 0.
struct HuberLocation {
    double location = 0.0;
    double scale = 0.0;
};
std::optional<HuberLocation> huberLocation(std::span<const double> values, double k = 1.5);

/// Chance that a difference of means as large comes about by dealing the values out anew: over all ways to do
/// so, where there are at most a million, else over drawn ones (Fisher 1935, The Design of Experiments, 21).
struct PermutationTest {
    double difference = 0.0;
    double p = 1.0;
    bool isExact = true;
    std::uint64_t ways = 0;
};
/// Errors: TooFewPoints for an empty group.
Result<PermutationTest> permutationTest(std::span<const double> a, std::span<const double> b,
                                        std::uint64_t seed = 1);

} // namespace inchpeg
