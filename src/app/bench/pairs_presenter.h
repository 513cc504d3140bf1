// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/blind_round.h"
#include "core/logbook/blind_pairs.h"

#include <QObject>

namespace inchpeg::app
{

/// Pieces meet two at a time; see BlindRound.
struct PairsRound {
    using Value = BlindPairs;
    static constexpr Method kMethod = Method::FeltPairs;
    static constexpr const char *kSetting = "pairs_";
    static constexpr const char *kGauge = "pairs by feel, blind";
    static Value draw(const std::vector<PieceId> &pieces, const MethodSettings &settings, std::uint64_t seed);
    static bool isOver(const Value &round) { return !nextPair(round); }
    static std::vector<PieceId> pieces(const Value &round) { return piecesOf(round); }
    static std::vector<std::string> cells(const Value &round, PieceId piece);
    static void keepOnly(Value &round, const std::function<bool(PieceId)> &isStillThere)
    {
        inchpeg::keepOnly(round, isStillThere);
    }
    static std::string text(const Value &round) { return blindPairsText(round); }
    static Result<Value> fromText(std::string_view text) { return blindPairsFromText(text); }
};

/// Pairs by feel, blind: two labels are named, and the person says which piece is the stronger.
class PairsPresenter : public QObject
{
    Q_OBJECT
public:
    PairsPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    /// waiting: pieces of the test without a record.
    void setWaiting(const std::vector<PieceId> &waiting);
    [[nodiscard]] bool isUnderWay() const { return m_round.isUnderWay(); }
    [[nodiscard]] bool hasWork() const { return isUnderWay() || m_round.waiting().size() >= 2; }

    /// The labels of the two, large; empty before the round and after it.
    [[nodiscard]] QString leftCode() const;
    [[nodiscard]] QString rightCode() const;
    [[nodiscard]] QString progressText() const;
    [[nodiscard]] QString nextAction() const;
    [[nodiscard]] bool canTakeBack() const { return isUnderWay() && pairsAnswered(*m_round.round()) > 0; }

    void begin();
    bool answer(PairAnswer answer);
    /// The last pair is asked for once more.
    void takeBack();

signals:
    void changed();

private:
    [[nodiscard]] QString code(bool isLeft) const;

    ProjectSession &m_session;
    BlindRound<PairsRound> m_round;
};

} // namespace inchpeg::app
