// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/pieces_presenter.h"

#include "core/planning/plate_power.h"
#include "core/planning/rig_check.h"
#include "service/on_all_cores.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::app
{

namespace
{

constexpr int kLeastCurve = 20; ///< pieces that the curve reaches at least

/// Everything that the answer hangs on, as one line.
std::string questionText(const Study &study, const OwnResults &own, const Notation &notation)
{
    const PieceQuestion question = pieceQuestion(study, own);
    return fmt::format("{} {} {} {} {} {} {} {} {} {} {} {} {} {} {}", ownPlatesARail(study),
                       study.plan.aim.plateCv.value_or(0.0), question.power.isBothSides,
                       methodName(methodOf(study)), comparisonName(question.power.comparison),
                       question.asRatio, question.power.groups, question.power.alpha, question.tested,
                       question.cv, question.difference, study.plan.aim.power, study.plan.aim.spares,
                       firstTest(study).piecesPerCondition, notation.decimalMark());
}

} // namespace

PiecesPresenter::PiecesPresenter(PlanPresenter &plan, QObject *parent) : QObject(parent), m_plan(plan)
{
    m_simulation.onProgress([this](int done, int all) { emit simulationProgress(done, all); });
}

PiecesPresenter::Found PiecesPresenter::workOut(const Asked &asked)
{
    Found found;
    Result<PieceAnswer> answer = pieceAnswer(asked.study, asked.own, asked.notation);
    if (answer)
        found.answer = std::move(*answer);
    else
        found.trouble = QString::fromStdString(answer.error().message);
    const PieceQuestion question = pieceQuestion(asked.study, asked.own);
    found.difference = question.difference;
    Result<std::vector<VisibleDifference>> curve =
        visibleDifferences(question, asked.study.plan.aim.power,
                           std::max(kLeastCurve, firstTest(asked.study).piecesPerCondition));
    if (curve && hasMean(usualProperty(methodOf(asked.study)))) // what grades show has no size
        found.curve = std::move(*curve);
    return found;
}

void PiecesPresenter::refresh()
{
    Asked asked{m_plan.state().study(), m_plan.state().own(), m_plan.session().notation()};
    asked.study.pieces.clear(); // only their planned number counts
    const std::string text = questionText(asked.study, asked.own, asked.notation);
    if (text == m_askedText)
        return;
    if (m_task.isRunning()) {
        // The work that runs is out of date: take() will see that and ask again.
        return;
    }
    m_askedText = text;
    m_task.begin(
        "pieces", [asked = std::move(asked)] { return workOut(asked); },
        [this](Result<Found> result) { take(std::move(result)); });
}

void PiecesPresenter::take(Result<Found> result)
{
    Found found;
    if (result)
        found = std::move(*result);
    else
        found.trouble = QString::fromStdString(result.error().message);
    if (m_plan.session().study() != nullptr)
        refresh();
    if (m_task.isRunning())
        return; // what was found is out of date; the new answer is on its way
    m_found = std::move(found);
    emit changed();
}

QString PiecesPresenter::sentence() const
{
    if (!m_found.trouble.isEmpty())
        return m_found.trouble;
    const PieceAnswer &answer = m_found.answer;
    return QString::fromStdString(answer.byPlates.empty() ? answer.sentence
                                                          : answer.sentence + " " + answer.byPlates);
}

QStringList PiecesPresenter::few() const
{
    QStringList lines;
    for (const std::string &line : m_found.answer.few)
        lines << QString::fromStdString(line);
    return lines;
}

bool PiecesPresenter::suffices() const
{
    return m_found.answer.wanted > 0 && m_found.answer.visible > 0.0 &&
           m_found.answer.visible <= m_found.difference * 1.0000001;
}

double PiecesPresenter::scatterPercent()
{
    return 100.0 * expectedScatter(m_plan.state().study(), m_plan.state().own()).cv;
}

bool PiecesPresenter::hasOwnPlates()
{
    return ownPlatesARail(m_plan.state().study()) > 0;
}

QString PiecesPresenter::scatterSource()
{
    return QString::fromStdString(expectedScatter(m_plan.state().study(), m_plan.state().own()).source);
}

void PiecesPresenter::simulate(double lostPercent)
{
    if (m_simulation.isRunning())
        return;
    PlanState &state = m_plan.state();
    const Study &study = state.study();
    const PieceQuestion question = pieceQuestion(study, state.own());
    m_setup = {};
    m_setup.comparison = question.power.comparison;
    m_setup.conditions = question.power.groups;
    m_setup.positions = question.power.positions;
    m_setup.pieces = firstTest(study).piecesPerCondition;
    m_setup.cv = question.cv;
    m_setup.asRatio = question.asRatio;
    m_setup.difference = question.isDownwards ? -question.difference : question.difference;
    m_setup.isBothSides = question.power.isBothSides;
    m_setup.alpha = question.power.alpha;
    m_setup.lost = lostPercent / 100.0;
    m_setup.seed = study.plan.print.seed;
    // The gauge's steps and its end count where the load is known.
    const Condition *reference = findCondition(study, study.reference);
    const RigCard *rig = findRig(m_plan.session().workshop(), state.tests().front().setup.rig);
    if (reference != nullptr && rig != nullptr && factsOf(methodOf(study)).load == LoadKind::Force_N) {
        if (const auto load = expectedLoad(study, state.tests().front(), *reference, state.own())) {
            m_setup.expected = load->value;
            m_setup.rig.resolution_N = rig->resolution;
            m_setup.rig.capacity_N = rig->range;
        }
    }
    m_simulation.begin(
        "simulation",
        [setup = m_setup](const TaskControl &control) {
            return simulatePlan(setup, onAllCores, control.stop,
                                [&](int done) { control.progress(done, setup.runs); });
        },
        [this](const Result<SimulationResult> &result) { takeSimulation(result); });
    m_simulationText = tr("Breaking virtual pieces…");
    emit simulationChanged();
}

void PiecesPresenter::cancelSimulation()
{
    m_simulation.stop();
}

void PiecesPresenter::takeSimulation(const Result<SimulationResult> &result)
{
    if (!result) {
        m_simulationText = QString::fromStdString(result.error().message);
    } else {
        const auto margin = 200.0 * result->standardError();
        const bool isOfMargin = m_setup.comparison == Comparison::GoodEnough;
        const QString pattern =
            isOfMargin ? tr("Played %1 times with virtual pieces, a rail like the reference was shown to be "
                            "at most %2 % worse in %3 % (± %4).")
                       : tr("Played %1 times with virtual pieces, a real difference of %2 % was found in %3 "
                            "% (± %4).");
        m_simulationText = pattern.arg(result->runs)
                               .arg(100.0 * std::abs(m_setup.difference), 0, 'f', 1)
                               .arg(100.0 * result->share(), 0, 'f', 0)
                               .arg(margin, 0, 'f', 0);
        if (result->falseAlarms > 0)
            m_simulationText +=
                (isOfMargin ? tr(" In %1 % a rail that just fails was called good enough by chance.")
                            : tr(" In %1 % a rail like the reference was called different by chance."))
                    .arg(100.0 * result->falseAlarms / result->runs, 0, 'f', 1);
        if (result->undecided > 0)
            m_simulationText +=
                tr(" In %1 % nothing could be said: too few pieces were left, or the gauge was "
                   "at its end.")
                    .arg(100.0 * result->undecided / result->runs, 0, 'f', 0);
    }
    emit simulationChanged();
}

} // namespace inchpeg::app
