// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/equivalence.h"

#include "core/base/contract.h"
#include "core/stats/distributions.h"
#include "core/stats/two_groups.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kAlpha = 0.05;

/// P(T > t).
double studentUpper(double t, double df)
{
    const double half = 0.5 * studentTwoSided(t, df);
    return t > 0.0 ? half : 1.0 - half;
}

} // namespace

Equivalence testEquivalence(std::span<const double> a, std::span<const double> b, double margin)
{
    require(!a.empty() && !b.empty() && margin > 0.0, "testEquivalence() needs two groups and a margin");
    Equivalence result;
    result.difference = meanOf(b) - meanOf(a);
    const std::optional<TTest> welch = welchTTest(a, b, 1.0 - 2.0 * kAlpha);
    if (!welch)
        return result;
    // The interval's half width over its quantile is the standard error; t itself may be 0.
    const double error = 0.5 * (welch->ci.high - welch->ci.low) / studentQuantile(1.0 - kAlpha, welch->df);
    result.tLower = (result.difference + margin) / error;
    result.tUpper = (result.difference - margin) / error;
    result.df = welch->df;
    result.p = std::max(studentUpper(*result.tLower, welch->df), studentUpper(-*result.tUpper, welch->df));
    result.ci90 = welch->ci;
    result.equivalent = *result.p < kAlpha;
    return result;
}

Result<double> absoluteMargin(double margin, bool isRelative, std::span<const double> reference)
{
    if (!(margin > 0.0))
        return invalidArgument("the margin is 0; one above 0 is wanted");
    const double absolute = isRelative ? margin * std::abs(meanOf(reference)) : margin;
    if (!(absolute > 0.0))
        return invalidArgument(
            "the first group's mean is 0; a share of it is no margin, give an absolute one");
    return absolute;
}

} // namespace inchpeg
