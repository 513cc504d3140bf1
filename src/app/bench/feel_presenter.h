// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"
#include "core/logbook/blind_grading.h"

#include <QObject>

#include <optional>

namespace inchpeg::app
{

/// Grading by feel, blind: only a label's code is named, in a drawn order, and every piece comes twice. Each
/// grade is in the project before the next is asked for; the rails are told once all are given.
class FeelPresenter : public QObject
{
    Q_OBJECT
public:
    FeelPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    [[nodiscard]] static bool isFor(Method method) { return method == Method::ByFeel; }
    /// waiting: pieces of the test without a record.
    void setWaiting(const std::vector<PieceId> &waiting);
    [[nodiscard]] bool isUnderWay() const { return m_grading.has_value(); }
    [[nodiscard]] bool hasWork() const { return isUnderWay() || !m_waiting.empty(); }

    /// The label of the piece that is graded now, large; empty before the round and after it.
    [[nodiscard]] QString code() const;
    [[nodiscard]] QString progressText() const;
    [[nodiscard]] QString nextAction() const;
    [[nodiscard]] bool canTakeBack() const { return isUnderWay() && !m_grading->given.empty(); }

    void begin();
    bool grade(int grade);
    /// The last grade is asked for once more.
    void takeBack();

signals:
    void changed();
    void told(const QString &sentence);

private:
    bool keep(const BlindGrading &grading);
    void finish();
    void readKept();
    [[nodiscard]] std::string settingName() const;

    ProjectSession &m_session;
    BenchKeeper &m_keeper;
    std::vector<PieceId> m_waiting;
    StudyId m_study{};
    std::optional<BlindGrading> m_grading; ///< the round that is under way
    std::vector<PieceId> m_ended;          ///< whose grades are on their way into their records
    bool m_isOver = false;                 ///< a round was ended since the study was opened
};

} // namespace inchpeg::app
