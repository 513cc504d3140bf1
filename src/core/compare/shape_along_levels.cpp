// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/shape_along_levels.h"

#include "core/stats/trend.h"

#include <algorithm>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLeastShapeLevels = 3;

/// The rails in the order of their levels, and which of them are told apart, all pairs counted.
class OrderedLevels
{
public:
    static std::optional<OrderedLevels> of(const StudyComparison &comparison, const ComparedRails &rails)
    {
        if (rails.levels.size() < kLeastShapeLevels || !rails.isUsable())
            return std::nullopt;
        auto family = SimultaneousComparison::of(
            rails.plain, rails.reference,
            {Comparison::AllPairs, comparison.asRatio, comparison.claimConfidence(), {}});
        if (!family)
            return std::nullopt;
        return OrderedLevels(comparison, rails, std::move(*family));
    }

    [[nodiscard]] std::size_t size() const { return m_order.size(); }
    [[nodiscard]] double level(std::size_t place) const { return m_rails.levels[m_order[place]]; }
    /// 1: the second is clearly above the first; -1: below; 0: not told apart.
    [[nodiscard]] int told(std::size_t first, std::size_t second) const
    {
        const std::optional<Effect> effect = m_family.effect(m_order[first], m_order[second]);
        return !effect || !effect->isClear() ? 0 : effect->t > 0.0 ? 1 : -1;
    }
    [[nodiscard]] std::optional<Effect> ends() const
    {
        return m_family.effect(m_order.front(), m_order.back());
    }
    [[nodiscard]] double mean(std::size_t place) const
    {
        return meanOf(m_rails.groups[m_order[place]].values);
    }
    [[nodiscard]] Result<Trend> fit(int degree) const
    {
        std::vector<double> x;
        std::vector<double> y;
        for (std::size_t place = 0; place < size(); ++place) {
            for (const double value : m_rails.groups[m_order[place]].values) {
                x.push_back(level(place));
                y.push_back(value);
            }
        }
        return fitTrend(x, y, degree, m_confidence);
    }
    [[nodiscard]] double alpha() const { return 1.0 - m_confidence; }

private:
    OrderedLevels(const StudyComparison &comparison, const ComparedRails &rails,
                  SimultaneousComparison family)
        : m_rails(rails), m_family(std::move(family)), m_confidence(comparison.claimConfidence())
    {
        for (std::size_t i = 0; i < rails.levels.size(); ++i)
            m_order.push_back(i);
        std::sort(m_order.begin(), m_order.end(),
                  [&](std::size_t a, std::size_t b) { return rails.levels[a] < rails.levels[b]; });
    }

    const ComparedRails &m_rails;
    SimultaneousComparison m_family;
    std::vector<std::size_t> m_order;
    double m_confidence;
};

/// Whether a line, or a parabola, is refuted by the levels' own means.
bool isRefuted(const Result<Trend> &fit, double alpha)
{
    return fit && fit->lackOfFit && fit->lackOfFit->p < alpha;
}

bool isCurved(const Result<Trend> &parabola, double alpha)
{
    return parabola && parabola->coefficients[2].p && *parabola->coefficients[2].p < alpha;
}

/// Some inner level is clearly above (direction 1) or below (-1) levels on both of its sides.
bool turns(const OrderedLevels &levels, int direction)
{
    for (std::size_t inner = 1; inner + 1 < levels.size(); ++inner) {
        bool before = false;
        bool after = false;
        for (std::size_t other = 0; other < levels.size(); ++other) {
            if (other != inner && levels.told(other, inner) == direction)
                (other < inner ? before : after) = true;
        }
        if (before && after)
            return true;
    }
    return false;
}

