// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/scaled_words.h"

#include "core/compare/verdict.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

std::string plain(const StudyComparison &comparison, double difference, double uncertainty,
                  const Notation &notation)
{
    return propertyDifferenceText(comparison.property, difference,
                                  propertyDecimals(comparison.property, uncertainty, notation), notation);
}

} // namespace

std::string scaledAmount(const StudyComparison &comparison, double difference, double uncertainty,
                         const Notation &notation)
{
    return comparison.asRatio ? notation.percent(std::abs(std::expm1(difference)))
                              : plain(comparison, std::abs(difference), uncertainty, notation);
}

std::string scaledDifference(const StudyComparison &comparison, double difference, double uncertainty,
                             const Notation &notation)
{
    if (comparison.asRatio)
        return notation.signedPercent(std::expm1(difference));
    return (difference < 0.0 ? "−" : "+") + scaledAmount(comparison, difference, uncertainty, notation);
}

std::string scaledRange(const StudyComparison &comparison, const Interval &difference, double uncertainty,
                        const Notation &notation)
{
    if (comparison.asRatio)
        return notation.percentRange({std::expm1(difference.low), std::expm1(difference.high)});
    return fmt::format("{} to {}", plain(comparison, difference.low, uncertainty, notation),
                       plain(comparison, difference.high, uncertainty, notation));
}

int railPlace(const Study &study, ConditionId rail)
{
    const auto found = std::find_if(study.conditions.begin(), study.conditions.end(),
                                    [rail](const Condition &one) { return one.id == rail; });
    return static_cast<int>(found - study.conditions.begin());
}

} // namespace inchpeg
