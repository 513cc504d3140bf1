// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/plan_view.h"

#include "app/plan/ask_view.h"
#include "app/plan/calendar_view.h"
#include "app/plan/check_view.h"
#include "app/plan/paper_view.h"
#include "app/plan/pieces_view.h"
#include "app/plan/plates_view.h"
#include "app/plan/rig_view.h"
#include "app/plan/specimen_view.h"
#include "core/planning/cautions.h"
#include "core/planning/rig_check.h"

#include <QVBoxLayout>

namespace inchpeg::app
{

PlanView::PlanView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_presenter(presenter), m_prompts(prompts), m_piecesPresenter(presenter)
{
    setObjectName(QStringLiteral("planView"));
    m_steps = new PlanSteps;
    m_pages = new LatePages(8);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addWidget(m_steps);
    layout->addWidget(m_pages, 1);
    connect(m_steps, &PlanSteps::chosen, this, [this](int step) { showStep(static_cast<PlanStep>(step)); });
    connect(&presenter.state(), &PlanState::changed, this, &PlanView::refresh);
    connect(&presenter.session(), &ProjectSession::lensChanged, this, &PlanView::refresh);
    connect(&m_piecesPresenter, &PiecesPresenter::changed, this, &PlanView::refreshStates);
    refresh();
}

void PlanView::showStep(PlanStep step)
{
    m_steps->choose(step);
    m_pages->setCurrentIndex(static_cast<int>(step));
    refresh();
}

void PlanView::goOnAfterQuestion()
{
    if (m_ask != nullptr)
        m_ask->goOnAfterQuestion();
}

void PlanView::refresh()
{
    const bool hasStudy = m_presenter.session().study() != nullptr;
    setEnabled(hasStudy);
    if (!hasStudy || m_presenter.session().lens() != Lens::Plan)
        return;
    refreshPage();
    m_piecesPresenter.refresh();
    refreshStates();
}

/// Only the page that is seen is made and brought up to date; the others are when they come to be seen.
void PlanView::refreshPage()
{
    const int place = m_pages->currentIndex();
    // Pages from which the workshop can be opened.
    const auto withWorkshop = [this](auto *page) {
        connect(page, &std::remove_pointer_t<decltype(page)>::workshopRequested, this,
                &PlanView::workshopRequested);
        return page;
    };
    switch (static_cast<PlanStep>(place)) {
    case PlanStep::Ask:
        m_pages->made(place, m_ask, [&] { return new AskView(m_presenter); }).refresh();
        break;
    case PlanStep::Pieces:
        m_pages->made(place, m_pieces, [&] { return new PiecesView(m_presenter, m_piecesPresenter); })
            .refresh();
        break;
    case PlanStep::Specimen:
        m_pages->made(place, m_specimen, [&] { return new SpecimenView(m_presenter); }).refresh();
        break;
    case PlanStep::Rig:
        m_pages->made(place, m_rig, [&] { return withWorkshop(new RigView(m_presenter)); }).refresh();
        break;
    case PlanStep::Plates:
        m_pages->made(place, m_plates, [&] { return withWorkshop(new PlatesView(m_presenter)); }).refresh();
        break;
    case PlanStep::Calendar:
        m_pages
            ->made(place, m_calendar, [&] { return withWorkshop(new CalendarView(m_presenter, m_prompts)); })
            .refresh();
        break;
    case PlanStep::Check:
        m_pages->made(place, m_check, [&] { return new CheckView(m_presenter); }).refresh();
        break;
    case PlanStep::Paper:
        m_pages->made(place, m_paper, [&] { return withWorkshop(new PaperView(m_presenter, m_prompts)); })
            .refresh();
        break;
    }
}

void PlanView::refreshStates()
{
    if (m_presenter.session().study() == nullptr)
        return;
    PlanState &state = m_presenter.state();
    const Study &study = state.study();
    const bool asked = study.conditions.size() > 1 && !study.factors.front().name.empty();
    m_steps->setState(PlanStep::Ask, asked ? StepState::Done : StepState::Open,
                      asked ? tr("%1 rails").arg(study.conditions.size())
                            : tr("no two rails to compare yet"));
    m_steps->setState(PlanStep::Pieces,
                      !asked                         ? StepState::Open
                      : m_piecesPresenter.suffices() ? StepState::Done
                                                     : StepState::Mind,
                      m_piecesPresenter.sentence());
    const bool shaped = !firstTest(study).setup.shape.key.empty();
    m_steps->setState(PlanStep::Specimen, shaped ? StepState::Done : StepState::Open,
                      QString::fromStdString(state.tests().front().shape.name));
    RigFit worst = RigFit::Unknown;
    for (const PlannedTest &test : state.tests()) {
        for (const Condition &condition : study.conditions)
            worst = std::max(worst, checkRig(test, expectedLoad(study, test, condition, state.own()),
                                             findRig(m_presenter.session().workshop(), test.setup.rig))
                                        .fit);
    }
    const bool needsRig = factsOf(methodOf(study)).load != LoadKind::None;
    const bool troubled = worst == RigFit::Beyond || worst == RigFit::NearLimit ||
                          worst == RigFit::TooSmall || worst == RigFit::TooCoarse ||
                          worst == RigFit::WrongKind;
    m_steps->setState(PlanStep::Rig,
                      troubled                                         ? StepState::Mind
                      : firstTest(study).setup.rig.empty() && needsRig ? StepState::Open
                                                                       : StepState::Done,
                      QString::fromUtf8(rigFitName(worst).data()));
    const PlateLayout &layout = state.layout();
    const auto printed = static_cast<int>(study.plan.print.printed.size());
    m_steps->setState(PlanStep::Plates,
                      !layout.unplaced.empty() ? StepState::Mind
                      : printed > 0 || asked   ? StepState::Done
                                               : StepState::Open,
                      tr("%1 plates, %2 printed").arg(layout.plates.size()).arg(printed));
    const bool dated = !study.plan.dates.start.empty();
    m_steps->setState(PlanStep::Calendar, dated ? StepState::Done : StepState::Open,
                      dated ? tr("starts %1").arg(QString::fromStdString(study.plan.dates.start))
                            : tr("not dated"));
    const std::vector<Confound> &confounds = state.confounds();
    const auto aliased = std::count_if(confounds.begin(), confounds.end(), [](const Confound &one) {
        return one.weight == Confound::Weight::Aliased;
    });
    const bool confirmed = allConfirmed(study);
    m_steps->setState(PlanStep::Check,
                      aliased > 0 ? StepState::Mind
                      : confirmed ? StepState::Done
                                  : StepState::Open,
                      aliased > 0 ? tr("%1 confounds").arg(aliased)
                      : confirmed ? tr("cautions confirmed")
                                  : tr("cautions to confirm"));
    m_steps->setState(PlanStep::Paper, study.pieces.empty() ? StepState::Open : StepState::Done,
                      tr("run sheet and labels"));
}

} // namespace inchpeg::app
