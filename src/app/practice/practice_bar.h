// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/practice/practice_presenter.h"

#include <QWidget>

class QPushButton;

namespace inchpeg::app
{

/// The line above the bench of a practice project: breaks virtual pieces, and leads to the verdict.
class PracticeBar : public QWidget
{
    Q_OBJECT
public:
    explicit PracticeBar(PracticePresenter &practice, QWidget *parent = nullptr);
    /// isConfirmed: the cautions of the study are.
    void refresh(bool isConfirmed);

signals:
    void verdictRequested();

private:
    PracticePresenter &m_practice;
    QPushButton *m_breakOne = nullptr;
    QPushButton *m_breakAll = nullptr;
};

} // namespace inchpeg::app
