// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/answers.h"

#include "core/compare/compared_rails.h"
#include "core/compare/factor_effects.h"
#include "core/compare/graded.h"
#include "core/compare/scaled_words.h"
#include "core/compare/shape_along_levels.h"
#include "core/compare/verdict.h"
#include "core/stats/bend.h"
#include "core/stats/bounded_line.h"
#include "core/stats/distributions.h"
#include "core/stats/many_groups.h"
#include "core/stats/trend.h"
#include "core/stats/two_groups.h"
#include "core/text/list_text.h"
#include "core/text/number_text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

class Answers
{
public:
    Answers(const Study &study, const StudyComparison &comparison, const Notation &notation)
        : m_study(study), m_comparison(comparison), m_notation(notation), m_asRatio(comparison.asRatio),
          m_compared(comparedRails(study, comparison))
    {
    }

    [[nodiscard]] bool isUsable() const { return m_compared.isUsable(); }

    [[nodiscard]] std::string trend() const
    {
        if (m_compared.levels.empty())
            return {};
        std::vector<double> x;
        std::vector<double> y;
        for (std::size_t i = 0; i < m_compared.groups.size(); ++i) {
            for (double value : m_compared.groups[i].values) {
                x.push_back(m_compared.levels[i]);
                y.push_back(value);
            }
        }
        const Result<Trend> line = fitTrend(x, y, 1, m_comparison.askedConfidence());
        if (!line || !line->coefficients[1].ci)
            return {};
        const auto [least, most] = std::minmax_element(m_compared.levels.begin(), m_compared.levels.end());
        const std::optional<LevelShape> shape = shapeAlongLevels(m_comparison, m_compared);
        const std::string where = fmt::format("From {} to {}", levelText(*least), levelText(*most));
        if (shape && shape->changePerEnds)
            return changeOfEnds(where, *shape) +
                   (shape->kind == LevelShape::Kind::NotStraight ? flattening(x, y) : shapeText(*shape));
        const TrendCoefficient &slope = line->coefficients[1];
        const double range = *most - *least;
        const Interval change{slope.ci->low * range, slope.ci->high * range};
        std::string text;
        if (change.low > 0.0 || change.high < 0.0)
            text = fmt::format("{} {} {} by {} ({}), along a straight line.", where, label(),
                               change.low > 0.0 ? "rises" : "falls", amount(slope.value * range),
                               rangeText(change, change.high < 0.0));
        else
            text = fmt::format("{} no straight trend is shown ({}).", where, rangeText(change, false));
        return text; // nothing that bends is said beside a straight line
    }

    [[nodiscard]] std::string pairs() const
    {
        const std::vector<Group> &plain = m_compared.plain;
        const auto family =
            SimultaneousComparison::of(plain, m_compared.reference,
                                       {Comparison::AllPairs, m_asRatio, m_comparison.claimConfidence(), {}});
        if (!family)
            return {};
        std::vector<std::string> apart;
        std::size_t count = 0;
        for (std::size_t a = 0; a < plain.size(); ++a) {
            for (std::size_t b = a + 1; b < plain.size(); ++b) {
                ++count;
                const std::optional<Effect> effect = family->effect(a, b);
                if (!effect || !effect->isClear())
                    continue;
                const auto &[higher, lower] = effect->t > 0.0 ? std::pair(b, a) : std::pair(a, b);
                apart.push_back(fmt::format("{} above {}", plain[higher].name, plain[lower].name));
            }
        }
        if (apart.empty())
            return fmt::format("Each with each: none of the {} pairs is told apart.", count);
        return fmt::format("Each with each: {}{}.", fmt::join(apart, "; "),
                           apart.size() < count
                               ? fmt::format("; {} of {} pairs not told apart", count - apart.size(), count)
                               : std::string());
    }

