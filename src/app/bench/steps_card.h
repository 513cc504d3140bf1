// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/steps_presenter.h"

#include <QWidget>

class QComboBox;
class QKeyEvent;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The card of a falling weight or a stepped torque: the level that comes next, large, and two keys for what
/// it did.
class StepsCard : public QWidget
{
    Q_OBJECT
public:
    explicit StepsCard(StepsPresenter &steps, QWidget *parent = nullptr);
    void refresh();
    bool takeKey(const QKeyEvent &event); ///< H and F

private:
    void keepPlan();

    StepsPresenter &m_steps;
    QLabel *m_height = nullptr;
    QLabel *m_energy = nullptr;
    QLabel *m_trials = nullptr;
    QPushButton *m_held = nullptr;
    QPushButton *m_failed = nullptr;
    QComboBox *m_rule = nullptr;
    QLabel *m_massWord = nullptr;
    QLineEdit *m_mass = nullptr;
    QLineEdit *m_start = nullptr;
    QLineEdit *m_step = nullptr;
};

} // namespace inchpeg::app
