// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/answers_presenter.h"

#include "core/compare/adviser.h"
#include "core/compare/answers.h"
#include "core/compare/influence.h"
#include "core/compare/method_answers.h"
#include "core/compare/schools.h"
#include "core/compare/stop_advice.h"
#include "core/decide/clean_and_strong.h"
#include "core/decide/own_averages.h"
#include "core/decide/sheet_values.h"
#include "core/logbook/log_answers.h"
#include "core/logbook/rail_costs.h"

#include <QtConcurrentRun>

namespace inchpeg::app
{

/// Copies: the session goes on while they are worked with.
struct AnswersPresenter::Asked {
    Study study;
    PieceReadings readings;
    Property property;
    std::optional<Method> test;
    Notation notation;
    Workshop workshop;
    bool withSchools = false; ///< the table of tests is shown
    std::string path;
    std::shared_ptr<const ProjectResults> others; ///< null where they are to be read
};

AnswersPresenter::Answered AnswersPresenter::workOut(const Asked &asked)
{
    const StudyComparison comparison =
        compareStudy(asked.study, asked.readings, asked.property,
                     {.test = asked.test,
                      .detail = asked.withSchools ? ComparisonDetail::Tests : ComparisonDetail::Sentences});
    QStringList answers;
    if (const std::optional<StopAdvice> advice = stopAdvice(asked.study, comparison))
        answers << QString::fromStdString(stopAdviceText(asked.study, comparison, *advice, asked.notation));
    for (const std::string &answer : questionAnswers(asked.study, comparison, asked.notation))
        answers << QString::fromStdString(answer);
    const Method test = asked.test.value_or(methodOf(asked.study));
    if (const std::string least = leastCostAnswer(asked.study, mayBeBest(asked.study, comparison), test,
                                                  asked.workshop, asked.notation);
        !least.empty())
        answers << QString::fromStdString(least);
    for (const LogAnswer &answer : logAnswers(asked.study, comparison, asked.notation)) {
        if (answer.changesClaims || asked.withSchools)
            answers << QString::fromStdString(answer.text);
    }
    answers << QString::fromStdString(
        cleanAndStrongAnswer(asked.study, asked.readings, asked.workshop, asked.notation));
    for (const std::string &answer :
         sheetSentences(asked.study, comparison, test, asked.workshop, asked.notation))
        answers << QString::fromStdString(answer);
    const std::vector<Influence> hanging =
        influences(asked.study, asked.readings, asked.property, {.test = asked.test});
    for (const std::string &answer : influenceSentences(asked.study, hanging))
        answers << QString::fromStdString(answer);
    for (const std::string &answer : methodAnswers(asked.study, asked.readings, test, asked.notation))
        answers << QString::fromStdString(answer);
    if (const std::string schools = asked.withSchools ? otherSchools(asked.study, comparison) : std::string();
        !schools.empty())
        answers << QString::fromStdString(schools);
    if (asked.withSchools)
        answers << QString::fromStdString(adviceText(asked.study, comparison));
    std::shared_ptr<const ProjectResults> others = asked.others;
    if (others == nullptr) {
        Result<ProjectFile> project = ProjectFile::openForReading(asked.path);
        Result<ProjectResults> all =
            project ? readProjectResults(*project) : Result<ProjectResults>(project.error());
        others = std::make_shared<const ProjectResults>(all ? std::move(*all) : ProjectResults{});
    }
    for (const std::string &answer :
         ownAverageSentences(asked.study, comparison, test, others->results(), asked.notation))
        answers << QString::fromStdString(answer);
    answers.removeAll(QString());
    return {answers, others};
}

AnswersPresenter::AnswersPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
}

AnswersPresenter::~AnswersPresenter()
{
    if (m_watcher)
        m_watcher->waitForFinished();
}

void AnswersPresenter::refresh()
{
    const std::optional<Property> property = m_session.shownProperty();
    const bool isAsked = m_session.study() != nullptr && property && m_session.lens() == Lens::Compare &&
                         !m_session.isResponseTableShown() && !m_session.isReading();
    m_isOutOfDate = m_watcher != nullptr;
    if (!isAsked) {
        m_answers.clear();
        emit changed();
        return;
    }
    if (m_watcher)
        return; // take() asks again
    if (const QString key = othersKey(); key != m_othersKey) {
        m_othersKey = key;
        m_others.reset();
    }
    m_watcher = std::make_unique<QFutureWatcher<Answered>>();
    connect(m_watcher.get(), &QFutureWatcherBase::finished, this, &AnswersPresenter::take);
    m_watcher->setFuture(QtConcurrent::run(workOut, Asked{*m_session.study(), m_session.readings(), *property,
                                                          m_session.shownTest(), m_session.notation(),
                                                          m_session.workshop(), m_session.isTestTableShown(),
                                                          m_session.projectPath().toStdString(), m_others}));
}

/// The other studies change only while one of them is on the rack.
QString AnswersPresenter::othersKey() const
{
    QString key = m_session.projectPath() + QLatin1Char(' ') + QString::number(m_session.study()->id.value);
    for (const StudyHeader &header : m_session.studies())
        key += QStringLiteral(" %1").arg(header.id.value);
    return key;
}

void AnswersPresenter::take()
{
    Answered answered = m_watcher->result();
    m_watcher.release()->deleteLater(); // it is the sender of the signal that brought us here
    if (m_isOutOfDate) {
        refresh();
        return;
    }
    m_answers = std::move(answered.answers);
    m_others = std::move(answered.others);
    emit changed();
}

} // namespace inchpeg::app
