// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/clean_and_strong.h"

#include "core/compare/answers.h"
#include "core/logbook/rail_costs.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr double kCleanGrade = 4.0;

std::vector<ConditionId> cleanRails(const Study &study, const PieceReadings &readings)
{
    const StudyComparison outcome =
        compareStudy(study, readings, usualProperty(Method::PrintOutcome),
                     {.test = Method::PrintOutcome, .detail = ComparisonDetail::Values});
    std::vector<ConditionId> clean;
    for (const RailComparison &rail : outcome.rails) {
        if (rail.summary.median && *rail.summary.median >= kCleanGrade)
            clean.push_back(rail.condition);
    }
    return clean;
}

std::string names(const Study &study, const std::vector<ConditionId> &rails, std::string_view between)
{
    std::vector<std::string> titles;
    for (const ConditionId rail : rails)
        titles.push_back(distinctTitle(study, *findCondition(study, rail)));
    return listText(titles, std::string(between));
}

/// " The quickest of them is 245 °C (38 min), the lightest 235 °C (1.2 g)."
std::string cheapestText(const Study &study, const std::vector<ConditionId> &rails, const Workshop &workshop,
                         const Notation &notation)
{
    std::string text;
    for (const auto &[kind, word] :
         {std::pair{CostKind::PrintTime, "quickest"}, {CostKind::PieceMass, "lightest"}}) {
        std::vector<RailCost> costs = railCosts(study, Method::PrintOutcome, kind, workshop);
        std::erase_if(costs, [&](const RailCost &cost) {
            return std::find(rails.begin(), rails.end(), cost.condition) == rails.end();
        });
        const auto [least, most] =
            std::minmax_element(costs.begin(), costs.end(),
                                [](const RailCost &a, const RailCost &b) { return a.perPiece < b.perPiece; });
        if (costs.size() < 2 || !(most->perPiece > 1.005 * least->perPiece))
            continue; // they cost the same
        text += fmt::format("{} the {} {} {} ({})", text.empty() ? " Of these" : ",", word,
                            text.empty() ? "is" : "",
                            distinctTitle(study, *findCondition(study, least->condition)),
                            costText(kind, least->perPiece, workshop.moneyUnit, notation));
    }
    return text.empty() ? text : text + ".";
}

} // namespace

std::string cleanAndStrongAnswer(const Study &study, const PieceReadings &readings, const Workshop &workshop,
                                 const Notation &notation)
{
    const auto other = std::find_if(study.tests.begin(), study.tests.end(), [](const StudyTest &test) {
        return test.method != Method::PrintOutcome && usualProperty(test.method).better == Better::Higher;
    });
    if (findTest(study, Method::PrintOutcome) == nullptr || other == study.tests.end())
        return {};
    const std::vector<ConditionId> clean = cleanRails(study, readings);
    const std::vector<ConditionId> strong = mayBeBest(
        study, compareStudy(study, readings, usualProperty(other->method), {.test = other->method}));
    if (strong.empty())
        return {};
    std::vector<ConditionId> both;
    std::copy_if(clean.begin(), clean.end(), std::back_inserter(both), [&](ConditionId rail) {
        return std::find(strong.begin(), strong.end(), rail) != strong.end();
    });
    if (clean.empty())
        return "No rail is clean: none has a median outcome of 4 or better.";
    if (both.empty())
        return fmt::format("No rail is both clean and strong: clean {} {}, strongest in {} may be {}.",
                           clean.size() == 1 ? "is" : "are", names(study, clean, " and "),
                           methodName(other->method), names(study, strong, " or "));
    return fmt::format(
        "Clean and strong at once (outcome 4 or better, and not told apart from the best in {}): {}.{}",
        methodName(other->method), names(study, both, " and "),
        cheapestText(study, both, workshop, notation));
}

} // namespace inchpeg
