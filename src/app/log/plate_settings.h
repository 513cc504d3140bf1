// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/prompts.h"
#include "app/session/project_session.h"
#include "core/logbook/print_record.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLineEdit;

namespace inchpeg::app
{

/// The settings of a plate: what the plan wanted and what really was, with the question whether a difference
/// was meant.
class PlateSettings : public QWidget
{
    Q_OBJECT
public:
    PlateSettings(ProjectSession &session, Prompts &prompts, QWidget *parent = nullptr);
    using QWidget::show;
    void show(const Plate &plate);

private:
    void refresh();
    void addRow(const ComparedSetting &setting, int row);
    void add();
    void readHeader();

    ProjectSession &m_session;
    Prompts &m_prompts;
    Plate m_plate;
    int m_number = 0;
    QGridLayout *m_rows = nullptr;
    QComboBox *m_newSetting = nullptr;
    QLineEdit *m_newValue = nullptr;
};

} // namespace inchpeg::app
