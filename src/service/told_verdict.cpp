// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/told_verdict.h"

#include "core/decide/study_answers.h"
#include "core/logbook/result_cautions.h"

#include <fmt/format.h>

namespace inchpeg
{

Result<Response> responseFor(const Study &study, const VerdictRequest &request)
{
    const Method test = request.test.value_or(methodOf(study));
    const StudyTest *planned = findTest(study, test);
    if (planned == nullptr)
        return Error{ErrorCode::NotFound, fmt::format("the study has no test \"{}\"", methodName(test)), {}};
    const Reduction *reduction = reductionOf(test);
    if (reduction == nullptr)
        return Error{ErrorCode::NotFound, fmt::format("records of {} cannot be read", methodName(test)), {}};
    const std::string wanted = !request.property.empty()          ? request.property
                               : !planned->setup.property.empty() ? planned->setup.property
                                                                  : std::string(usualProperty(test).name);
    const Result<Property> property = findProperty(*reduction, wanted);
    if (!property)
        return property.error();
    return Response{test, *property};
}

Result<ToldVerdict> tellVerdict(const ProjectResults &all, const LibraryResults &library, StudyId study,
                                const VerdictRequest &request)
{
    const Result<StudyResults> own = all.of(study);
    if (!own)
        return own.error();
    const Result<Response> response = responseFor(*own->study, request);
    if (!response)
        return response.error();
    ToldVerdict told;
    told.response = *response;
    told.comparison = compareStudy(*own->study, *own->readings, response->property,
                                   {.test = response->test, .detail = ComparisonDetail::Tests});
    told.verdict = verdictOf(*own->study, told.comparison);
    for (const std::string &caution : resultCautions(*own->study, all.workshop, own->readings))
        told.cautions.push_back(Notation().expand(caution));
    const std::vector<StudyResults> results = library.beside(all);
    told.answers = studyAnswers({.study = own->study,
                                 .readings = own->readings,
                                 .property = response->property,
                                 .test = response->test,
                                 .workshop = &all.workshop,
                                 .all = results,
                                 .bought = all.bought,
                                 .withSchools = false},
                                told.comparison, {});
    for (Sentence &answer : told.answers)
        answer.text = Notation().expand(answer.text);
    for (const std::string &problem : library.problems)
        say(told.answers, SentenceKind::Problem, problem);
    return told;
}

std::string_view claimName(const RailVerdict &rail)
{
    switch (rail.standing) {
    case Standing::Higher:
        return rail.isSmall ? "smaller-than-matters" : "above";
    case Standing::Lower:
        return rail.isSmall ? "smaller-than-matters" : "below";
    case Standing::Alike:
        return "as-good";
    case Standing::NotToldApart:
        return "not-told-apart";
    case Standing::Reference:
    case Standing::NoResult:
    case Standing::TooFew:
    case Standing::NoScatter:
    case Standing::Bound:
    case Standing::OtherKind:
    case Standing::OtherBreak:
    case Standing::Listed:
        return "none";
    }
    return "none";
}

} // namespace inchpeg
