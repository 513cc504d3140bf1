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

std::vector<std::string> studyAnswers(const AnswersRequest &request, const StudyComparison &comparison,
                                      const Notation &notation)
{
    const Study &study = *request.study;
    const PieceReadings &readings = *request.readings;
    const Workshop &workshop = *request.workshop;
    std::vector<std::string> answers;
    const auto add = [&answers](std::string sentence) {
        if (!sentence.empty())
            answers.push_back(std::move(sentence));
    };
    const auto addAll = [&](std::vector<std::string> sentences) {
        for (std::string &sentence : sentences)
            add(std::move(sentence));
    };
    if (const std::optional<StopAdvice> advice = stopAdvice(study, comparison))
        add(stopAdviceText(study, comparison, *advice, notation));
    addAll(questionAnswers(study, comparison, notation));
    add(leastCostAnswer(study, mayBeBest(study, comparison), request.test, workshop, notation));
    if (const std::optional<NextLevels> next = nextLevels(study, comparison, notation))
        add(next->sentence);
    for (LogAnswer &answer : logAnswers(study, comparison, notation)) {
        if (answer.changesClaims || request.withSchools)
            add(std::move(answer.text));
    }
    add(cleanAndStrongAnswer(study, readings, workshop, notation));
    addAll(sheetSentences(study, comparison, request.test, workshop, notation));
    addAll(influenceSentences(study, influences(study, readings, request.property, {.test = request.test})));
    addAll(methodAnswers(study, readings, request.test, notation));
    if (request.test == Method::ServiceTrial)
        addAll(serviceTies(study, readings, request.all, workshop, request.bought, notation));
    if (request.withSchools) {
        add(otherSchools(study, comparison));
        add(adviceText(study, comparison));
    }
    addAll(joinedStudies(study, comparison, request.test, request.all, notation));
    addAll(ownAverageSentences(study, comparison, request.test, request.all, notation));
    return answers;
}

} // namespace inchpeg
