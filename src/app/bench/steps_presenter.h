// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_keeper.h"
#include "core/model/step_levels.h"

#include <QObject>

#include <map>

namespace inchpeg::app
{

/// A falling weight, or a torque put on step by step: which level comes next, and whether the piece held or
/// failed. Each step is in the project before the next one.
class StepsPresenter : public QObject
{
    Q_OBJECT
public:
    StepsPresenter(ProjectSession &session, BenchKeeper &keeper, QObject *parent = nullptr);

    [[nodiscard]] static bool isFor(Method method) { return factsOf(method).bench == BenchMode::Steps; }
    /// A weight falls: it has a mass, and may go up and down. Else a torque is put on.
    [[nodiscard]] bool isByWeight() const;
    void setPiece(PieceId piece);
    /// Its record was set aside: it begins anew.
    void forget(PieceId piece)
    {
        m_trials.erase(piece);
        m_files.erase(piece);
    }
    [[nodiscard]] bool isUnderWay(PieceId piece) const;
    /// The step that comes next, in mm or N·m; nothing where the piece is through.
    [[nodiscard]] std::optional<double> nextStep() const;
    [[nodiscard]] QString nextText() const; ///< "450 mm", large
    [[nodiscard]] QString
    energyText() const; ///< "1 kg from 450 mm: 4.41 J"; a sentence where no mass is said
    [[nodiscard]] QString nextAction() const;
    [[nodiscard]] QString trialsText() const; ///< "held 350 mm · held 400 mm · failed 450 mm"
    [[nodiscard]] StepPlan plan() const;
    /// Levels with or without a unit. False, with a sentence told, for what makes no plan.
    bool setPlan(StepRule rule, const QString &start, const QString &step);
    bool setMass(const QString &mass);
    [[nodiscard]] QString stepText(double level) const;
    [[nodiscard]] QString massText() const;

    /// What the step that was asked for did.
    bool say(bool hasFailed);

signals:
    void changed();
    void told(const QString &sentence);

private:
    struct Ladder;
    [[nodiscard]] const Ladder &ladder() const;
    [[nodiscard]] std::optional<double> lastLevelOf(const PieceReading &reading) const;
    [[nodiscard]] const Piece *piece() const;
    [[nodiscard]] const StudyTest *test() const;
    [[nodiscard]] std::vector<StepTrial> trials() const;
    [[nodiscard]] std::vector<StepTrial> trialsOfRail() const;
    [[nodiscard]] std::optional<double> mass_kg() const;
    void followProject();

    ProjectSession &m_session;
    BenchKeeper &m_keeper;
    PieceId m_piece;
    std::map<PieceId, std::vector<StepTrial>> m_trials; ///< of each piece that was tested since the start
    std::map<PieceId, std::vector<RawFileId>> m_files;  ///< of the records after each step
    std::vector<PieceId> m_order;                       ///< in which they were
};

} // namespace inchpeg::app