    /// How much worse each is at most; both ways where nobody says which way is better.
    [[nodiscard]] std::string goodEnough() const
    {
        const std::vector<Group> &plain = m_compared.plain;
        const auto family = SimultaneousComparison::of(
            plain, m_compared.reference,
            {Comparison::GoodEnough, m_asRatio, m_comparison.claimConfidence(), {}});
        if (!family)
            return {};
        const double matters = m_comparison.matters.share;
        const double scale = m_asRatio ? 1.0 : std::abs(meanOf(plain[m_compared.reference].values));
        const double none = m_asRatio ? 1.0 : 0.0;
        const Better better = m_comparison.property.better;
        std::vector<std::string> enough;
        std::vector<std::string> open;
        for (std::size_t i = 0; i < plain.size(); ++i) {
            const std::optional<Effect> effect =
                i == m_compared.reference ? std::nullopt : family->effect(m_compared.reference, i);
            if (!effect)
                continue;
            const double below = none - family->oneSidedLimit(*effect, false);
            const double above = family->oneSidedLimit(*effect, true) - none;
            const double worst = better == Better::Higher  ? below
                                 : better == Better::Lower ? above
                                                           : std::max(below, above);
            const std::string limit = worst <= 0.0
                                          ? "surely better"
                                          : fmt::format("{} {} at most", limitText(worst),
                                                        better == Better::Neither ? "apart" : "worse");
            (worst < matters * scale ? enough : open)
                .push_back(fmt::format("{} ({}, {} and {} pieces)", plain[i].name, limit,
                                       plain[i].values.size(), plain[m_compared.reference].values.size()));
        }
        const std::string margin =
            m_asRatio || m_comparison.matters.absolute
                ? differenceThatMattersText(m_comparison.matters, m_comparison.property, m_notation)
                : differenceText(matters * scale);
        const std::string what =
            fmt::format("{} {}", better == Better::Neither ? "within" : "no worse by more than", margin);
        std::string text;
        if (!enough.empty())
            text = fmt::format("Good enough, {}: {}.", what, listText(enough));
        if (!open.empty())
            text += fmt::format("{}{}: {}.", text.empty() ? "" : " ",
                                fmt::format("Not shown to be good enough ({})", what), listText(open));
        return text;
    }

    [[nodiscard]] std::string anyDifference() const
    {
        const Anova anova = oneWayAnova(m_compared.groups);
        if (!anova.test)
            return {};
        const std::string p = anova.test->p < 1e-4 ? "below " + m_notation.plain(0.0001)
                                                   : m_notation.significant(anova.test->p, 2);
        return fmt::format("{} (analysis of variance of {} rails, p {}).",
                           anova.test->p < 1.0 - m_comparison.claimConfidence()
                               ? "The rails differ"
                               : "It is not shown that any rail differs",
                           m_compared.groups.size(), p);
    }

    /// Hsu's comparison; empty where it cannot be made.
    [[nodiscard]] std::vector<BestLevel> bestLevels() const
    {
        const Better better = m_comparison.property.better;
        if (better == Better::Neither || m_compared.groups.size() < 3)
            return {};
        std::vector<BestLevel> levels =
            comparisonWithBest(m_compared.groups, better == Better::Higher,
                               ComparisonRule{.confidence = m_comparison.claimConfidence()});
        keepWithClaims(levels);
        return levels;
    }

    [[nodiscard]] std::vector<ConditionId> mayBeBest() const
    {
        const BestCandidates best = bestCandidates();
        std::vector<ConditionId> found;
        for (const std::size_t group : best.groups)
            found.push_back(m_compared.conditions[group]->id);
        if (!best.levels.empty()) {
            for (const RailComparison *rail : best.bounded)
                found.push_back(rail->condition);
        }
        return found;
    }

