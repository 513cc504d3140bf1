// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/due_watch.h"
#include "app/session/plan_state.h"
#include "app/session/project_session.h"

#include <QWidget>

class QLabel;
class QListWidget;

namespace inchpeg::app
{

/// The studies of the project, at the far left.
class ShelfView : public QWidget
{
    Q_OBJECT
public:
    ShelfView(ProjectSession &session, PlanState &plan, DueWatch &due, QWidget *parent = nullptr);

signals:
    void newStudyRequested();
    void dueChosen(inchpeg::StudyId study, inchpeg::PieceId piece);

private:
    void refresh();
    void refreshToday();
    void refreshDue();

    ProjectSession &m_session;
    PlanState &m_plan;
    DueWatch &m_watch;
    QLabel *m_dueHeading = nullptr;
    QListWidget *m_due = nullptr; ///< readings of pieces under load, of all studies
    QLabel *m_todayHeading = nullptr;
    QListWidget *m_today = nullptr; ///< what is due today, of all studies
    QLabel *m_project = nullptr;
    QListWidget *m_list = nullptr;
};

} // namespace inchpeg::app
