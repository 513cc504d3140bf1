// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/staircase.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace inchpeg
{

namespace
{

/// Of a step: typed levels such as 0.1, 0.2, 0.3 are not spaced to the last bit.
constexpr double kSpacingTolerance = 1e-6;
constexpr double kLeastSpread = 0.3;

/// The step between neighbouring levels. A level that no piece met may be missing.
Result<double> stepOf(const std::set<double> &levels)
{
    if (levels.size() < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("{} level{}; an up-and-down test wants at least two", levels.size(),
                                 levels.size() == 1 ? "" : "s"),
                     {}};
    double step = *levels.rbegin() - *levels.begin();
    for (auto at = std::next(levels.begin()); at != levels.end(); ++at)
        step = std::min(step, *at - *std::prev(at));
    for (auto at = std::next(levels.begin()); at != levels.end(); ++at) {
        const double steps = (*at - *std::prev(at)) / step;
        if (std::abs(steps - std::round(steps)) > kSpacingTolerance * steps)
            return badInput(
                fmt::format("the levels are not equally spaced: {:g} to {:g} is no multiple of the "
                            "smallest step {:g}",
                            *std::prev(at), *at, step));
    }
    return step;
}

} // namespace

Result<Staircase> evaluateStaircase(std::span<const StaircaseTrial> trials)
{
    std::set<double> levels;
    std::size_t failures = 0;
    for (const StaircaseTrial &trial : trials) {
        levels.insert(trial.level);
        failures += trial.failed ? 1 : 0;
    }
    const Result<double> step = stepOf(levels);
    if (!step)
        return step.error();
    const bool byFailures = failures <= trials.size() - failures;
    Staircase result;
    result.step = *step;
    result.used = byFailures ? failures : trials.size() - failures;
    if (result.used == 0)
        return result;
    double lowest = *levels.rbegin();
    for (const StaircaseTrial &trial : trials) {
        if (trial.failed == byFailures)
            lowest = std::min(lowest, trial.level);
    }
    double a = 0.0;
    double b = 0.0;
    for (const StaircaseTrial &trial : trials) {
        if (trial.failed != byFailures)
            continue;
        const double i = std::round((trial.level - lowest) / *step);
        a += i;
        b += i * i;
    }
    const auto n = static_cast<double>(result.used);
    // Failures lie above what half would fail at, survivals below.
    result.mean = lowest + *step * (a / n + (byFailures ? -0.5 : 0.5));
    const double spread = (n * b - a * a) / (n * n);
    result.isValid = spread > kLeastSpread;
    if (result.isValid) {
        result.sd = 1.62 * *step * (spread + 0.029);
        result.seMean = (6.0 * *result.sd + *step) / (7.0 * std::sqrt(n));
    }
    return result;
}

} // namespace inchpeg