    [[nodiscard]] std::string best() const
    {
        const Better better = m_comparison.property.better;
        const auto [levels, candidates, bounded] = bestCandidates();
        if (levels.empty())
            return {};
        if (!bounded.empty())
            return bestWithBounds(candidates, bounded);
        if (candidates.empty())
            return {};
        // A rail that is not compared, for bounds or for its orientation, may be better than all of these.
        const std::string among = leavesSomeOut() ? "Of the rails that can be compared, " : "";
        if (candidates.size() == 1)
            return among +
                   fmt::format("{} is the best{}.", m_compared.groups[candidates.front()].name,
                               among.empty() ? fmt::format(" of the {}", m_compared.groups.size()) : "");
        std::vector<std::string> names;
        for (std::size_t candidate : candidates)
            names.push_back(m_compared.groups[candidate].name);
        const std::string text =
            among + (among.empty() ? "Best may be " : "best may be ") + listText(names, " or ");
        if (m_compared.levels.empty())
            return text + ".";
        const auto byLevel = [&](std::size_t a, std::size_t b) {
            return m_compared.levels[a] < m_compared.levels[b];
        };
        const auto [low, high] = std::minmax_element(candidates.begin(), candidates.end(), byLevel);
        return fmt::format(
            "{}: the lowest, {}, costs at most {} against the best, the highest, {}, at most {}.", text,
            m_compared.groups[*low].name, cost(levels[*low], better), m_compared.groups[*high].name,
            cost(levels[*high], better));
    }

    /// What no test of few pieces can rule out (docs/validation.md, "How often the sentences are wrong").
    [[nodiscard]] std::string unevenScatter() const
    {
        constexpr double kUneven = 3.0; // times the least scatter
        constexpr std::size_t kFewForScatter = 5;
        const bool claimsAny =
            std::any_of(m_comparison.rails.begin(), m_comparison.rails.end(),
                        [](const RailComparison &rail) { return rail.effect && rail.effect->isClear(); });
        if (!claimsAny)
            return {};
        std::vector<double> scatter;
        std::size_t fewest = m_compared.groups.front().values.size();
        for (const Group &group : m_compared.groups) {
            scatter.push_back(std::sqrt(varianceOf(group.values)));
            fewest = std::min(fewest, group.values.size());
        }
        const auto [least, most] = std::minmax_element(scatter.begin(), scatter.end());
        if (*most <= kUneven * *least || fewest >= kFewForScatter)
            return {};
        return fmt::format(
            "{} scatters {} as {}: with {} pieces that may be chance. If it is not, claims are wrong a "
            "little "
            "more often than they say{}; two or three pieces more of each would tell.",
            m_compared.groups[static_cast<std::size_t>(most - scatter.begin())].name,
            *least > 0.0 ? fmt::format("{} times as much", m_notation.significant(*most / *least, 2))
                         : std::string("at all, and not"),
            m_compared.groups[static_cast<std::size_t>(least - scatter.begin())].name, fewest,
            m_comparison.procedure->spread == Spread::Common ? "" : " (up to one in twelve)");
    }

private:
    /// The comparison with the best is one-sided and sees more than that with the reference: a rail that
    /// stands there as not told apart from the only best one may be best as well, or two sentences would
    /// contradict each other.
    void keepWithClaims(std::vector<BestLevel> &levels) const
    {
        const auto isBest = [](const BestLevel &level) { return level.mayBeBest; };
        if (std::count_if(levels.begin(), levels.end(), isBest) != 1)
            return;
        const std::size_t only = std::find_if(levels.begin(), levels.end(), isBest)->level;
        if (m_study.plan.aim.comparison == Comparison::AllPairs) {
            keepWithPairs(levels, only);
            return;
        }
        for (BestLevel &level : levels) {
            const bool isBesideReference =
                (only == m_compared.reference) != (level.level == m_compared.reference);
            const std::size_t other = only == m_compared.reference ? level.level : only;
            if (isBesideReference && !isToldFromReference(other))
                level.mayBeBest = true;
        }
    }

    /// The same where each was compared with each.
    void keepWithPairs(std::vector<BestLevel> &levels, std::size_t only) const
    {
        const auto family =
            SimultaneousComparison::of(m_compared.plain, m_compared.reference,
                                       {Comparison::AllPairs, m_asRatio, m_comparison.claimConfidence(), {}});
        for (BestLevel &level : levels) {
            const std::optional<Effect> effect =
                family && level.level != only ? family->effect(only, level.level) : std::nullopt;
            if (effect && !effect->isClear())
                level.mayBeBest = true;
        }
    }

