// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"
#include "core/planning/piece_count.h"
#include "service/beside/task.h"
#include "service/plan_simulation.h"

#include <QObject>

#include <memory>

namespace inchpeg::app
{

/// What the number of pieces can show, worked out in another thread, and the plan played through with virtual
/// specimens.
class PiecesPresenter : public QObject
{
    Q_OBJECT
public:
    explicit PiecesPresenter(PlanPresenter &plan, QObject *parent = nullptr);

    /// What was worked out last; told by changed().
    [[nodiscard]] const std::vector<VisibleDifference> &curve() const { return m_found.curve; }
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QStringList few() const;
    [[nodiscard]] int wanted() const { return m_found.answer.wanted; }
    [[nodiscard]] bool suffices() const;
    [[nodiscard]] double difference() const { return m_found.difference; } ///< that matters, a share
    [[nodiscard]] bool isWorking() const { return m_task.isRunning(); }

    [[nodiscard]] double scatterPercent();
    [[nodiscard]] QString scatterSource();
    /// Whether each rail is printed on plates of its own.
    [[nodiscard]] bool hasOwnPlates();

    /// Brings what is shown up to date with the study on the rack.
    void refresh();

    void simulate(double lostPercent);
    void cancelSimulation();
    [[nodiscard]] bool isSimulating() const { return m_simulation.isRunning(); }
    [[nodiscard]] QString simulationText() const { return m_simulationText; }

signals:
    void changed();
    void simulationChanged();
    void simulationProgress(int done, int all);

private:
    struct Found {
        double difference = 0.0; ///< that matters, a share of the reference
        PieceAnswer answer;
        QString trouble;
        std::vector<VisibleDifference> curve;
    };
    struct Asked {
        Study study; ///< without pieces
        OwnResults own;
        Notation notation;
    };
    static Found workOut(const Asked &asked);
    void take(Result<Found> result);
    void takeSimulation(const Result<SimulationResult> &result);

    PlanPresenter &m_plan;
    Found m_found;
    std::string m_askedText; ///< what m_found or the running work belongs to
    SimulationSetup m_setup;
    QString m_simulationText;
    Task<Found> m_task;
    Task<SimulationResult> m_simulation;
};

} // namespace inchpeg::app
