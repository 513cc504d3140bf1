// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/graded.h"

#include "core/stats/many_groups.h"
#include "core/stats/orders.h"
#include "core/stats/ranks.h"
#include "core/stats/robust.h"
#include "core/stats/two_groups.h"
#include "core/text/letters.h"
#include "core/text/list_text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

std::vector<double> countedGrades(const RailComparison &rail)
{
    std::vector<double> grades;
    for (const PieceValue &value : rail.values) {
        if (value.counts())
            grades.push_back(value.value);
    }
    return grades;
}

/// Nothing where all grades are alike or a rail has none.
std::optional<GradeComparison> gradesBeside(const std::vector<double> &reference,
                                            const std::vector<double> &rail)
{
    if (reference.empty() || rail.empty())
        return std::nullopt;
    std::vector<double> all = reference;
    all.insert(all.end(), rail.begin(), rail.end());
    const auto [least, most] = std::minmax_element(all.begin(), all.end());
    if (*least == *most)
        return std::nullopt;
    const std::vector<double> ranks = ranksOf(all).ranks;
    const std::span<const double> both(ranks);
    const Result<PermutationTest> test =
        permutationTest(both.first(reference.size()), both.subspan(reference.size()));
    if (!test)
        return std::nullopt;
    double wins = 0.0;
    for (const double own : rail) {
        for (const double other : reference)
            wins += own > other ? 1.0 : own == other ? 0.5 : 0.0;
    }
    const auto pairs = static_cast<double>(reference.size() * rail.size());
    return GradeComparison{wins / pairs, test->p, test->p};
}

bool isGraded(const Study &study, const RailComparison &rail, const RailComparison &reference)
{
    return findCondition(study, rail.condition)->orientation ==
               findCondition(study, reference.condition)->orientation &&
           rail.summary.n >= 2;
}

/// The one factor's levels as numbers, place by place; nothing where one is a word.
std::optional<std::vector<double>> numericLevels(const Study &study, const StudyComparison &comparison)
{
    if (study.factors.size() != 1)
        return std::nullopt;
    std::vector<double> levels;
    for (const RailComparison &rail : comparison.rails) {
        const std::optional<double> level =
            parseTypedNumber(findCondition(study, rail.condition)->levels.front());
        if (!level)
            return std::nullopt;
        levels.push_back(*level);
    }
    return levels;
}

std::optional<OrderedTrend> trendOfGrades(const StudyComparison &comparison,
                                          const std::vector<double> &levels)
{
    std::vector<double> x;
    std::vector<double> y;
    for (std::size_t i = 0; i < levels.size(); ++i) {
        for (const double grade : countedGrades(comparison.rails[i])) {
            x.push_back(levels[i]);
            y.push_back(grade);
        }
    }
    return orderedTrend(x, y);
}

std::string risingSentence(const Study &study, const StudyComparison &comparison,
                           const std::vector<double> &levels, const Notation &notation)
{
    const std::optional<OrderedTrend> trend = trendOfGrades(comparison, levels);
    if (!trend)
        return {};
    std::size_t pieces = 0;
    for (const RailComparison &rail : comparison.rails)
        pieces += rail.summary.n;
    const auto [least, most] = std::minmax_element(levels.begin(), levels.end());
    const auto text = [&](double level) { return levelText(study.factors.front(), notation.plain(level)); };
    const bool isClear = trend->p < 1.0 - comparison.askedConfidence();
    const std::string_view ranks = comparison.property.words.ranks;
    return fmt::format("From {} to {} {} (Kendall's tau {}, {} pieces).", text(*least), text(*most),
                       isClear ? fmt::format("the {} {}", ranks, trend->tau > 0.0 ? "rise" : "fall")
                               : fmt::format("no steady change of the {} is shown", ranks),
                       notation.fixed(trend->tau, 2), pieces);
}

/// As of values with a mean: a steady change along levels was asked for, none is shown, and Kruskal and
/// Wallis at a fifth of the level show nothing either.
bool isToBeHeldBack(const Study &study, const StudyComparison &comparison)
{
    const std::optional<std::vector<double>> levels = numericLevels(study, comparison);
    if (study.plan.aim.comparison != Comparison::Trend || !levels || levels->size() < 3)
        return false;
    const double level = 1.0 - comparison.askedConfidence();
    std::vector<Group> groups;
    for (const RailComparison &rail : comparison.rails) {
        if (std::vector<double> grades = countedGrades(rail); !grades.empty())
            groups.push_back({{}, std::move(grades)});
    }
    const std::optional<OrderedTrend> trend = trendOfGrades(comparison, *levels);
    const std::optional<ChiSquaredTest> any = kruskalWallis(groups);
    return !(trend && trend->p < level) && !(any && any->p < kShareForAnyDifference * level);
}

} // namespace

Summary summaryOfGrades(std::span<const double> values, const Property &property)
{
    Summary summary;
    summary.n = values.size();
    if (values.empty() || property.scale == Scale::Word)
        return summary;
    const Summary all = summarise(values);
    summary.mean = all.median;
    summary.median = all.median;
    summary.q1 = all.q1;
    summary.q3 = all.q3;
    summary.min = all.min;
    summary.max = all.max;
    return summary;
}

