// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/two_way.h"

#include <vector>

namespace inchpeg
{

Result<TwoWayAnova> twoWayAnova(std::span<const TwoWayValue> values, SquaresType type)
{
    std::vector<FactorialValue> factorial;
    for (const TwoWayValue &value : values)
        factorial.push_back({value.value, {value.a, value.b}});
    const Result<FactorialAnova> anova = factorialAnova(factorial, type);
    if (!anova)
        return anova.error();
    return TwoWayAnova{anova->terms[0], anova->terms[1], anova->terms[2], anova->residual};
}

} // namespace inchpeg
