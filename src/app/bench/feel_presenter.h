// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/blind_round.h"
#include "core/logbook/blind_grading.h"

#include <QObject>

namespace inchpeg::app
{

/// Every piece is graded twice; see BlindRound.
struct GradingRound {
    using Value = BlindGrading;
    static constexpr Method kMethod = Method::ByFeel;
    static constexpr const char *kSetting = "blind_";
    static constexpr const char *kGauge = "by feel, blind";
    static Value draw(const std::vector<PieceId> &pieces, const MethodSettings &, std::uint64_t seed)
    {
        return drawBlindGrading(pieces, seed);
    }
    static bool isOver(const Value &round) { return !nextGrade(round); }
    static std::vector<PieceId> pieces(const Value &round) { return round.first; }
    static std::vector<std::string> cells(const Value &round, PieceId piece);
    static void keepOnly(Value &round, const std::function<bool(PieceId)> &isStillThere)
    {
        inchpeg::keepOnly(round, isStillThere);
    }
    static std::string text(const Value &round) { return blindGradingText(round); }
    static Result<Value> fromText(std::string_view text) { return blindGradingFromText(text); }
};

/// Grading by feel, blind: only a label's code is named, in a drawn order, and every piece comes twice. The
/// rails are told once all are given.
class FeelPresenter : public QObject
{
    Q_OBJECT
public:
    FeelPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    /// waiting: pieces of the test without a record.
    void setWaiting(const std::vector<PieceId> &waiting);
    [[nodiscard]] bool isUnderWay() const { return m_round.isUnderWay(); }
    [[nodiscard]] bool hasWork() const { return isUnderWay() || !m_round.waiting().empty(); }

    /// The label of the piece that is graded now, large; empty before the round and after it.
    [[nodiscard]] QString code() const;
    [[nodiscard]] QString progressText() const;
    [[nodiscard]] QString nextAction() const;
    [[nodiscard]] bool canTakeBack() const { return isUnderWay() && !m_round.round()->given.empty(); }

    void begin();
    bool grade(int grade);
    /// The last grade is asked for once more.
    void takeBack();

signals:
    void changed();

private:
    ProjectSession &m_session;
    BlindRound<GradingRound> m_round;
};

} // namespace inchpeg::app
