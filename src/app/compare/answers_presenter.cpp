// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/answers_presenter.h"

#include "core/decide/study_answers.h"

#include <QDateTime>
#include <QFileInfo>

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
    Keeping keeping = Keeping::No;
    std::shared_ptr<const Earlier> earlier; ///< null where it is to be read
};

AnswersPresenter::Answered AnswersPresenter::workOut(const Asked &asked)
{
    const StudyComparison comparison =
        compareStudy(asked.study, asked.readings, asked.property,
                     {.test = asked.test,
                      .detail = asked.withSchools ? ComparisonDetail::Tests : ComparisonDetail::Sentences});
    std::shared_ptr<const Earlier> earlier = asked.earlier;
    if (earlier == nullptr) {
        Result<ProjectFile> project = ProjectFile::openForReading(asked.path);
        Result<ProjectResults> own = project ? readResultsAround(*project, asked.study.id, asked.keeping)
                                             : Result<ProjectResults>(project.error());
        earlier = std::make_shared<const Earlier>(
            Earlier{own ? std::move(*own) : ProjectResults{},
                    readLibrary(asked.workshop, asked.path, headerOf(asked.study).tests)});
    }
    const std::vector<StudyResults> all = earlier->library.beside(earlier->own);
    const Method test = asked.test.value_or(methodOf(asked.study));
    QStringList answers;
    for (const Sentence &answer : studyAnswers({.study = &asked.study,
                                  .readings = &asked.readings,
                                  .property = asked.property,
                                  .test = test,
                                  .workshop = &asked.workshop,
                                  .all = all,
                                  .bought = earlier->own.bought,
                                  .withSchools = asked.withSchools},
                                               comparison, asked.notation))
        answers << QString::fromStdString(answer.text);
    for (const std::string &problem : earlier->library.problems)
        answers << QString::fromStdString(problem);
    return {answers, nextLevels(asked.study, comparison, asked.notation),
            averageOfRails(asked.study, ownAverages(asked.study, test, asked.property, all)), earlier};
}

AnswersPresenter::AnswersPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
}

void AnswersPresenter::refresh()
{
    const std::optional<Property> property = m_session.shownProperty();
    const bool isAsked = m_session.study() != nullptr && property && m_session.lens() == Lens::Compare &&
                         !m_session.isResponseTableShown() && !m_session.isReading();
    m_isOutOfDate = m_asking.isRunning();
    if (!isAsked) {
        m_answers.clear();
        m_next.reset();
        m_averages.clear();
        emit changed();
        return;
    }
    if (m_asking.isRunning())
        return; // take() asks again
    if (const QString key = earlierKey(); key != m_earlierKey) {
        m_earlierKey = key;
        m_earlier.reset();
    }
    m_asking.begin(
        "answers",
        [asked = Asked{*m_session.study(), m_session.readings(), *property, m_session.shownTest(),
                       m_session.notation(), m_session.workshop(), m_session.isTestTableShown(),
                       m_session.projectPath().toStdString(),
                       m_session.isForReading() ? Keeping::No : Keeping::Held, m_earlier}] {
            return workOut(asked);
        },
        [this](Result<Answered> result) { take(std::move(result)); });
}

/// The other studies change only while one of them is on the rack, other projects only elsewhere.
QString AnswersPresenter::earlierKey() const
{
    QString key = m_session.projectPath() + QLatin1Char(' ') + QString::number(m_session.study()->id.value);
    for (const StudyHeader &header : m_session.studies())
        key += QStringLiteral(" %1").arg(header.id.value);
    for (const Method test : headerOf(*m_session.study()).tests)
        key += QStringLiteral(" %1").arg(static_cast<int>(test));
    for (const std::string &path : m_session.workshop().library) {
        const QFileInfo file(QString::fromStdString(path));
        key += QStringLiteral("\n%1 %2").arg(file.filePath()).arg(file.lastModified().toMSecsSinceEpoch());
    }
    return key;
}

void AnswersPresenter::take(Result<Answered> result)
{
    Answered answered;
    if (m_session.tell(result ? ok() : Status(result.error())))
        answered = std::move(*result);
    if (m_isOutOfDate) {
        refresh();
        return;
    }
    m_answers = std::move(answered.answers);
    m_next = std::move(answered.next);
    m_averages = std::move(answered.averages);
    m_earlier = std::move(answered.earlier);
    emit changed();
}

bool AnswersPresenter::planNext()
{
    if (!m_next || m_session.study() == nullptr)
        return false;
    const Study like = *m_session.study(); // another one is on the rack in a moment
    const NextLevels next = *m_next;
    const QString factor = QString::fromStdString(like.factors.front().name);
    if (!m_session.tell(m_session.addStudy(tr("Which %1 is best, more closely?").arg(factor))))
        return false;
    const bool isPlanned = m_session.tryEdit(tr("plan the next levels"), [&](Study &study) {
        return planNextLevels(study, like, next, m_session.ids());
    });
    m_session.setLens(Lens::Plan);
    return isPlanned;
}

} // namespace inchpeg::app
