// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/oven_presenter.h"

#include <QWidget>

class QGridLayout;
class QKeyEvent;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The card of an oven: its temperature, and a large key for each piece in it.
class OvenCard : public QWidget
{
    Q_OBJECT
public:
    explicit OvenCard(OvenPresenter &oven, QWidget *parent = nullptr);
    void refresh();
    void showTemperature(); ///< what changes by itself
    bool takeKey(const QKeyEvent &event);

private:
    OvenPresenter &m_oven;
    QLabel *m_temperature = nullptr;
    QLabel *m_rate = nullptr;
    QLineEdit *m_typed = nullptr;
    QPushButton *m_next = nullptr;
    std::vector<QPushButton *> m_pieces; ///< hidden behind the last one
};

} // namespace inchpeg::app
