// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/trade_off.h"

#include "core/compare/verdict.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace inchpeg
{

namespace
{

constexpr double kSameCost = 1e-9;
constexpr double kFlattens = 0.1; ///< above the straight line, of the whole range

/// Larger is better, whichever way the property counts.
double gainOf(const TradeOffPoint &point, Better better)
{
    return better == Better::Lower ? -point.mean : point.mean;
}

void findFront(TradeOff &found, Better better)
{
    std::vector<std::size_t> byCost(found.points.size());
    std::iota(byCost.begin(), byCost.end(), std::size_t{0});
    std::stable_sort(byCost.begin(), byCost.end(), [&](std::size_t a, std::size_t b) {
        const TradeOffPoint &one = found.points[a];
        const TradeOffPoint &other = found.points[b];
        return one.cost < other.cost ||
               (one.cost == other.cost && gainOf(one, better) > gainOf(other, better));
    });
    for (const std::size_t place : byCost) {
        if (!found.front.empty() &&
            gainOf(found.points[place], better) <= gainOf(found.points[found.front.back()], better)) {
            found.points[place].mayBeOnFront = found.points[place].atLeast && better == Better::Higher;
            continue;
        }
        found.points[place].isOnFront = true;
        found.front.push_back(place);
    }
}

void findKnee(TradeOff &found, Better better)
{
    if (found.front.size() < 3)
        return;
    const TradeOffPoint &cheapest = found.points[found.front.front()];
    const TradeOffPoint &best = found.points[found.front.back()];
    const double costs = best.cost - cheapest.cost;
    const double gains = gainOf(best, better) - gainOf(cheapest, better);
    double highest = kFlattens;
    for (std::size_t i = 1; i + 1 < found.front.size(); ++i) {
        const TradeOffPoint &point = found.points[found.front[i]];
        const double above =
            (gainOf(point, better) - gainOf(cheapest, better)) / gains - (point.cost - cheapest.cost) / costs;
        if (above > highest) {
            highest = above;
            found.knee = found.front[i];
        }
    }
}

} // namespace

TradeOff tradeOff(const Study &study, const StudyComparison &comparison, std::span<const RailCost> costs)
{
    TradeOff found;
    const Condition *reference = findCondition(study, study.reference);
    for (const RailComparison &rail : comparison.rails) {
        const auto cost = std::find_if(costs.begin(), costs.end(),
                                       [&](const RailCost &one) { return one.condition == rail.condition; });
        const bool isLikeReference =
            reference == nullptr ||
            findCondition(study, rail.condition)->orientation == reference->orientation;
        if (cost == costs.end() || rail.told || !rail.summary.mean || !isLikeReference)
            continue;
        found.points.push_back({rail.condition, cost->perPiece, cost->isMeasured, *rail.summary.mean,
                                rail.summary.n, rail.summary.ci, rail.bounds > 0, false});
    }
    if (comparison.property.better == Better::Neither)
        return found;
    findFront(found, comparison.property.better);
    findKnee(found, comparison.property.better);
    return found;
}

std::string tradeOffText(const Study &study, const StudyComparison &comparison, const TradeOff &tradeOff,
                         const CostWords &words, const Notation &notation)
{
    if (tradeOff.front.empty() || tradeOff.points.size() < 2)
        return {};
    const auto title = [&](std::size_t place) {
        return distinctTitle(study, *findCondition(study, tradeOff.points[place].condition));
    };
    const auto more = [&](std::size_t from, std::size_t to) {
        const TradeOffPoint &a = tradeOff.points[from];
        const TradeOffPoint &b = tradeOff.points[to];
        const double gain = std::abs(b.mean - a.mean);
        return fmt::format(
            "{} for {}",
            propertyDifferenceText(comparison.property, gain,
                                   propertyDecimals(comparison.property, gain / 10.0, notation), notation),
            words.text(b.cost - a.cost));
    };
    const auto [least, most] =
        std::minmax_element(tradeOff.points.begin(), tradeOff.points.end(),
                            [](const TradeOffPoint &a, const TradeOffPoint &b) { return a.cost < b.cost; });
    if (most->cost - least->cost <= kSameCost * most->cost)
        return fmt::format("All {}; {} is the best by its mean.", words.same, title(tradeOff.front.front()));
    std::vector<std::string> open;
    for (std::size_t i = 0; i < tradeOff.points.size(); ++i) {
        if (tradeOff.points[i].mayBeOnFront)
            open.push_back(title(i));
    }
    const std::string bounds = open.empty()
                                   ? std::string()
                                   : fmt::format(" Of {} only lower bounds are known: {} may be worth "
                                                 "it as well.",
                                                 listText(open), open.size() == 1 ? "it" : "they");
    if (tradeOff.front.size() == 1)
        return fmt::format("{} is the {} and by its mean the best.", title(tradeOff.front.front()),
                           words.least) +
               bounds;
    std::vector<std::string> names;
    for (const std::size_t place : tradeOff.front)
        names.push_back(title(place));
    std::string text = fmt::format("Worth their {} by their means: {}", words.worth, listText(names));
    text += tradeOff.front.size() + open.size() < tradeOff.points.size()
                ? fmt::format("; each other is beaten by a {} one.", words.lesser)
                : ".";
    text += bounds;
    if (tradeOff.knee)
        text += fmt::format(" The gain flattens at {}: up to it {}, beyond it {}.", title(*tradeOff.knee),
                            more(tradeOff.front.front(), *tradeOff.knee),
                            more(*tradeOff.knee, tradeOff.front.back()));
    return text;
}

} // namespace inchpeg
