// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/feel_presenter.h"

#include "core/planning/lab_code.h"

#include <fmt/format.h>

#include <algorithm>
#include <random>

namespace inchpeg::app
{

FeelPresenter::FeelPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_keeper(keeper)
{
}

std::string FeelPresenter::settingName() const
{
    return fmt::format("blind_{}", m_study.value);
}

void FeelPresenter::setWaiting(const std::vector<PieceId> &waiting)
{
    const StudyId shown = m_session.study() == nullptr ? StudyId{} : m_session.study()->id;
    m_waiting = waiting;
    if (shown != m_study) {
        m_study = shown;
        m_isOver = false;
        m_ended.clear();
        readKept();
    }
    const auto waits = [&](PieceId piece) {
        return std::find(waiting.begin(), waiting.end(), piece) != waiting.end();
    };
    if (!m_ended.empty() && std::none_of(m_ended.begin(), m_ended.end(), waits)) {
        m_ended.clear();
        m_session.tell(m_session.project().setSetting(settingName(), ""));
    }
    if (!m_grading || m_keeper.isBusy() || m_session.isForReading())
        return;
    keepOnly(*m_grading, waits);
    if (!nextGrade(*m_grading))
        finish();
}

void FeelPresenter::readKept()
{
    m_grading.reset();
    if (!m_session.hasProject() || m_session.study() == nullptr)
        return;
    const Result<std::optional<std::string>> kept = m_session.project().setting(settingName());
    if (!kept || !*kept || (*kept)->empty())
        return;
    Result<BlindGrading> grading = blindGradingFromText(**kept);
    if (m_session.tell(grading ? ok() : Status(grading.error())))
        m_grading = std::move(*grading);
}

bool FeelPresenter::keep(const BlindGrading &grading)
{
    if (m_session.isForReading()) {
        emit told(tr("The project is open for reading: nothing can be graded."));
        return false;
    }
    return m_session.tell(m_session.project().setSetting(settingName(), blindGradingText(grading)));
}

void FeelPresenter::begin()
{
    if (isUnderWay() || m_waiting.empty())
        return;
    BlindGrading grading = drawBlindGrading(m_waiting, std::random_device{}());
    if (!keep(grading))
        return;
    m_grading = std::move(grading);
    m_isOver = false;
    m_session.selectPiece({}); // no rail is pointed at
    emit changed();
}

QString FeelPresenter::code() const
{
    const std::optional<GivenGrade> next = m_grading ? nextGrade(*m_grading) : std::nullopt;
    return next ? QString::fromStdString(labCode(m_session.workshop().labPrefix, next->piece)) : QString();
}

QString FeelPresenter::progressText() const
{
    if (!m_grading)
        return m_isOver ? tr("All are graded. What they were stands in Compare (key 5).")
                        : tr("%n to grade, each twice", nullptr, static_cast<int>(m_waiting.size()));
    const std::optional<GivenGrade> next = nextGrade(*m_grading);
    return tr("%1 of %2 · %3")
        .arg(m_grading->given.size() + 1)
        .arg(gradesWanted(*m_grading))
        .arg(next && next->isAgain ? tr("the second time round") : tr("the first time round"));
}

QString FeelPresenter::nextAction() const
{
    if (!m_grading)
        return tr("Stick the labels on, mix the pieces, and begin (Space). Better still, have somebody hand "
                  "them to "
                  "you.");
    return tr("Find the piece with this code and grade it: keys 1 to 5.");
}

bool FeelPresenter::grade(int grade)
{
    const std::optional<GivenGrade> next = m_grading ? nextGrade(*m_grading) : std::nullopt;
    if (!next || m_keeper.isBusy())
        return false;
    BlindGrading after = *m_grading;
    after.given.push_back({next->piece, next->isAgain, grade});
    if (!keep(after))
        return false;
    m_grading = std::move(after);
    if (!nextGrade(*m_grading))
        finish();
    emit changed();
    return true;
}

void FeelPresenter::takeBack()
{
    if (!canTakeBack())
        return;
    BlindGrading before = *m_grading;
    before.given.pop_back();
    if (keep(before))
        m_grading = std::move(before);
    emit changed();
}

/// Both grades of each piece become its record. The round is kept until they have: a program that ends in
/// between does the rest when it is opened again.
void FeelPresenter::finish()
{
    const BlindGrading done = *m_grading;
    bool areAllKept = true;
    for (const PieceId piece : done.first) {
        const BothGrades both = gradesOf(done, piece);
        const TypedRow row{{std::to_string(both.first), std::to_string(both.again)}, m_session.now()};
        areAllKept = m_keeper.keepTyped(piece, {row}, "by feel, blind", tr("graded by feel")) && areAllKept;
    }
    if (!areAllKept)
        return;
    m_grading.reset();
    m_isOver = true;
    m_ended = done.first;
    if (m_ended.empty()) // all were kept before the program ended
        m_session.tell(m_session.project().setSetting(settingName(), ""));
}

} // namespace inchpeg::app
