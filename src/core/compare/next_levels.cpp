// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/next_levels.h"

#include "core/compare/compared_rails.h"
#include "core/compare/shape_along_levels.h"
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

constexpr std::size_t kLeastLevelsTried = 3;
constexpr double kKnownShare = 0.5; ///< of the distance of levels: closer than that nothing is to be gained
constexpr double kFineness = 5.0;   ///< steps to which a distance of levels is rounded

/// A round number at or below: 1, 2 or 5 times a power of ten.
double roundStep(double wanted)
{
    const double power = std::pow(10.0, std::floor(std::log10(wanted)));
    const double lead = wanted / power;
    return (lead >= 5.0 ? 5.0 : lead >= 2.0 ? 2.0 : 1.0) * power;
}

class LevelFinder
{
public:
    LevelFinder(const Study &study, const StudyComparison &comparison)
        : m_study(study), m_comparison(comparison), m_compared(comparedRails(study, comparison))
    {
        for (std::size_t i = 0; i < m_compared.levels.size(); ++i)
            m_order.push_back(i);
        std::sort(m_order.begin(), m_order.end(),
                  [&](std::size_t a, std::size_t b) { return m_compared.levels[a] < m_compared.levels[b]; });
    }

    [[nodiscard]] bool isUsable() const
    {
        // A rail whose values are bounds may be better than any that is known.
        const bool hasBounds = std::any_of(m_comparison.rails.begin(), m_comparison.rails.end(),
                                           [](const RailComparison &rail) { return rail.bounds > 0; });
        return m_order.size() >= kLeastLevelsTried && m_compared.isUsable() && !hasBounds &&
               m_comparison.property.better != Better::Neither;
    }

    std::optional<NextLevels> find(const Notation &notation)
    {
        m_notation = &notation;
        const std::size_t best = bestPlace();
        const double at = level(best);
        m_distance = (level(m_order.size() - 1) - level(0)) / static_cast<double>(m_order.size() - 1);
        m_step = roundStep(m_distance / kFineness);
        const std::optional<LevelShape> shape = shapeAlongLevels(m_comparison, m_compared);
        const bool isHigherBetter = m_comparison.property.better == Better::Higher;
        if (shape && shape->kind == LevelShape::Kind::Turn && shape->isMaximum == isHigherBetter) {
            if (shape->ofParabola &&
                shape->ofParabola->high - shape->ofParabola->low < kKnownShare * m_distance)
                return std::nullopt;
            return made(
                {(shape->where.low + shape->at) / 2.0, shape->at, (shape->at + shape->where.high) / 2.0}, at,
                fmt::format("the values turn near {} ({} to {})", text(shape->at), text(shape->where.low),
                            text(shape->where.high)));
        }
        if (shape && !shape->tellsApart)
            return std::nullopt; // which mean is the best is chance
        // A level on a plateau is no peak, and on it nothing is to be gained: open is where it begins.
        const bool isPlateauBest =
            shape && shape->kind == LevelShape::Kind::Stays &&
            (shape->isAtTheEnd ? shape->rises == isHigherBetter : shape->rises != isHigherBetter);
        if (isPlateauBest) {
            const double edge = shape->isAtTheEnd ? shape->stays.low : shape->stays.high;
            const double beside = neighbour(edge, shape->isAtTheEnd ? -1 : 1);
            return made({(beside + edge) / 2.0}, edge,
                        fmt::format("from {} to {} no change is shown, and beside it there is one",
                                    text(shape->stays.low), text(shape->stays.high)));
        }
        if (best == 0 || best + 1 == m_order.size()) {
            const double away = best == 0 ? level(0) - level(1) : level(best) - level(best - 1);
            return made({at + away / 2.0, at + away}, at,
                        fmt::format("the best of those tried, {}, is the {} one", text(at),
                                    best == 0 ? "lowest" : "highest"));
        }
        return made({(level(best - 1) + at) / 2.0, (at + level(best + 1)) / 2.0}, at,
                    fmt::format("{} is the best of those tried, by its mean", text(at)));
    }

private:
    [[nodiscard]] double level(std::size_t place) const { return m_compared.levels[m_order[place]]; }
    [[nodiscard]] std::string text(double value) const
    {
        return levelText(m_study.factors.front(), m_notation->plain(rounded(value)));
    }
    [[nodiscard]] double rounded(double value) const { return std::round(value / m_step) * m_step; }