    [[nodiscard]] bool isToldFromReference(std::size_t group) const
    {
        const auto rail = std::find_if(
            m_comparison.rails.begin(), m_comparison.rails.end(),
            [&](const RailComparison &one) { return one.condition == m_compared.conditions[group]->id; });
        return rail == m_comparison.rails.end() || !rail->effect || rail->effect->isClear();
    }

    struct BestCandidates {
        std::vector<BestLevel> levels;   ///< empty where nothing is said of the best
        std::vector<std::size_t> groups; ///< those that are compared and may be best
        /// Of higher is better: rails of which a lower bound is known, and who knows how much more.
        std::vector<const RailComparison *> bounded;
    };

    [[nodiscard]] BestCandidates bestCandidates() const
    {
        BestCandidates best{bestLevels(), {}, {}};
        for (const RailComparison &rail : m_comparison.rails) {
            if (m_comparison.property.better == Better::Higher && rail.effectBound == EffectBound::AtLeast)
                best.bounded.push_back(&rail);
        }
        bool isReferenceBeaten = false; // of bounded rails only the verdict says so
        for (const RailVerdict &rail :
             best.bounded.empty() ? std::vector<RailVerdict>() : verdictOf(m_study, m_comparison).rails)
            isReferenceBeaten = isReferenceBeaten ||
                                (isAmong(best.bounded, rail.condition) && rail.standing == Standing::Higher);
        for (const BestLevel &level : best.levels) {
            if (level.mayBeBest && !(isReferenceBeaten && level.level == m_compared.reference) &&
                !isBelowBounds(level.level, best.bounded))
                best.groups.push_back(level.level);
        }
        return best;
    }

    /// Whether one of the bounded rails is clearly above it even by its bounds at face value (Welch, by
    /// Bonferroni over the rails).
    [[nodiscard]] bool isBelowBounds(std::size_t group,
                                     const std::vector<const RailComparison *> &bounded) const
    {
        const std::vector<double> &own = m_compared.plain[group].values;
        const double level = (1.0 - m_comparison.claimConfidence()) /
                             static_cast<double>(m_compared.groups.size() + bounded.size());
        return std::any_of(bounded.begin(), bounded.end(), [&](const RailComparison *rail) {
            std::vector<double> values;
            for (const PieceValue &value : rail->values) {
                if (value.counts())
                    values.push_back(value.value);
            }
            const std::optional<TTest> test = welchTTest(own, values);
            return test && meanOf(values) > meanOf(own) && test->p < level;
        });
    }

    static bool isAmong(const std::vector<const RailComparison *> &rails, ConditionId condition)
    {
        return std::any_of(rails.begin(), rails.end(),
                           [&](const RailComparison *rail) { return rail->condition == condition; });
    }

    [[nodiscard]] std::string bestWithBounds(const std::vector<std::size_t> &candidates,
                                             const std::vector<const RailComparison *> &bounded) const
    {
        std::vector<std::string> names;
        for (const std::size_t candidate : candidates)
            names.push_back(m_compared.groups[candidate].name);
        std::vector<std::string> open;
        for (const RailComparison *rail : bounded)
            open.push_back(distinctTitle(m_study, *findCondition(m_study, rail->condition)));
        names.insert(names.end(), open.begin(), open.end());
        const bool leavesOthersOut = std::any_of(
            m_comparison.rails.begin(), m_comparison.rails.end(), [&](const RailComparison &rail) {
                return rail.summary.n > 0 && !isFullyCompared(rail) && !isAmong(bounded, rail.condition);
            });
        const std::string_view best = leavesOthersOut ? "Of the rails that can be compared, best" : "Best";
        if (names.size() == 1)
            return fmt::format("{} is {}, however far above its lower bound it lies.", best, names.front());
        return fmt::format("{} may be {}: of {} only {} known.", best, listText(names, " or "),
                           listText(open), open.size() == 1 ? "a lower bound is" : "lower bounds are");
    }

    [[nodiscard]] bool leavesSomeOut() const
    {
        return std::any_of(
            m_comparison.rails.begin(), m_comparison.rails.end(),
            [](const RailComparison &rail) { return rail.summary.n > 0 && !isFullyCompared(rail); });
    }

