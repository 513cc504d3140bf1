// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"
#include "app/plan/rail_table_model.h"

#include <QWidget>

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QLineEdit;
class QSpinBox;
class QTableView;

namespace inchpeg::app
{

/// Ask & plan: what is tested, on which rails, with how many pieces, and what that can show.
class PlanView : public QWidget
{
    Q_OBJECT
public:
    PlanView(ProjectSession &session, PlanPresenter &presenter, QWidget *parent = nullptr);

private:
    QWidget *createTest();
    QWidget *createRails();
    QWidget *createPlan();
    void connectFields();
    void refresh();
    void addLevels();

    ProjectSession &m_session;
    PlanPresenter &m_presenter;
    RailTableModel m_rails;
    QComboBox *m_method = nullptr;
    QLineEdit *m_factorName = nullptr;
    QLineEdit *m_factorUnit = nullptr;
    QComboBox *m_shape = nullptr;
    QLineEdit *m_gaugeLength = nullptr;
    QLineEdit *m_gripDistance = nullptr;
    QComboBox *m_toe = nullptr;
    QLineEdit *m_modulusFrom = nullptr;
    QLineEdit *m_modulusTo = nullptr;
    QLineEdit *m_offset = nullptr;
    QLineEdit *m_breakDrop = nullptr;
    QLineEdit *m_capacity = nullptr;
    QTableView *m_railTable = nullptr;
    QLineEdit *m_newLevels = nullptr;
    QComboBox *m_newOrientation = nullptr;
    QLineEdit *m_newMaterial = nullptr;
    QSpinBox *m_pieces = nullptr;
    QDoubleSpinBox *m_difference = nullptr;
    QDoubleSpinBox *m_scatter = nullptr;
    QLabel *m_scatterSource = nullptr;
    QLabel *m_planText = nullptr;
};

} // namespace inchpeg::app
