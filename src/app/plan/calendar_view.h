// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/plan/plan_presenter.h"

#include <QWidget>

class QCheckBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QComboBox;

namespace inchpeg::app
{

class Timeline;

/// The plan in time: when it starts, what happens when, and what is due today.
class CalendarView : public QWidget
{
    Q_OBJECT
public:
    CalendarView(PlanPresenter &presenter, Prompts &prompts, QWidget *parent = nullptr);
    void refresh();

signals:
    void workshopRequested();

private:
    QWidget *createFields();
    void saveCalendar();

    PlanPresenter &m_presenter;
    Prompts &m_prompts;
    QLineEdit *m_start = nullptr;
    QCheckBox *m_dry = nullptr;
    QComboBox *m_conditioning = nullptr;
    QLabel *m_words = nullptr;
    Timeline *m_timeline = nullptr;
    QListWidget *m_list = nullptr;
};

} // namespace inchpeg::app
