// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/own_averages.h"

#include "core/compare/verdict.h"
#include "core/decide/same_load.h"
#include "core/method/value_text.h"
#include "core/planning/planned_test.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr int kAverageDigits = 3;

using PolymerAsPrinted = std::pair<std::string_view, Orientation>;

std::optional<PolymerAsPrinted> printedOf(const Study &study, const Condition &condition)
{
    const PolymerGuess polymer = polymerOf(study, condition);
    return polymer.isKnown ? std::optional(PolymerAsPrinted{polymer.facts->name, condition.orientation})
                           : std::nullopt;
}

struct Gathered {
    std::vector<RailValues> rails;
    std::set<std::size_t> studies;
    bool hasLibrary = false;
};

/// All pieces of the rails as one sample: mean and sd of the pieces, from those of the rails.
OwnAverage averageOf(const PolymerAsPrinted &printed, const Gathered &gathered)
{
    OwnAverage average{
        printed.first, printed.second,     0, gathered.rails.size(), gathered.studies.size(), 0.0,
        0.0,           gathered.hasLibrary};
    double sum = 0.0;
    for (const RailValues &rail : gathered.rails) {
        average.pieces += rail.n;
        sum += static_cast<double>(rail.n) * rail.mean;
    }
    average.mean = sum / static_cast<double>(average.pieces);
    double squares = 0.0;
    for (const RailValues &rail : gathered.rails) {
        const auto n = static_cast<double>(rail.n);
        squares += (n - 1.0) * rail.sd.value_or(0.0) * rail.sd.value_or(0.0) +
                   n * (rail.mean - average.mean) * (rail.mean - average.mean);
    }
    if (average.pieces > 1)
        average.sd = std::sqrt(squares / static_cast<double>(average.pieces - 1));
    return average;
}

std::string plural(std::size_t n, std::string_view one, std::string_view many)
{
    return fmt::format("{} {}", n, n == 1 ? one : many);
}

} // namespace

std::vector<OwnAverage> ownAverages(const Study &study, Method test, const Property &property,
                                    std::span<const StudyResults> others)
{
    std::vector<PolymerAsPrinted> wanted;
    for (const Condition &condition : study.conditions) {
        const std::optional<PolymerAsPrinted> printed = printedOf(study, condition);
        if (printed && std::find(wanted.begin(), wanted.end(), *printed) == wanted.end())
            wanted.push_back(*printed);
    }
    std::map<PolymerAsPrinted, Gathered> gathered;
    const auto isOfOtherLoad = [&](const Study &other) {
        return isReadUnderLoad(test) &&
               !isSameLoad(findTest(other, test)->setup.stress_MPa, findTest(study, test)->setup.stress_MPa);
    };
    for (std::size_t s = 0; s < others.size() && hasMean(property); ++s) {
        const Study &other = *others[s].study;
        if ((other.id == study.id && !others[s].isOfLibrary) || findTest(other, test) == nullptr ||
            isOfOtherLoad(other))
            continue;
        for (const RailValues &rail : others[s].railValues(test, property)) {
            const std::optional<PolymerAsPrinted> printed =
                printedOf(other, *findCondition(other, rail.condition));
            if (!printed || rail.bounds > 0)
                continue;
            Gathered &own = gathered[*printed];
            own.studies.insert(s);
            own.hasLibrary = own.hasLibrary || others[s].isOfLibrary;
            own.rails.push_back(rail);
        }
    }
    std::vector<OwnAverage> averages;
    for (const PolymerAsPrinted &printed : wanted) {
        const auto found = gathered.find(printed);
        if (found != gathered.end())
            averages.push_back(averageOf(printed, found->second));
    }
    return averages;
}

std::map<ConditionId, OwnAverage> averageOfRails(const Study &study, const std::vector<OwnAverage> &averages)
{
    std::map<ConditionId, OwnAverage> ofRails;
    for (const Condition &condition : study.conditions) {
        for (const OwnAverage &average : averages) {
            if (printedOf(study, condition) == PolymerAsPrinted{average.polymer, average.orientation})
                ofRails.emplace(condition.id, average);
        }
    }
    return ofRails;
}

std::vector<std::string> ownAverageSentences(const Study &study, const StudyComparison &comparison,
                                             Method test, std::span<const StudyResults> others,
                                             const Notation &notation)
{
    std::vector<std::string> sentences;
    const Property &property = comparison.property;
    for (const OwnAverage &average : ownAverages(study, test, property, others)) {
        std::vector<double> here;
        for (const RailComparison &rail : comparison.rails) {
            const bool isOfIt = printedOf(study, *findCondition(study, rail.condition)) ==
                                PolymerAsPrinted{average.polymer, average.orientation};
            for (const PieceValue &value : rail.values) {
                if (isOfIt && value.counts() && !value.atLeast)
                    here.push_back(value.value);
            }
        }
        if (here.empty())
            continue;
        const double difference = meanOf(here) - average.mean;
        const std::string amount = isComparedAsRatio(property) && average.mean > 0.0
                                       ? notation.percent(std::abs(difference) / average.mean)
                                       : propertyDifferenceText(property, std::abs(difference), 1, notation);
        const std::string scatter =
            average.sd > 0.0
                ? fmt::format(", scatter {}", propertyDifferenceText(
                                                  property, average.sd,
                                                  propertyDecimals(property, average.sd, notation), notation))
                : std::string();
        sentences.push_back(fmt::format(
            "{}, {}, in all other studies{}: {} ({} of {} in {}{}); here {}, {} {} it.", average.polymer,
            orientationName(average.orientation), average.hasLibrary ? " and the library" : "",
            valueText(property, average.mean, kAverageDigits, notation),
            plural(average.pieces, "piece", "pieces"), plural(average.rails, "rail", "rails"),
            plural(average.studies, "study", "studies"), scatter,
            valueText(property, meanOf(here), kAverageDigits, notation), amount,
            difference < 0.0 ? "below" : "above"));
    }
    return sentences;
}

} // namespace inchpeg
