// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/study_answers.h"

#include "core/compare/adviser.h"
#include "core/compare/answers.h"
#include "core/compare/influence.h"
#include "core/compare/method_answers.h"
#include "core/compare/next_levels.h"
#include "core/compare/schools.h"
#include "core/compare/stop_advice.h"
#include "core/decide/clean_and_strong.h"
#include "core/decide/joined_studies.h"
#include "core/decide/own_averages.h"
#include "core/decide/service_ties.h"
#include "core/decide/sheet_values.h"
#include "core/logbook/log_answers.h"
#include "core/logbook/rail_costs.h"

namespace inchpeg
{

std::vector<Sentence> studyAnswers(const AnswersRequest &request, const StudyComparison &comparison,
                                   const Notation &notation)
{
    using Kind = SentenceKind;
    const Study &study = *request.study;
    const PieceReadings &readings = *request.readings;
    const Workshop &workshop = *request.workshop;
    std::vector<Sentence> told;
    if (const std::optional<StopAdvice> advice = stopAdvice(study, comparison))
        say(told, Kind::Stop, stopAdviceText(study, comparison, *advice, notation));
    for (Sentence &answer : questionAnswers(study, comparison, notation))
        told.push_back(std::move(answer));
    say(told, Kind::LeastCost,
        leastCostAnswer(study, mayBeBest(study, comparison), request.test, workshop, notation));
    if (const std::optional<NextLevels> next = nextLevels(study, comparison, notation))
        say(told, Kind::NextLevels, next->sentence);
    for (LogAnswer &answer : logAnswers(study, comparison, notation)) {
        if (answer.changesClaims || request.withSchools)
            say(told, Kind::LogExplains, std::move(answer.text));
    }
    say(told, Kind::CleanAndStrong, cleanAndStrongAnswer(study, readings, workshop, notation));
    say(told, Kind::Sheet, sheetSentences(study, comparison, request.test, workshop, notation));
    say(told, Kind::Influence,
        influenceSentences(study, influences(study, readings, request.property, {.test = request.test})));
    say(told, Kind::OfTheTest, methodAnswers(study, readings, request.test, notation));
    if (request.test == Method::ServiceTrial)
        say(told, Kind::Service,
            serviceTies(study, readings, request.all, workshop, request.bought, notation));
    if (request.withSchools) {
        say(told, Kind::Schools, otherSchools(study, comparison));
        say(told, Kind::Advice, adviceText(study, comparison));
    }
    say(told, Kind::Joined, joinedStudies(study, comparison, request.test, request.all, notation));
    say(told, Kind::OwnAverage, ownAverageSentences(study, comparison, request.test, request.all, notation));
    return told;
}

} // namespace inchpeg
