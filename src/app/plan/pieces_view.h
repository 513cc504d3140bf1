// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/pieces_presenter.h"

#include <QWidget>

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QSpinBox;

namespace inchpeg::app
{

class PowerCurve;

/// How many pieces: what the plan can show, and what it would need.
class PiecesView : public QWidget
{
    Q_OBJECT
public:
    PiecesView(PlanPresenter &plan, PiecesPresenter &presenter, QWidget *parent = nullptr);
    void refresh();

private:
    QWidget *createFields();
    QWidget *createSimulation();
    void showAnswer();
    void showSimulation();

    PlanPresenter &m_plan;
    PiecesPresenter &m_presenter;
    QSpinBox *m_pieces = nullptr;
    QSpinBox *m_spares = nullptr;
    QComboBox *m_comparison = nullptr;
    QComboBox *m_looks = nullptr;
    QDoubleSpinBox *m_confidence = nullptr;
    QDoubleSpinBox *m_power = nullptr;
    QDoubleSpinBox *m_scatter = nullptr;
    QLabel *m_scatterSource = nullptr;
    QLabel *m_plateLabel = nullptr;
    QDoubleSpinBox *m_plateScatter = nullptr;
    QLabel *m_planText = nullptr;
    QLabel *m_few = nullptr;
    QPushButton *m_take = nullptr;
    PowerCurve *m_curve = nullptr;
    QDoubleSpinBox *m_lost = nullptr;
    QPushButton *m_simulate = nullptr;
    QLabel *m_simulation = nullptr;
};

} // namespace inchpeg::app