/// A curve that turns once does so between the neighbours of the level that is highest in truth, which is
/// among those that none is clearly above.
void placeTurn(LevelShape &shape, const OrderedLevels &levels, int direction, const Result<Trend> &parabola)
{
    std::size_t first = levels.size();
    std::size_t last = 0;
    std::size_t best = 0;
    for (std::size_t place = 0; place < levels.size(); ++place) {
        if (static_cast<double>(direction) * levels.mean(place) >
            static_cast<double>(direction) * levels.mean(best))
            best = place;
        bool isBeaten = false;
        for (std::size_t other = 0; other < levels.size(); ++other)
            isBeaten = isBeaten || (other != place && levels.told(place, other) == direction);
        if (!isBeaten) {
            first = std::min(first, place);
            last = std::max(last, place);
        }
    }
    shape.kind = LevelShape::Kind::Turn;
    shape.isMaximum = direction > 0;
    shape.at = levels.level(best);
    shape.where = {levels.level(first == 0 ? 0 : first - 1),
                   levels.level(std::min(last + 1, levels.size() - 1))};
    const bool fits = parabola && parabola->lackOfFit && !isRefuted(parabola, levels.alpha()) &&
                      parabola->optimum && parabola->optimum->isMaximum == shape.isMaximum;
    if (!fits || parabola->optimum->x <= shape.where.low || parabola->optimum->x >= shape.where.high)
        return;
    shape.at = parabola->optimum->x;
    shape.isOfParabola = true;
    if (const std::optional<Interval> &ci = parabola->optimum->ci) {
        shape.ofParabola = ci;
        shape.where.low = std::max(levels.level(0), std::min(shape.where.low, ci->low));
        shape.where.high = std::min(levels.level(levels.size() - 1), std::max(shape.where.high, ci->high));
    }
}

/// The longest run of levels at one end that are not told apart from each other; at least two, not all.
std::optional<LevelShape> staying(const OrderedLevels &levels, bool isAtTheEnd)
{
    const std::size_t n = levels.size();
    const auto placed = [&](std::size_t fromTheEnd) { return isAtTheEnd ? n - 1 - fromTheEnd : fromTheEnd; };
    std::size_t count = 1;
    for (; count < n; ++count) {
        bool isApart = false;
        for (std::size_t k = 0; k < count; ++k)
            isApart = isApart || levels.told(placed(k), placed(count)) != 0;
        if (isApart)
            break;
    }
    if (count < 2 || count == n)
        return std::nullopt;
    // The level at the inner end of the run must be clearly away from the far end of all levels.
    const std::size_t inner = placed(count - 1);
    const std::size_t far = isAtTheEnd ? 0 : n - 1;
    const int step = levels.told(far, inner);
    if (step == 0)
        return std::nullopt;
    LevelShape shape;
    shape.kind = LevelShape::Kind::Stays;
    shape.isAtTheEnd = isAtTheEnd;
    shape.rises = isAtTheEnd ? step > 0 : step < 0;
    shape.stays = {levels.level(std::min(inner, placed(0))), levels.level(std::max(inner, placed(0)))};
    return shape;
}

} // namespace

std::optional<LevelShape> shapeAlongLevels(const StudyComparison &comparison, const ComparedRails &rails)
{
    const std::optional<OrderedLevels> levels = OrderedLevels::of(comparison, rails);
    if (!levels)
        return std::nullopt;
    const Result<Trend> line = levels->fit(1);
    const Result<Trend> parabola = levels->fit(2);
    LevelShape shape;
    const bool isUp = turns(*levels, 1);
    const bool isDown = turns(*levels, -1);
    // Levels that clearly turn refute a line as well, whatever its own lack of fit says.
    const bool isStraight =
        !isUp && !isDown && !isRefuted(line, levels->alpha()) && !isCurved(parabola, levels->alpha());
    if (isUp != isDown) {
        placeTurn(shape, *levels, isUp ? 1 : -1, parabola);
    } else if (!isStraight) {
        shape.kind = LevelShape::Kind::NotStraight;
        const std::optional<LevelShape> atEnd = staying(*levels, true);
        const std::optional<LevelShape> atStart = staying(*levels, false);
        if (!isUp && (atEnd || atStart) && !(atEnd && atStart))
            shape = atEnd ? *atEnd : *atStart;
    }
    for (std::size_t a = 0; a < levels->size(); ++a) {
        for (std::size_t b = a + 1; b < levels->size(); ++b)
            shape.tellsApart = shape.tellsApart || levels->told(a, b) != 0;
    }
    if (const std::optional<Effect> ends = levels->ends(); ends && !isStraight) {
        const auto scaled = [&](double value) { return comparison.asRatio ? std::log(value) : value; };
        shape.changePerEnds = scaled(ends->estimate);
        shape.changeCi = {scaled(ends->ci.low), scaled(ends->ci.high)};
    }
    return shape;
}

} // namespace inchpeg
