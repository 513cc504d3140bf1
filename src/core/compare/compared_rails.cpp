// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/compared_rails.h"

#include "core/units/number.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

std::vector<double> levelsOf(const Study &study, const ComparedRails &compared)
{
    if (study.factors.size() != 1)
        return {};
    std::vector<double> levels;
    for (const Condition *condition : compared.conditions) {
        const std::optional<double> level = parseTypedNumber(condition->levels.front());
        if (!level || std::find(levels.begin(), levels.end(), *level) != levels.end())
            return {};
        levels.push_back(*level);
    }
    return levels;
}

} // namespace

ComparedRails comparedRails(const Study &study, const StudyComparison &comparison)
{
    ComparedRails compared;
    for (const RailComparison &rail : comparison.rails) {
        if (!isFullyCompared(rail))
            continue;
        const Condition *condition = findCondition(study, rail.condition);
        Group group{distinctTitle(study, *condition), {}};
        std::vector<PieceId> pieces;
        for (const PieceValue &value : rail.values) {
            if (!value.counts())
                continue;
            group.values.push_back(value.value);
            pieces.push_back(value.piece);
        }
        if (rail.isReference)
            compared.reference = compared.plain.size();
        compared.plain.push_back(group);
        for (double &value : group.values)
            value = comparison.asRatio ? std::log(value) : value;
        compared.groups.push_back(std::move(group));
        compared.pieces.push_back(std::move(pieces));
        compared.conditions.push_back(condition);
    }
    compared.levels = levelsOf(study, compared);
    return compared;
}

bool ComparedRails::isUsable() const
{
    return std::all_of(groups.begin(), groups.end(), [](const Group &group) {
        return std::all_of(group.values.begin(), group.values.end(),
                           [](double value) { return std::isfinite(value); });
    });
}

} // namespace inchpeg
