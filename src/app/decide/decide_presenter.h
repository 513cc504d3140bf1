// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/decide/decision.h"
#include "service/beside/task.h"

#include <QObject>
#include <QStringList>

#include <memory>
#include <vector>

namespace inchpeg::app
{

/// What a part has to do, kept with the project, and which candidate does it. The order is worked out beside
/// the window, from the results of all studies of the project.
class DecidePresenter : public QObject
{
    Q_OBJECT
public:
    explicit DecidePresenter(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] const Needs &needs() const { return m_needs; }
    [[nodiscard]] const Decision &decision() const { return m_decision; }
    /// The decision to be told; nothing before one was worked out of any need.
    [[nodiscard]] std::optional<Decision> made() const
    {
        return m_decision.needs.needs.empty() || m_decision.order.empty() ? std::nullopt
                                                                          : std::optional(m_decision);
    }
    [[nodiscard]] bool isWorking() const { return m_task.isRunning(); }
    [[nodiscard]] QString headline() const;
    [[nodiscard]] QString sentences() const;

    /// How a need is shown, place by place.
    [[nodiscard]] QString limitText(std::size_t need) const; ///< "12 MPa"
    [[nodiscard]] QString loadText(std::size_t need) const;  ///< "0.45 MPa"; empty where it has none
    [[nodiscard]] QString gateText(std::size_t need) const;  ///< "Strength ≥ 12 MPa × 2"
    [[nodiscard]] QString valueText(std::size_t candidate, std::size_t need) const;
    /// The value beside its gate: 0 on it, 1 as far on the good side as shown, −1 on the other.
    [[nodiscard]] std::optional<double> place(std::size_t candidate, std::size_t need) const;

    /// The candidate whose reasons are told, by its place in the order.
    [[nodiscard]] std::size_t chosen() const { return m_chosen; }
    void choose(std::size_t candidate);
    [[nodiscard]] QStringList reasons() const; ///< of the chosen one, a sentence a need

    void setPart(const QString &part);
    void useTemplate(std::size_t place);
    void addNeed(NeedKind kind);
    void removeNeed(std::size_t need);
    void setName(std::size_t need, const QString &name);
    /// False, with a sentence told, for what is no such value.
    bool setLimit(std::size_t need, const QString &limit);
    bool setFactor(std::size_t need, const QString &factor);
    bool setLoad(std::size_t need, const QString &load);
    bool setHours(std::size_t need, const QString &hours); ///< under load, of creep
    void setMust(std::size_t need, bool isMust);
    bool setWeight(std::size_t need, const QString &weight);
    void setOfAllStudies(bool all);
    /// Candidates without any result: a material, or a bought part with its price ("bought bracket, 4.20").
    bool addCandidate(const QString &text);
    [[nodiscard]] QStringList addedCandidates() const;
    void removeCandidate(const QString &name);

    /// What would settle a gate, in Ask & plan: further pieces on the rail that it hangs on, or a study of
    /// its own.
    bool plan(std::size_t settling);
    /// Works the order out again where the lens is shown.
    void refresh();

signals:
    void changed();
    void needsChanged();

private:
    bool planMore(const Settling &settling);
    struct Asked;
    static Decision workOut(const Asked &asked);
    void take(Result<Decision> result);
    void readNeeds();
    bool change(Needs needs);
    bool changeNeed(std::size_t need, const std::function<Status(Need &)> &change);

    ProjectSession &m_session;
    QString m_shownProject;
    Needs m_needs;
    Decision m_decision;
    bool m_ofAllStudies = false;
    bool m_isOutOfDate = false;
    std::size_t m_chosen = 0;
    Task<Decision> m_task;
};

} // namespace inchpeg::app
