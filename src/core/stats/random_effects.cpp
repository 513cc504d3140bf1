// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/random_effects.h"

#include "core/stats/many_groups.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

Result<VarianceComponents> varianceComponents(std::span<const Group> groups)
{
    if (groups.size() < 2)
        return tooFewGroups(groups.size());
    const Anova anova = oneWayAnova(groups);
    VarianceComponents components;
    components.msBetween = anova.ssBetween / anova.df1;
    if (!(anova.df2 > 0.0))
        return components;
    double total = 0.0;
    double squares = 0.0;
    for (const Group &group : groups) {
        const auto n = static_cast<double>(group.values.size());
        total += n;
        squares += n * n;
    }
    const double typicalSize = (total - squares / total) / anova.df1; // n0
    const double within = anova.ssWithin / anova.df2;
    const double between = std::max(0.0, (components.msBetween - within) / typicalSize);
    components.msWithin = within;
    components.repeatability = std::sqrt(within);
    components.between = std::sqrt(between);
    components.reproducibility = std::sqrt(within + between);
    return components;
}

} // namespace inchpeg
