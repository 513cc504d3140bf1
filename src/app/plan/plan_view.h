// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/late_pages.h"
#include "app/parts/prompts.h"
#include "app/plan/pieces_presenter.h"
#include "app/plan/plan_steps.h"

namespace inchpeg::app
{

class AskView;
class CalendarView;
class CheckView;
class PaperView;
class PiecesView;
class PlatesView;
class RigView;
class SpecimenView;

/// Ask & plan: the parts of a plan, one page each, under a strip that tells how each part stands.
class PlanView : public QWidget
{
    Q_OBJECT
public:
    PlanView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent = nullptr);
    void showStep(PlanStep step);
    /// The question is asked: on to the next thing to be said.
    void goOnAfterQuestion();

signals:
    void workshopRequested();

private:
    void refresh();
    void refreshStates();
    void refreshPage();

    PlanPresenter &m_presenter;
    Prompts &m_prompts;
    PiecesPresenter m_piecesPresenter;
    PlanSteps *m_steps = nullptr;
    LatePages *m_pages = nullptr;
    AskView *m_ask = nullptr;
    PiecesView *m_pieces = nullptr;
    SpecimenView *m_specimen = nullptr;
    RigView *m_rig = nullptr;
    PlatesView *m_plates = nullptr;
    CalendarView *m_calendar = nullptr;
    CheckView *m_check = nullptr;
    PaperView *m_paper = nullptr;
};

} // namespace inchpeg::app
