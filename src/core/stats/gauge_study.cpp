// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/stats/gauge_study.h"

#include "core/stats/two_way.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr double kCategoriesPerRatio = 1.41;

struct Sizes {
    double parts = 0.0;
    double persons = 0.0;
    double repeats = 0.0;
};

Result<Sizes> sizesOf(std::span<const GaugeStudyValue> readings)
{
    std::set<std::size_t> parts;
    std::set<std::size_t> persons;
    std::map<std::pair<std::size_t, std::size_t>, std::size_t> counts;
    for (const GaugeStudyValue &reading : readings) {
        parts.insert(reading.part);
        persons.insert(reading.person);
        ++counts[{reading.part, reading.person}];
    }
    if (parts.size() < 2 || persons.size() < 2)
        return Error{ErrorCode::TooFewPoints,
                     fmt::format("{} part{} read by {} person{}; two of each are wanted", parts.size(),
                                 parts.size() == 1 ? "" : "s", persons.size(),
                                 persons.size() == 1 ? "" : "s"),
                     {}};
    const std::size_t repeats = counts.begin()->second;
    const bool isBalanced =
        counts.size() == parts.size() * persons.size() &&
        std::all_of(counts.begin(), counts.end(), [&](const auto &one) { return one.second == repeats; });
    if (!isBalanced)
        return invalidArgument("not every person read every part equally often");
    if (repeats < 2)
        return Error{ErrorCode::TooFewPoints, "each person read each part once; twice is wanted", {}};
    return Sizes{static_cast<double>(parts.size()), static_cast<double>(persons.size()),
                 static_cast<double>(repeats)};
}

} // namespace

Result<GaugeStudy> gaugeStudy(std::span<const GaugeStudyValue> readings)
{
    const Result<Sizes> sizes = sizesOf(readings);
    if (!sizes)
        return sizes.error();
    std::vector<TwoWayValue> values;
    for (const GaugeStudyValue &reading : readings)
        values.push_back({reading.value, reading.part, reading.person});
    const Result<TwoWayAnova> anova = twoWayAnova(values);
    if (!anova)
        return anova.error();
    double within = anova->residual.meanSquare.value_or(0.0);
    double both = anova->interaction.meanSquare.value_or(0.0);
    GaugeStudy study;
    study.interactionP = anova->interaction.p;
    study.interactionLeftOut = study.interactionP && *study.interactionP > kInteractionLeftOutAbove;
    if (study.interactionLeftOut) {
        within = (anova->residual.squares + anova->interaction.squares) /
                 (anova->residual.df + anova->interaction.df);
        both = within;
    }
    const auto component = [](double larger, double smaller, double times) {
        return std::max(0.0, (larger - smaller) / times);
    };
    const double interaction = component(both, within, sizes->repeats);
    const double person = component(*anova->b.meanSquare, both, sizes->parts * sizes->repeats);
    const double part = component(*anova->a.meanSquare, both, sizes->persons * sizes->repeats);
    study.repeatability = std::sqrt(within);
    study.person = std::sqrt(person);
    study.interaction = std::sqrt(interaction);
    study.reproducibility = std::sqrt(person + interaction);
    study.gauge = std::sqrt(within + person + interaction);
    study.part = std::sqrt(part);
    study.total = std::sqrt(within + person + interaction + part);
    if (study.total > 0.0)
        study.shareOfTotal = study.gauge / study.total;
    if (study.gauge > 0.0)
        study.categories =
            static_cast<int>(std::min(1e6, std::floor(kCategoriesPerRatio * study.part / study.gauge)));
    return study;
}

} // namespace inchpeg
