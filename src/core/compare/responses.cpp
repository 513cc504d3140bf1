// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/responses.h"

#include "core/stats/distributions.h"
#include "core/stats/orders.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::size_t kOfEachTest = 2;

void addResponses(std::vector<Response> &responses, Method method, std::size_t most)
{
    const Reduction *reduction = reductionOf(method);
    if (reduction == nullptr)
        return;
    for (const PlannedProperty &planned : factsOf(method).properties) {
        const Result<Property> property = findProperty(*reduction, planned.name);
        if (property && most > 0) {
            responses.push_back({method, *property});
            --most;
        }
    }
}

ResponseCell cellOf(const RailComparison &rail, RailVerdict verdict, const Property &property,
                    const Notation &notation)
{
    ResponseCell cell{rail.isReference, rail.values, rail.summary.mean, {}, {}, std::move(verdict), {}};
    if (!rail.summary.mean)
        return cell;
    if (rail.bounds == 0)
        cell.interval = rail.summary.ci;
    const double shown = notation.unitOf(property.dimension).fromWorking(*rail.summary.mean);
    cell.meanText = rail.summary.se && *rail.summary.se > 0.0
                        ? notation.fixed(shown, propertyDecimals(property, *rail.summary.se, notation))
                        : notation.significant(shown, 3);
    if (rail.effect && rail.effectBound == EffectBound::None)
        cell.p = studentTwoSided(rail.effect->t, rail.effect->df);
    if (rail.bounds > 0)
        cell.meanText = "≥ " + cell.meanText;
    return cell;
}

} // namespace

std::vector<Response> responsesOf(const Study &study)
{
    const std::size_t most =
        study.tests.size() == 1 ? factsOf(methodOf(study)).properties.size() : kOfEachTest;
    std::vector<Response> responses;
    for (const StudyTest &test : study.tests)
        addResponses(responses, test.method, most);
    return responses;
}

std::vector<ResponseColumn> responseTable(const Study &study, const PieceReadings &readings,
                                          const Notation &notation)
{
    std::vector<ResponseColumn> table;
    for (const Response &response : responsesOf(study)) {
        const StudyComparison comparison =
            compareStudy(study, readings, response.property,
                         {.test = response.test, .detail = ComparisonDetail::Sentences});
        StudyVerdict verdict = verdictOf(study, comparison, notation);
        ResponseColumn column{response, std::string(notation.unitOf(response.property.dimension).symbol), {}};
        for (std::size_t r = 0; r < comparison.rails.size(); ++r)
            column.cells.push_back(
                cellOf(comparison.rails[r], std::move(verdict.rails[r]), response.property, notation));
        table.push_back(std::move(column));
    }
    return table;
}

namespace
{

/// The claims that are lost where all answers are counted together.
std::string lostClaims(const Study &study, const std::vector<ResponseColumn> &table)
{
    std::vector<double> p;
    std::vector<std::string> claims; ///< of the same places; empty where nothing is claimed
    for (const ResponseColumn &column : table) {
        for (const ResponseCell &cell : column.cells) {
            if (!cell.p)
                continue;
            const Standing standing = cell.verdict.standing;
            p.push_back(*cell.p);
            claims.push_back(
                standing == Standing::Higher || standing == Standing::Lower
                    ? fmt::format("{} in {}",
                                  distinctTitle(study, *findCondition(study, cell.verdict.condition)),
                                  column.response.property.label)
                    : std::string());
        }
    }
    const std::vector<double> adjusted = falseDiscoveryAdjusted(p);
    std::vector<std::string> lost;
    for (std::size_t i = 0; i < claims.size(); ++i) {
        if (!claims[i].empty() && adjusted[i] > 1.0 - study.plan.aim.confidence)
            lost.push_back(claims[i]);
    }
    if (lost.empty())
        return {};
    return fmt::format(
        " Of {} answers together, at most {:.0f} % false among the claims, these do not stand: {}.", p.size(),
        100.0 * (1.0 - study.plan.aim.confidence), listText(lost));
}

} // namespace

std::string responsesHeadline(const Study &study, const std::vector<ResponseColumn> &table)
{
    std::string text;
    for (std::size_t r = 0; r < study.conditions.size(); ++r) {
        std::size_t compared = 0;
        std::size_t above = 0;
        std::size_t below = 0;
        for (const ResponseColumn &column : table) {
            const Standing standing = column.cells.at(r).verdict.standing;
            above += standing == Standing::Higher ? 1U : 0U;
            below += standing == Standing::Lower ? 1U : 0U;
            compared += standing == Standing::Alike || standing == Standing::NotToldApart ? 1U : 0U;
        }
        compared += above + below;
        if (study.conditions[r].id == study.reference || compared == 0)
            continue;
        text += fmt::format("{}{} above in {} of {}, below in {}", text.empty() ? "" : "; ",
                            distinctTitle(study, study.conditions[r]), above, compared, below);
    }
    const Condition *reference = findCondition(study, study.reference);
    if (text.empty() || reference == nullptr)
        return "Nothing can be compared yet: at least two pieces are wanted on the reference and on another "
               "rail.";
    return fmt::format("Against {}: {}.", distinctTitle(study, *reference), text) + lostClaims(study, table);
}

} // namespace inchpeg
