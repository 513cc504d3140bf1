// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/late_pages.h"
#include "app/parts/prompts.h"
#include "app/parts/step_strip.h"
#include "app/session/plan_state.h"

#include <QWidget>

namespace inchpeg::app
{

class ConditionPage;
class LifePage;
class MassPage;
class MeasurePage;
class PhotoPage;
class PrintPage;
class TypingPage;

/// The parts of the log, in the order in which they are filled.
enum class LogPart { Print, Measure, Mass, Condition, Type, Photos, Life };

/// The log lens: what happened to the pieces between the plan and the bench.
class LogView : public QWidget
{
    Q_OBJECT
public:
    LogView(ProjectSession &session, PlanState &plan, Prompts &prompts, QWidget *parent = nullptr);
    void showPart(LogPart part);
    [[nodiscard]] LogPart part() const;

signals:
    void importRequested();

private:
    void refresh();
    void refreshPage();
    void refreshStates();
    MeasurePage *makeMeasurePage();

    ProjectSession &m_session;
    PlanState &m_plan;
    Prompts &m_prompts;
    StepStrip *m_strip = nullptr;
    LatePages *m_pages = nullptr;
    PrintPage *m_print = nullptr;
    MeasurePage *m_measure = nullptr;
    MassPage *m_mass = nullptr;
    ConditionPage *m_condition = nullptr;
    TypingPage *m_typing = nullptr;
    PhotoPage *m_photos = nullptr;
    LifePage *m_life = nullptr;
};

} // namespace inchpeg::app
