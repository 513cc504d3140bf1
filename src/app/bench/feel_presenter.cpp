// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/feel_presenter.h"

#include "core/planning/lab_code.h"

namespace inchpeg::app
{

std::vector<std::string> GradingRound::cells(const Value &round, PieceId piece)
{
    const BothGrades both = gradesOf(round, piece);
    return {std::to_string(both.first), std::to_string(both.again)};
}

FeelPresenter::FeelPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_round(session, keeper)
{
}

void FeelPresenter::setWaiting(const std::vector<PieceId> &waiting)
{
    m_round.setWaiting(waiting, tr("graded by feel"));
}

void FeelPresenter::begin()
{
    if (m_round.begin())
        emit changed();
}

QString FeelPresenter::code() const
{
    const std::optional<GivenGrade> next = isUnderWay() ? nextGrade(*m_round.round()) : std::nullopt;
    return next ? QString::fromStdString(blindCode(m_session.workshop().labPrefix, next->piece)) : QString();
}

QString FeelPresenter::progressText() const
{
    if (!isUnderWay())
        return m_round.wasEnded()
                   ? tr("All are graded. What they were stands in Compare (Ctrl+5).")
                   : tr("%n to grade, each twice", nullptr, static_cast<int>(m_round.waiting().size()));
    const BlindGrading &round = *m_round.round();
    const std::optional<GivenGrade> next = nextGrade(round);
    return tr("%1 of %2 · %3")
        .arg(round.given.size() + 1)
        .arg(gradesWanted(round))
        .arg(next && next->isAgain ? tr("the second time round") : tr("the first time round"));
}

QString FeelPresenter::nextAction() const
{
    if (!isUnderWay())
        return tr("Stick the labels on, mix the pieces, and begin (Space). Better still, have somebody hand "
                  "them to "
                  "you.");
    return tr("Find the piece with this code and grade it: keys 1 to 5.");
}

bool FeelPresenter::grade(int grade)
{
    const std::optional<GivenGrade> next = isUnderWay() ? nextGrade(*m_round.round()) : std::nullopt;
    if (!next)
        return false;
    BlindGrading after = *m_round.round();
    after.given.push_back({next->piece, next->isAgain, grade});
    const bool isTaken = m_round.answer(std::move(after), tr("graded by feel"));
    if (isTaken)
        emit changed();
    return isTaken;
}

void FeelPresenter::takeBack()
{
    if (!canTakeBack())
        return;
    BlindGrading before = *m_round.round();
    before.given.pop_back();
    m_round.takeBack(std::move(before));
    emit changed();
}

} // namespace inchpeg::app
