// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/pairs_presenter.h"

#include "core/planning/lab_code.h"

namespace inchpeg::app
{

PairsRound::Value PairsRound::draw(const std::vector<PieceId> &pieces, const MethodSettings &settings,
                                   std::uint64_t seed)
{
    return drawBlindPairs(pieces, settings.word("manner") == "broken" ? PairManner::Broken : PairManner::Bent,
                          seed);
}

std::vector<std::string> PairsRound::cells(const Value &round, PieceId piece)
{
    const PairCounts counts = countsOf(round, piece);
    std::vector<std::string> cells{std::to_string(counts.won), std::to_string(counts.even),
                                   std::to_string(counts.lost)};
    if (counts.askedAgain > 0) {
        cells.push_back(std::to_string(counts.askedAgain));
        cells.push_back(std::to_string(counts.changed));
    }
    return cells;
}

PairsPresenter::PairsPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent)
    : QObject(parent), m_session(session), m_round(session, keeper)
{
}

void PairsPresenter::setWaiting(const std::vector<PieceId> &waiting)
{
    m_round.setWaiting(waiting, tr("compared in pairs"));
}

void PairsPresenter::begin()
{
    if (m_round.begin())
        emit changed();
}

QString PairsPresenter::code(bool isLeft) const
{
    const std::optional<std::size_t> next = isUnderWay() ? nextPair(*m_round.round()) : std::nullopt;
    if (!next)
        return {};
    const AskedPair &pair = m_round.round()->asked[*next];
    return QString::fromStdString(blindCode(m_session.workshop().labPrefix, isLeft ? pair.left : pair.right));
}

QString PairsPresenter::leftCode() const
{
    return code(true);
}

QString PairsPresenter::rightCode() const
{
    return code(false);
}

QString PairsPresenter::progressText() const
{
    const std::size_t waiting = m_round.waiting().size();
    if (!isUnderWay() && m_round.wasEnded())
        return waiting == 0 ? tr("All pairs are answered. What they were stands in Compare (Ctrl+5).")
                            : tr("The pairs are answered; %n piece had no partner and is left.", nullptr,
                                 static_cast<int>(waiting));
    if (!isUnderWay())
        return waiting == 1 ? tr("One piece alone makes no pair.")
                            : tr("%n pieces to compare, two at a time", nullptr, static_cast<int>(waiting));
    const BlindPairs &round = *m_round.round();
    const std::optional<std::size_t> next = nextPair(round);
    return tr("%1 of %2%3")
        .arg(pairsAnswered(round) + 1)
        .arg(round.asked.size())
        .arg(next && round.asked[*next].isAgain ? tr(" · once more, the other way round") : QString());
}

QString PairsPresenter::nextAction() const
{
    if (!isUnderWay())
        return tr("Stick the labels on, mix the pieces, and begin (Space). Better still, have somebody hand "
                  "them to you.");
    return tr("One in each hand: which is the stronger? Left, right, or down for no difference.");
}

bool PairsPresenter::answer(PairAnswer answer)
{
    const std::optional<std::size_t> next = isUnderWay() ? nextPair(*m_round.round()) : std::nullopt;
    if (!next)
        return false;
    BlindPairs after = *m_round.round();
    after.asked[*next].answer = answer;
    const bool isTaken = m_round.answer(std::move(after), tr("compared in pairs"));
    if (isTaken)
        emit changed();
    return isTaken;
}

void PairsPresenter::takeBack()
{
    if (!canTakeBack())
        return;
    BlindPairs before = *m_round.round();
    before.asked[nextPair(before).value_or(before.asked.size()) - 1].answer.reset();
    m_round.takeBack(std::move(before));
    emit changed();
}

} // namespace inchpeg::app