    [[nodiscard]] std::string label() const
    {
        std::string text(m_comparison.property.label);
        if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z')
            text[0] = static_cast<char>(text[0] - 'A' + 'a');
        return text;
    }

    [[nodiscard]] std::string levelText(double level) const
    {
        return inchpeg::levelText(m_study.factors.front(), m_notation.plain(level));
    }

    /// Of a difference on the procedure's scale, without a sign.
    [[nodiscard]] std::string amount(double difference) const
    {
        if (m_asRatio)
            return m_notation.percent(std::expm1(difference));
        return differenceText(std::abs(difference));
    }

    /// A share of the reference, or a difference.
    [[nodiscard]] std::string limitText(double size) const
    {
        return m_asRatio ? m_notation.percent(size) : differenceText(size);
    }

    [[nodiscard]] std::string differenceText(double difference) const
    {
        return propertyDifferenceText(
            m_comparison.property, difference,
            propertyDecimals(m_comparison.property, std::abs(difference) / 10.0, m_notation), m_notation);
    }

    [[nodiscard]] std::string rangeText(const Interval &difference, bool asLess) const
    {
        Interval shown =
            m_asRatio ? Interval{std::expm1(difference.low), std::expm1(difference.high)} : difference;
        if (asLess)
            shown = {-shown.high, -shown.low};
        if (m_asRatio)
            return m_notation.percentRange(shown);
        return fmt::format("{} to {}", differenceText(shown.low), differenceText(shown.high));
    }

    /// Where no straight line holds, the last level beside the first.
    [[nodiscard]] std::string changeOfEnds(const std::string &where, const LevelShape &shape) const
    {
        const Interval &ci = shape.changeCi;
        if (ci.low <= 0.0 && ci.high >= 0.0)
            return fmt::format("{} no change is shown ({}), and it is no straight line between.", where,
                               rangeText(ci, false));
        return fmt::format("{} {} {} by {} ({}), not along a straight line.", where, label(),
                           ci.low > 0.0 ? "rises" : "falls", amount(*shape.changePerEnds),
                           rangeText(ci, ci.high < 0.0));
    }

    /// What is shown beyond a straight line.
    [[nodiscard]] std::string shapeText(const LevelShape &shape) const
    {
        if (shape.kind == LevelShape::Kind::Turn)
            return fmt::format(" It turns: {} {} {} ({} to {}).", shape.isMaximum ? "highest" : "lowest",
                               shape.isOfParabola ? "near" : "of those tried at",
                               shape.isOfParabola
                                   ? inchpeg::levelText(m_study.factors.front(), rounded(shape.at))
                                   : levelText(shape.at),
                               rounded(shape.where.low), rounded(shape.where.high));
        if (shape.kind == LevelShape::Kind::Stays)
            return shape.isAtTheEnd ? fmt::format(" It {} up to {}; from there to {} no more is shown.",
                                                  shape.rises ? "rises" : "falls", levelText(shape.stays.low),
                                                  levelText(shape.stays.high))
                                    : fmt::format(" From {} to {} no change is shown; beyond that it {}.",
                                                  levelText(shape.stays.low), levelText(shape.stays.high),
                                                  shape.rises ? "rises" : "falls");
        return {};
    }

    /// Where the slope changes, if two straight lines are clearly better than one.
    [[nodiscard]] std::string flattening(const std::vector<double> &x, const std::vector<double> &y) const
    {
        const Result<Bend> found = fitBend(x, y, m_comparison.claimConfidence());
        if (!found || found->pAtMost >= 1.0 - m_comparison.claimConfidence())
            return {};
        std::vector<double> levels = m_compared.levels;
        std::sort(levels.begin(), levels.end());
        const double step = levels[1] - levels[0];
        std::string text = fmt::format(" Its slope changes near {}",
                                       inchpeg::levelText(m_study.factors.front(), rounded(found->at)));
        if (found->low && found->high)
            text += fmt::format(" ({} to {})", rounded(*found->low), rounded(*found->high));
        const auto sign = [](double slope) { return slope < 0.0 ? "−" : "+"; };
        return text + fmt::format(": {}{} per {} before, {}{} after.", sign(found->slopeBefore),
                                  amount(found->slopeBefore * step),
                                  inchpeg::levelText(m_study.factors.front(), rounded(step)),
                                  sign(found->slopeAfter), amount(found->slopeAfter * step));
    }

