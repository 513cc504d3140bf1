// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/cost_table_model.h"

#include <QWidget>

class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QSpinBox;
class QTableView;

namespace inchpeg::app
{

class PlatePictures;

/// The print plan: plates, order, mass, time, money, spools.
class PlatesView : public QWidget
{
    Q_OBJECT
public:
    explicit PlatesView(PlanPresenter &presenter, QWidget *parent = nullptr);
    void refresh();

signals:
    void workshopRequested();

private:
    QWidget *createOrder();
    QWidget *createCosts();
    void refreshChosen();
    void fitCosts();

    PlanPresenter &m_presenter;
    CostTableModel m_costs;
    QComboBox *m_printer = nullptr;
    QSpinBox *m_rounds = nullptr;
    QDoubleSpinBox *m_gap = nullptr;
    QSpinBox *m_seed = nullptr;
    QPushButton *m_printed = nullptr;
    PlatePictures *m_pictures = nullptr;
    QLabel *m_words = nullptr;
    QTableView *m_costTable = nullptr;
    QLabel *m_spools = nullptr;
    QLabel *m_record = nullptr;
};

} // namespace inchpeg::app
