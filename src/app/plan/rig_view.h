// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QWidget>

#include <utility>
#include <vector>

class QComboBox;
class QDoubleSpinBox;
class QGridLayout;
class QLabel;
class QLineEdit;

namespace inchpeg::app
{

class LoadBars;
class TestChoice;

/// Whether the rig can do it, and how its records are read.
class RigView : public QWidget
{
    Q_OBJECT
public:
    explicit RigView(PlanPresenter &presenter, QWidget *parent = nullptr);
    void refresh();

signals:
    void workshopRequested();

private:
    QWidget *createRig();
    void refreshVerdict();
    void buildSaid(const Reduction *reduction);
    void refreshSaid();

    PlanPresenter &m_presenter;
    TestChoice *m_test = nullptr;
    QComboBox *m_rig = nullptr;
    QLineEdit *m_expected = nullptr;
    QLabel *m_expectedLabel = nullptr;
    QLabel *m_expectedSource = nullptr;
    QLabel *m_fixtureLabel = nullptr;
    QComboBox *m_fixture = nullptr; ///< how a bar under a dead load is held
    QLabel *m_freeLengthLabel = nullptr;
    QLineEdit *m_freeLength = nullptr;
    QLineEdit *m_stress = nullptr;
    QLabel *m_stressLabel = nullptr;
    QDoubleSpinBox *m_speed = nullptr;
    QLabel *m_speedWords = nullptr;
    LoadBars *m_bars = nullptr;
    QLabel *m_verdict = nullptr;
    QWidget *m_said = nullptr; ///< what the test is read by, made from its description
    QLabel *m_shapeLabel = nullptr;
    QComboBox *m_shape = nullptr; ///< of the sections of all pieces
    QGridLayout *m_saidGrid = nullptr;
    std::vector<std::pair<const Parameter *, QWidget *>> m_saidFields;
    const Reduction *m_saidFor = nullptr;
};

} // namespace inchpeg::app
