// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/begin/begin_presenter.h"

#include "disk/file_bytes.h"

#include <fmt/format.h>

namespace inchpeg::app
{

BeginPresenter::BeginPresenter(ProjectSession &session, QObject *parent) : QObject(parent), m_session(session)
{
}

void BeginPresenter::lookAt(const QStringList &paths)
{
    if (paths.isEmpty())
        return;
    m_request = {};
    for (const QString &path : paths)
        m_request.paths.push_back(path.toStdString());
    m_parts.clear();
    m_columns.clear();
    m_found.reset();
    lookAgain();
}

void BeginPresenter::lookAtText(const QString &text)
{
    if (text.trimmed().isEmpty()) {
        m_session.tell(invalidArgument("there is no table to paste: copy one in a spreadsheet first"));
        return;
    }
    m_pasted = std::make_unique<QTemporaryDir>();
    const QString path = m_pasted->filePath(QStringLiteral("pasted table.tsv"));
    if (m_session.tell(writeFileBytes(path.toStdString(), text.toStdString())))
        lookAt({path});
}

void BeginPresenter::stop()
{
    m_looking.forget();
    m_found.reset();
    m_problem.clear();
    emit changed();
}

void BeginPresenter::lookAgain()
{
    m_isOutOfDate = m_looking.isRunning();
    if (m_isOutOfDate)
        return; // take() looks again
    m_problem.clear();
    m_request.factors.clear();
    for (const auto &[number, factor] : m_parts)
        m_request.factors.push_back(factor);
    m_request.columns.clear();
    for (const auto &[number, column] : m_columns)
        m_request.columns.push_back(column);
    m_looking.begin(
        "begin", [request = m_request] { return findStudy(request); },
        [this](Result<FoundStudy> result) { take(std::move(result)); });
    emit changed();
}

void BeginPresenter::take(Result<FoundStudy> result)
{
    if (m_isOutOfDate) {
        lookAgain();
        return;
    }
    if (result) {
        m_found = std::move(*result);
    } else {
        m_found.reset();
        m_problem = QString::fromStdString(errorSentence(result.error()));
    }
    emit changed();
}

QStringList BeginPresenter::openQuestions() const
{
    QStringList questions;
    if (!m_found)
        return questions;
    for (const OpenQuestion &question : m_found->proposal.open)
        questions << (question.choices.empty()
                          ? tr("To be said: %1.").arg(QString::fromStdString(question.about))
                          : tr("To be said: %1: %2.")
                                .arg(QString::fromStdString(question.about),
                                     QString::fromStdString(
                                         fmt::format("{}", fmt::join(question.choices, "; ")))));
    return questions;
}

QStringList BeginPresenter::remarks() const
{
    QStringList remarks;
    if (!m_found)
        return remarks;
    for (const std::string &assumed : m_found->assumed)
        remarks << QString::fromStdString(assumed);
    for (const StudyProposal::Waiting &waiting : m_found->proposal.waiting) {
        if (m_found->results)
            remarks << QString::fromStdString(waiting.why);
        else
            remarks << tr("%1 is left out: %2")
                           .arg(QString::fromStdString(m_found->names[waiting.source]),
                                QString::fromStdString(waiting.why));
    }
    for (const FoundStudy::Refused &refused : m_found->refused)
        remarks << tr("%1 is left out: %2")
                       .arg(QString::fromStdString(fileNameOf(refused.file)),
                            QString::fromStdString(errorSentence(refused.why)));
    return remarks;
}

bool BeginPresenter::canMake() const
{
    return m_found && !isLooking() && m_found->proposal.open.empty() && !m_found->proposal.rails.empty();
}

void BeginPresenter::setTest(Method test)
{
    if (m_found && m_request.test == test)
        return;
    m_request.test = test;
    m_columns.clear(); // they are properties of another test
    lookAgain();
}

void BeginPresenter::setPart(std::size_t number, const QString &name, const QString &unit)
{
    m_parts[number] = {std::to_string(number), name.trimmed().toStdString(), unit.trimmed().toStdString()};
    m_columns.erase(number);
    lookAgain();
}

void BeginPresenter::setColumn(std::size_t number, const QString &meaning, const QString &unit)
{
    m_columns[number] = {std::to_string(number), meaning.toStdString(), unit.toStdString()};
    m_parts.erase(number);
    lookAgain();
}

QString BeginPresenter::proposedQuestion() const
{
    if (!m_found || m_found->proposal.factors.empty())
        return tr("What differs?");
    QStringList factors;
    for (const Factor &factor : m_found->proposal.factors)
        factors << QString::fromStdString(factor.name);
    return factors.size() == 1 ? tr("What does %1 change?").arg(factors.front())
                               : tr("What do %1 change?").arg(factors.join(tr(" and ")));
}

bool BeginPresenter::make(const QString &question)
{
    if (!canMake() || !m_session.hasProject())
        return false;
    if (question.trimmed().isEmpty())
        return m_session.tell(invalidArgument("write the question that these pieces answer"));
    if (!m_session.tell(m_session.addFound(*m_found, question.trimmed())))
        return false;
    m_found.reset();
    m_pasted.reset();
    emit changed();
    return true;
}

} // namespace inchpeg::app