    [[nodiscard]] std::string rounded(double level) const { return m_notation.significant(level, 3); }

    [[nodiscard]] std::string cost(const BestLevel &level, Better better) const
    {
        const double worst = better == Better::Higher ? level.ci.low : level.ci.high;
        return amount(worst);
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const Notation &m_notation;
    bool m_asRatio;
    ComparedRails m_compared;
};

std::string boundsAnswer(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    const auto reference = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    std::string text;
    for (const RailComparison &rail : comparison.rails) {
        if (!rail.countingBounds)
            continue;
        const Effect &effect = *rail.countingBounds;
        const bool asRatio = comparison.asRatio;
        const double none = asRatio ? 1.0 : 0.0;
        const auto spread = [&](double difference) {
            return propertyDifferenceText(
                comparison.property, difference,
                propertyDecimals(comparison.property, effect.standardError, notation), notation);
        };
        const double size = effect.estimate - none;
        const std::string range =
            asRatio ? notation.percentRange({effect.ci.low - none, effect.ci.high - none})
                    : fmt::format("{} to {}", spread(effect.ci.low), spread(effect.ci.high));
        text +=
            fmt::format("{}{} {}{} ({}, {} and {} pieces)", text.empty() ? "" : ", ",
                        distinctTitle(study, *findCondition(study, rail.condition)), size < 0.0 ? "−" : "+",
                        asRatio ? notation.percent(std::abs(size)) : spread(std::abs(size)), range,
                        rail.summary.n, reference->summary.n);
    }
    return text.empty()
               ? text
               : "With each bound counted as one (maximum likelihood), beside the reference: " + text + ".";
}

/// What standing pieces keep of flat ones, rail beside rail: where it was asked what a setting does to the
/// layers, that is the answer. Told apart are shares whose intervals do not meet, which is stricter than a
/// test.
std::string sharesAnswer(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    std::vector<const RailComparison *> kept;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.shareOfFlat && rail.shareOfFlat->ci && !rail.flatRailDiffers)
            kept.push_back(&rail);
    }
    if (kept.size() < 2)
        return {};
    const auto title = [&](const RailComparison &rail) {
        return levelText(study, *findCondition(study, rail.condition));
    };
    std::vector<std::string> shares;
    for (const RailComparison *rail : kept)
        shares.push_back(fmt::format("{} {} ({})", title(*rail), notation.percent(rail->shareOfFlat->value),
                                     notation.percentRange(*rail->shareOfFlat->ci)));
    std::vector<std::string> apart;
    for (const RailComparison *a : kept) {
        for (const RailComparison *b : kept) {
            if (a->shareOfFlat->ci->low > b->shareOfFlat->ci->high)
                apart.push_back(fmt::format("{} keeps more than {}", title(*a), title(*b)));
        }
    }
    return fmt::format("Of flat, standing pieces keep: {}; {}.", listText(shares),
                       apart.empty() ? "the intervals meet, so these are not told apart" : listText(apart));
}

