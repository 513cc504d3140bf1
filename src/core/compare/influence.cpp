// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/influence.h"

#include "core/stats/outliers.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLeastPieces = 4;
constexpr double kStandsOut = 0.05;

/// 1 for a rail that is claimed to be higher, -1 lower, 0 neither.
std::map<ConditionId, int> claimsOf(const StudyComparison &comparison)
{
    std::map<ConditionId, int> claims;
    for (const RailComparison &rail : comparison.rails) {
        // Bounds claim only the way they point.
        const bool higher =
            rail.effect && rail.effect->t > rail.effect->critical && rail.effectBound != EffectBound::AtMost;
        const bool lower = rail.effect && rail.effect->t < -rail.effect->critical &&
                           rail.effectBound != EffectBound::AtLeast;
        claims[rail.condition] = higher ? 1 : lower ? -1 : 0;
    }
    return claims;
}

std::vector<ConditionId> changedClaims(const Study &other, const PieceReadings &readings,
                                       const Property &property, const ComparisonRequest &asked,
                                       const std::map<ConditionId, int> &now)
{
    std::vector<ConditionId> changed;
    const std::map<ConditionId, int> then = claimsOf(compareStudy(other, readings, property, asked));
    for (const Condition &condition : other.conditions) {
        if (now.at(condition.id) != then.at(condition.id))
            changed.push_back(condition.id);
    }
    return changed;
}

/// Pieces of a rail that stand out among those that count.
std::vector<PieceId> standingOut(const RailComparison &rail)
{
    std::vector<double> values;
    std::vector<PieceId> pieces;
    for (const PieceValue &value : rail.values) {
        if (!value.counts() || value.atLeast)
            continue;
        values.push_back(value.value);
        pieces.push_back(value.piece);
    }
    std::vector<PieceId> found;
    if (values.size() < kLeastPieces)
        return found;
    if (const auto mnr = maximumNormedResidual(values, kStandsOut)) {
        for (const std::size_t place : mnr->outliers)
            found.push_back(pieces[place]);
    }
    return found;
}

std::string titles(const Study &study, const std::vector<ConditionId> &rails)
{
    std::vector<std::string> names;
    for (const ConditionId rail : rails)
        names.push_back(distinctTitle(study, *findCondition(study, rail)));
    return listText(names);
}

std::string codes(const Study &study, const std::vector<PieceId> &pieces)
{
    std::vector<std::string> names;
    for (const PieceId piece : pieces)
        names.push_back(findPiece(study, piece)->code);
    return listText(names);
}

} // namespace

std::vector<Influence> influences(const Study &study, const PieceReadings &readings, const Property &property,
                                  const ComparisonRequest &asked)
{
    ComparisonRequest wanted = asked;
    wanted.detail = ComparisonDetail::Sentences;
    const StudyComparison comparison = compareStudy(study, readings, property, wanted);
    if (!comparison.procedure)
        return {};
    const std::map<ConditionId, int> now = claimsOf(comparison);
    std::vector<Influence> found;
    const auto turned = [&](PieceId piece, bool isLeftOut) {
        Study other = study;
        std::optional<Exclusion> &exclusion = findPiece(other, piece)->exclusion;
        exclusion = isLeftOut ? std::nullopt : std::optional(Exclusion{});
        found.push_back({piece, isLeftOut, changedClaims(other, readings, property, wanted, now)});
    };
    for (const RailComparison &rail : comparison.rails) {
        if (!rail.isReference && !rail.effect)
            continue; // nothing is claimed of it
        for (const PieceValue &value : rail.values) {
            if (value.leftOut)
                turned(value.piece, true);
        }
        for (const PieceId piece : standingOut(rail))
            turned(piece, false);
    }
    return found;
}

std::vector<std::string> influenceSentences(const Study &study, const std::vector<Influence> &found)
{
    std::vector<std::string> sentences;
    std::vector<PieceId> idleLeftOut;
    std::vector<PieceId> idleOutliers;
    for (const Influence &one : found) {
        if (one.changed.empty()) {
            (one.isLeftOut ? idleLeftOut : idleOutliers).push_back(one.piece);
            continue;
        }
        const std::string code = findPiece(study, one.piece)->code;
        const std::string rails = titles(study, one.changed);
        sentences.push_back(
            one.isLeftOut
                ? fmt::format("A claim hangs on leaving out {}: with it, {} would be told otherwise.", code,
                              rails)
                : fmt::format(
                      "A claim hangs on {}, which stands out on its rail: without it, {} would be told "
                      "otherwise. Look at its record and its break.",
                      code, rails));
    }
    if (!idleLeftOut.empty())
        sentences.push_back(fmt::format("No claim hangs on leaving out {}.", codes(study, idleLeftOut)));
    if (!idleOutliers.empty())
        sentences.push_back(fmt::format("{} {} out on {}; no claim hangs on {}.", codes(study, idleOutliers),
                                        idleOutliers.size() == 1 ? "stands" : "stand",
                                        idleOutliers.size() == 1 ? "its rail" : "their rails",
                                        idleOutliers.size() == 1 ? "it" : "one of them"));
    return sentences;
}

} // namespace inchpeg
