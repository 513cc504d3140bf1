// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/difference_that_matters.h"

#include "core/method/method.h"

#include <cmath>

namespace inchpeg
{

namespace
{

/// A value is said of the property that the study's question is planned by.
bool isSaidOf(const Study &study, Method test, const Property &property)
{
    if (test != methodOf(study))
        return false;
    const std::string &planned = firstTest(study).setup.property;
    const MethodFacts &facts = factsOf(test);
    return property.name == (planned.empty() && !facts.properties.empty()
                                 ? std::string_view(facts.properties.front().name)
                                 : std::string_view(planned));
}

} // namespace

DifferenceThatMatters differenceThatMatters(const Study &study, Method test, const Property &property,
                                            const std::optional<double> &referenceMean)
{
    const std::optional<double> &said = study.plan.aim.absoluteDifference;
    if (!said || !isSaidOf(study, test, property))
        return {study.smallestDifference, std::nullopt};
    const bool isKnown = referenceMean && std::abs(*referenceMean) > 0.0;
    return {isKnown ? *said / std::abs(*referenceMean) : study.smallestDifference, said};
}

std::string differenceThatMattersText(const DifferenceThatMatters &difference, const Property &property,
                                      const Notation &notation)
{
    return difference.absolute ? notation.quantity(*difference.absolute, differenceOf(property.dimension), 3)
                               : notation.percent(difference.share);
}

} // namespace inchpeg