    [[nodiscard]] std::size_t bestPlace() const
    {
        const auto mean = [&](std::size_t place) { return meanOf(m_compared.plain[m_order[place]].values); };
        std::size_t best = 0;
        for (std::size_t place = 1; place < m_order.size(); ++place) {
            if (m_comparison.property.better == Better::Higher ? mean(place) > mean(best)
                                                               : mean(place) < mean(best))
                best = place;
        }
        return best;
    }

    /// The level next to one that was tried.
    [[nodiscard]] double neighbour(double of, int direction) const
    {
        for (std::size_t place = 1; place + 1 < m_order.size(); ++place) {
            if (level(place) == of)
                return direction < 0 ? level(place - 1) : level(place + 1);
        }
        return of;
    }

    [[nodiscard]] std::optional<NextLevels> made(std::vector<double> wanted, double best,
                                                 std::string why) const
    {
        NextLevels next;
        std::vector<double> levels{best};
        std::vector<std::string> fresh;
        const bool mayBeNegative = level(0) < 0.0;
        for (const double one : wanted) {
            const double value = rounded(one);
            const bool isThere = std::any_of(levels.begin(), levels.end(), [&](double known) {
                return std::abs(known - value) < 0.5 * m_step;
            });
            const bool wasTried = std::any_of(
                m_study.conditions.begin(), m_study.conditions.end(), [&](const Condition &condition) {
                    const std::optional<double> known = parseTypedNumber(condition.levels.front());
                    return known && std::abs(*known - value) < 0.5 * m_step;
                });
            if (isThere || wasTried || (value <= 0.0 && !mayBeNegative))
                continue;
            levels.push_back(value);
            fresh.push_back(text(value));
        }
        if (fresh.empty())
            return std::nullopt;
        std::sort(levels.begin(), levels.end());
        for (const double value : levels)
            next.levels.push_back(plainText(value));
        next.best = plainText(best);
        next.sentence = fmt::format("To find the best {} more closely, try {} next: {}.",
                                    m_study.factors.front().name, listText(fresh), why);
        return next;
    }

    const Study &m_study;
    const StudyComparison &m_comparison;
    const Notation *m_notation = nullptr;
    ComparedRails m_compared;
    std::vector<std::size_t> m_order; ///< of the rails, by their levels
    double m_distance = 1.0;          ///< of two levels, on average
    double m_step = 1.0;              ///< to which new levels are rounded
};

} // namespace

std::optional<NextLevels> nextLevels(const Study &study, const StudyComparison &comparison,
                                     const Notation &notation)
{
    LevelFinder finder(study, comparison);
    return finder.isUsable() ? finder.find(notation) : std::nullopt;
}

Status planNextLevels(Study &fresh, const Study &like, const NextLevels &next, const IdSource &ids)
{
    fresh.tests = like.tests;
    fresh.factors = like.factors;
    fresh.smallestDifference = like.smallestDifference;
    fresh.sectionShape = like.sectionShape;
    fresh.plan.locked = like.plan.locked;
    fresh.plan.aim = like.plan.aim;
    fresh.plan.print.printer = like.plan.print.printer;
    fresh.log.measuring = like.log.measuring;
    const Condition &model = *findCondition(like, like.reference);
    for (const std::string &level : next.levels) {
        if (const Status added = addCondition(fresh, {{}, {level}, model.orientation, model.material}, ids);
            !added)
            return added;
        if (level == next.best)
            fresh.reference = fresh.conditions.back().id;
    }
    return ok();
}

} // namespace inchpeg
