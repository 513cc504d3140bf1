// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/plateau.h"

#include "core/base/contract.h"

namespace inchpeg
{

Result<Plateau> findPlateau(std::span<const double> x, std::span<const Group> groups, const PlateauRule &rule)
{
    require(x.size() == groups.size(), "findPlateau() needs an x for each group");
    if (groups.size() < 2)
        return tooFewGroups(groups.size());
    Plateau plateau;
    plateau.levels = comparisonWithBest(groups, rule.largerIsBetter, rule.confidence);
    for (std::size_t i = 1; i < groups.size(); ++i) {
        const double gain = meanOf(groups[i].values) - meanOf(groups[plateau.best].values);
        if (rule.largerIsBetter ? gain > 0.0 : gain < 0.0)
            plateau.best = i;
    }
    for (const BestLevel &level : plateau.levels) {
        if (!level.mayBeBest)
            continue;
        const bool isPreferred = !plateau.chosen || (rule.preferLow ? x[level.level] < x[*plateau.chosen]
                                                                    : x[level.level] > x[*plateau.chosen]);
        if (isPreferred)
            plateau.chosen = level.level;
    }
    return plateau;
}

} // namespace inchpeg