/// Along a line through all rails whose level is a number, each bound counted as one. Only where bounds are
/// among the values: without any, the trend itself says it.
std::string boundedTrend(const Study &study, const StudyComparison &comparison, const Notation &notation)
{
    if (study.factors.size() != 1)
        return {};
    std::vector<double> x;
    std::vector<BoundedValue> values;
    bool hasBounds = false;
    for (const RailComparison &rail : comparison.rails) {
        const std::optional<double> level =
            parseTypedNumber(findCondition(study, rail.condition)->levels.front());
        if (!level)
            return {};
        for (const PieceValue &value : rail.values) {
            if (!value.counts())
                continue;
            x.push_back(*level);
            values.push_back({value.value, value.atLeast});
            hasBounds = hasBounds || value.atLeast;
        }
    }
    if (!hasBounds)
        return {};
    const bool asRatio = comparison.asRatio;
    const Result<BoundedLine> line =
        fitBoundedLine(x, values, asRatio ? ScatterLaw::LogNormal : ScatterLaw::Normal);
    if (!line || line->broken < 4)
        return {};
    const auto [least, most] = std::minmax_element(x.begin(), x.end());
    const double range = *most - *least;
    // A maximum likelihood takes the scatter too small by what the two coefficients take from it.
    const auto broken = static_cast<double>(line->broken);
    const double half = studentQuantile(0.5 + 0.5 * comparison.askedConfidence(), broken - 2.0) *
                        std::sqrt(broken / (broken - 2.0)) * line->slopeError * range;
    const double change = line->slope * range;
    const auto level = [&](double at) { return levelText(study.factors.front(), notation.plain(at)); };
    return fmt::format(
        "From {} to {} along a straight line, each bound counted as one: {} ({}, {} pieces, {} of "
        "them bounds).",
        level(*least), level(*most), scaledDifference(comparison, change, half, notation),
        scaledRange(comparison, {change - half, change + half}, half, notation), values.size(),
        values.size() - line->broken);
}

/// Nothing where there is nothing to answer from.
std::optional<Answers> answersOf(const Study &study, const StudyComparison &comparison,
                                 const Notation &notation)
{
    if (!comparison.procedure)
        return std::nullopt;
    const auto reference = std::find_if(comparison.rails.begin(), comparison.rails.end(),
                                        [](const RailComparison &rail) { return rail.isReference; });
    const auto compared = std::count_if(comparison.rails.begin(), comparison.rails.end(), isFullyCompared);
    if (!isFullyCompared(*reference) || compared < 2)
        return std::nullopt;
    Answers answers(study, comparison, notation);
    return answers.isUsable() ? std::optional(std::move(answers)) : std::nullopt;
}

/// What follows from rails that are independent of each other.
bool isIndependent(const Study &study)
{
    return study.plan.aim.comparison != Comparison::BeforeAfter;
}

} // namespace

std::vector<Sentence> questionAnswers(const Study &study, const StudyComparison &comparison,
                                      const Notation &notation)
{
    std::vector<Sentence> told;
    if (comparison.property.scale == Scale::Ordinal) {
        say(told, SentenceKind::GradedTrend, gradedAnswers(study, comparison, notation));
        return told;
    }
    say(told, SentenceKind::StandingOfFlat, sharesAnswer(study, comparison, notation));
    say(told, SentenceKind::BoundsCounted, boundsAnswer(study, comparison, notation));
    if (study.plan.aim.comparison == Comparison::Trend)
        say(told, SentenceKind::BoundedTrend, boundedTrend(study, comparison, notation));
    const std::optional<Answers> answers = answersOf(study, comparison, notation);
    if (!answers)
        return told;
    switch (study.plan.aim.comparison) {
    case Comparison::Trend:
        say(told, SentenceKind::Trend, answers->trend());
        break;
    case Comparison::AllPairs:
        say(told, SentenceKind::Pairs, answers->pairs());
        break;
    case Comparison::AnyDifference:
        say(told, SentenceKind::AnyDifference, answers->anyDifference());
        break;
    case Comparison::GoodEnough:
        say(told, SentenceKind::GoodEnough, answers->goodEnough());
        break;
    case Comparison::BeforeAfter:
    case Comparison::TwoGroups:
    case Comparison::AgainstReference:
        break;
    }
    if (isIndependent(study)) {
        say(told, SentenceKind::Best, answers->best());
        say(told, SentenceKind::UnevenScatter, answers->unevenScatter());
        say(told, SentenceKind::Factors, factorAnswers(study, comparison, notation));
    }
    return told;
}

std::vector<ConditionId> mayBeBest(const Study &study, const StudyComparison &comparison)
{
    if (comparison.property.scale == Scale::Ordinal)
        return mayBeGradedBest(study, comparison);
    const Notation notation; // no words are made
    const std::optional<Answers> answers = answersOf(study, comparison, notation);
    return answers && isIndependent(study) ? answers->mayBeBest() : std::vector<ConditionId>();
}

} // namespace inchpeg
