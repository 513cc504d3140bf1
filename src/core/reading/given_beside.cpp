// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/reading/given_beside.h"

#include <fmt/format.h>

namespace inchpeg
{

std::string givenBesideText(const GivenRow &given, const Reading &read, const Reduction &reduction,
                            const Notation &notation)
{
    for (const GivenValue &one : given.values) {
        const ReadValue *value = valueOf(read.values, one.property);
        const Result<Property> property = findProperty(reduction, one.property);
        if (value == nullptr || !property || value->number == 0.0)
            continue;
        const double apart = one.number / value->number - 1.0;
        return fmt::format("{} was given as {}, {} {} than is read", property->label,
                           notation.quantity(one.number, property->dimension, 4), notation.percent(apart),
                           apart < 0.0 ? "less" : "more");
    }
    return {};
}

} // namespace inchpeg
