// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/plan_state.h"
#include "service/beside/task.h"
#include "service/practice.h"

#include <QObject>

namespace inchpeg::app
{

/// A project for practice: its pieces are virtual, what is true of them is hidden, and a person gives a
/// verdict before it is shown.
class PracticePresenter : public QObject
{
    Q_OBJECT
public:
    PracticePresenter(ProjectSession &session, PlanState &plan, QObject *parent = nullptr);

    /// Makes the open project one for practice, with a study to begin with.
    Status begin(std::uint64_t seed);
    [[nodiscard]] bool isPractice() const { return m_seed.has_value(); }
    /// True where virtual pieces of the shown test can be broken.
    [[nodiscard]] bool canBreak() const;
    /// Breaks virtual pieces: one of each rail, or all that wait. Their records come into the project as
    /// files do.
    void breakPieces(bool all);
    /// What the piece bears, for the simulated rig; nothing outside a practice project.
    [[nodiscard]] std::optional<double> load_N(const Piece &piece) const;

    struct Row {
        ConditionId rail;
        QString title;
        PracticeVerdict said = PracticeVerdict::CannotTell;
        QString truth; ///< what was true, once it is shown
    };
    [[nodiscard]] std::vector<Row> rows() const;
    [[nodiscard]] static QString verdictText(PracticeVerdict verdict);
    void say(ConditionId rail, PracticeVerdict verdict);
    [[nodiscard]] bool isRevealed() const { return m_isRevealed; }
    /// The verdict is kept, and the truth is shown from then on.
    void reveal();
    /// What was true, what the study cost, and what other plans would have found; empty before.
    [[nodiscard]] QString summary() const;

signals:
    void changed();

private:
    void refresh();
    void readVerdict();
    [[nodiscard]] PracticeTruth truth() const;
    [[nodiscard]] std::vector<PieceId> waiting(bool all) const;
    void link(const std::vector<PieceId> &pieces, const KeptRawFiles &kept);
    void askOtherPlans();

    ProjectSession &m_session;
    PlanState &m_plan;
    QString m_path; ///< of the project that the seed is of
    std::optional<std::uint64_t> m_seed;
    StudyId m_study; ///< that the verdict is of
    std::map<ConditionId, PracticeVerdict> m_said;
    bool m_isRevealed = false;
    std::vector<PracticePlan> m_plans;
    Task<std::vector<PracticePlan>> m_asking;
};

} // namespace inchpeg::app