void compareGrades(const Study &study, StudyComparison &comparison, std::size_t reference)
{
    comparison.asRatio = false;
    if (comparison.property.scale != Scale::Ordinal ||
        !isGraded(study, comparison.rails[reference], comparison.rails[reference]))
        return;
    const std::vector<double> base = countedGrades(comparison.rails[reference]);
    std::vector<std::optional<double>> p;
    for (RailComparison &rail : comparison.rails) {
        if (!rail.isReference && isGraded(study, rail, comparison.rails[reference]))
            rail.grades = gradesBeside(base, countedGrades(rail));
        p.push_back(rail.grades ? std::optional(rail.grades->p) : std::nullopt);
    }
    const std::vector<std::optional<double>> adjusted = holmAdjusted(p);
    for (std::size_t i = 0; i < adjusted.size(); ++i) {
        if (adjusted[i])
            comparison.rails[i].grades->adjusted = *adjusted[i];
    }
    comparison.isHeldBack = isToBeHeldBack(study, comparison);
}

std::string wordCounts(const RailComparison &rail, const Property &property)
{
    std::string text;
    for (std::size_t i = 0; i < property.choices.size(); ++i) {
        const auto count = std::count_if(rail.values.begin(), rail.values.end(), [&](const PieceValue &one) {
            return one.counts() && one.value == static_cast<double>(i);
        });
        if (count > 0)
            text += fmt::format("{}{} {}", text.empty() ? "" : ", ", property.choices[i], count);
    }
    return text;
}

std::string gradeText(double grade, const Notation &notation)
{
    return notation.plain(grade, 3);
}

std::size_t leastGraded(std::size_t comparisons, double alpha)
{
    double ways = 1.0; // to deal 2n grades out to two rails
    for (std::size_t n = 1;; ++n) {
        const auto size = static_cast<double>(n);
        ways *= (2.0 * size - 1.0) * 2.0 / size;
        if (static_cast<double>(comparisons) * 2.0 / ways < alpha)
            return n;
    }
}

std::vector<ConditionId> mayBeGradedBest(const Study &study, const StudyComparison &comparison)
{
    const bool isHigherBetter = comparison.property.better != Better::Lower;
    const RailComparison *best = nullptr;
    for (const RailComparison &rail : comparison.rails) {
        if (rail.summary.n < 2 || !isGraded(study, rail, comparison.rails.front()))
            continue;
        const bool isBetter = best == nullptr || (isHigherBetter ? *rail.summary.mean > *best->summary.mean
                                                                 : *rail.summary.mean < *best->summary.mean);
        best = isBetter ? &rail : best;
    }
    std::vector<ConditionId> found;
    if (best == nullptr)
        return found;
    const std::vector<double> top = countedGrades(*best);
    for (const RailComparison &rail : comparison.rails) {
        if (rail.summary.n < 2 || !isGraded(study, rail, *best))
            continue;
        const std::optional<GradeComparison> beside = gradesBeside(top, countedGrades(rail));
        // What is not told apart from the reference is not said to be worse than it either, nor better.
        const RailComparison *claimed = best->isReference ? &rail : rail.isReference ? best : nullptr;
        const double p = claimed != nullptr && claimed->grades ? claimed->grades->adjusted
                         : beside                              ? beside->p
                                                               : 1.0;
        if (&rail == best || p >= 1.0 - comparison.claimConfidence())
            found.push_back(rail.condition);
    }
    return found;
}

std::vector<std::string> gradedAnswers(const Study &study, const StudyComparison &comparison,
                                       const Notation &notation)
{
    std::vector<std::string> sentences;
    const std::optional<std::vector<double>> levels = numericLevels(study, comparison);
    if (levels && levels->size() >= 3)
        sentences.push_back(risingSentence(study, comparison, *levels, notation));
    const std::vector<ConditionId> best = mayBeGradedBest(study, comparison);
    if (best.empty() || comparison.property.better == Better::Neither || comparison.rails.size() < 3)
        return sentences;
    std::vector<std::string> names;
    std::vector<std::pair<double, std::string>> byLevel;
    for (std::size_t i = 0; i < comparison.rails.size(); ++i) {
        const ConditionId id = comparison.rails[i].condition;
        if (std::find(best.begin(), best.end(), id) == best.end())
            continue;
        names.push_back(distinctTitle(study, *findCondition(study, id)));
        if (levels)
            byLevel.emplace_back((*levels)[i], names.back());
    }
    const std::string_view ranked = comparison.property.words.ranked;
    std::string text = names.size() == 1
                           ? fmt::format("{} is {} best.", names.front(), ranked)
                           : fmt::format("{} best may be {}.", capitalised(ranked), listText(names, " or "));
    if (byLevel.size() > 1) {
        const auto [low, high] = std::minmax_element(byLevel.begin(), byLevel.end());
        text += fmt::format(" Of these the lowest is {}, the highest {}.", low->second, high->second);
    }
    sentences.push_back(text);
    return sentences;
}

} // namespace inchpeg
