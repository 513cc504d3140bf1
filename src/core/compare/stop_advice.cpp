// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/stop_advice.h"

#include "core/stats/compared_power.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

/// Half the width of what is taken for alike, on the scale of the effects.
double mattersOn(const StudyComparison &comparison, double referenceMean)
{
    const double share = comparison.matters.share;
    return comparison.asRatio ? std::log1p(share) : share * std::abs(referenceMean);
}

double sizeOf(const Effect &effect, bool asRatio)
{
    return std::abs(asRatio ? std::log(effect.estimate) : effect.estimate);
}

bool isDecided(double size, double half, double matters)
{
    return size > half || size + half < matters;
}

/// Bounds decide only the way they point: at least so much is clearly more, never alike.
bool isDecided(const RailComparison &rail, bool asRatio, double matters)
{
    const Effect &effect = *rail.effect;
    if (rail.effectBound == EffectBound::AtLeast)
        return effect.t > effect.critical;
    if (rail.effectBound == EffectBound::AtMost)
        return effect.t < -effect.critical;
    return isDecided(sizeOf(effect, asRatio), effect.critical * effect.standardError, matters);
}

/// Half of the usual interval with so many pieces a rail, over its true standard error.
double usualHalfWidth(const ComparisonProcedure &procedure, int pieces, double level)
{
    return ComparedPower::ofClaims(procedure.comparison, static_cast<int>(procedure.rails), pieces, level)
        ->usualHalfWidth();
}

/// Of the undecided rails the one that is hardest to decide tells for all.
std::optional<int> piecesUntilDecided(const Study &study, const StudyComparison &comparison,
                                      const std::vector<const RailComparison *> &undecided, double matters)
{
    const Look &look = *comparison.look;
    const ComparisonProcedure &procedure = *comparison.procedure;
    const std::span<const double> levels =
        levelsOfStudyLooks(look.planned, 1.0 - study.plan.aim.confidence, look.spending);
    for (int n = look.pieces + 1; n <= look.planned; ++n) {
        const double half = usualHalfWidth(procedure, n, levels[static_cast<std::size_t>(n - 2)]) *
                            procedure.scatter * std::sqrt(2.0 / n);
        const bool all = std::all_of(undecided.begin(), undecided.end(), [&](const RailComparison *rail) {
            return isDecided(sizeOf(*rail->effect, comparison.asRatio), half, matters);
        });
        if (all)
            return n - look.pieces;
    }
    return std::nullopt;
}

std::string joinedTitles(const Study &study, const std::vector<ConditionId> &rails)
{
    std::vector<std::string> titles;
    for (const ConditionId rail : rails)
        titles.push_back(distinctTitle(study, *findCondition(study, rail)));
    return listText(titles);
}

} // namespace

std::optional<StopAdvice> stopAdvice(const Study &study, const StudyComparison &comparison)
{
    const Comparison asked = familyOf(study);
    const bool isOfDifferences = asked != Comparison::BeforeAfter && asked != Comparison::GoodEnough;
    if (!comparison.look || !comparison.procedure || !isOfDifferences)
        return std::nullopt;
    const auto reference = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    StopAdvice advice;
    const double matters = mattersOn(comparison, *reference->summary.mean);
    const Orientation asReference = findCondition(study, reference->condition)->orientation;
    std::vector<const RailComparison *> undecided;
    bool anyUntold = false; // without an effect that more pieces could be worked out from
    for (const RailComparison &rail : comparison.rails) {
        if (findCondition(study, rail.condition)->orientation != asReference)
            continue; // shown beside the others, never compared
        advice.whole += rail.open;
        if (rail.told)
            continue; // none of its pieces are here
        if (rail.isReference || (rail.effect && isDecided(rail, comparison.asRatio, matters)))
            continue;
        if (!rail.effect && rail.open == 0)
            continue; // no further piece can tell
        advice.undecided.push_back(rail.condition);
        if (rail.effect)
            undecided.push_back(&rail);
        else
            anyUntold = true;
        advice.hasUnseen = advice.hasUnseen || rail.summary.n < 2;
    }
    if (advice.whole == 0)
        return std::nullopt;
    advice.isSettled = advice.undecided.empty();
    if (!undecided.empty() && !anyUntold)
        advice.morePieces = piecesUntilDecided(study, comparison, undecided, matters);
    return advice;
}

std::string stopAdviceText(const Study &study, const StudyComparison &comparison, const StopAdvice &advice,
                           const Notation &notation)
{
    const Look &look = *comparison.look;
    const std::string so = fmt::format("after {} of {} pieces a rail", look.pieces, look.planned);
    if (advice.isSettled)
        return fmt::format("Settled {}: leave the other {} whole.", so, advice.whole);
    const std::string rails = joinedTitles(study, advice.undecided);
    if (advice.hasUnseen)
        return fmt::format("Not settled {}: {} cannot be told yet; of each rail two pieces are wanted first.",
                           so, rails);
    if (advice.morePieces)
        return fmt::format("Not settled {}. If means and scatter stay as they are, break {} more each of {} "
                           "and of the reference.",
                           so, *advice.morePieces, rails);
    return fmt::format(
        "Not settled {}, and as things are the planned pieces will hardly settle {} beside the "
        "{} that matters: a larger smallest difference, or more pieces, would.",
        so, rails, differenceThatMattersText(comparison.matters, comparison.property, notation));
}

} // namespace inchpeg
