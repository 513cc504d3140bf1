// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/practice/practice_presenter.h"

#include <QDialog>

class QGridLayout;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// Where a person gives a verdict on each rail of a practice study, and then sees what was true.
class PracticeWindow : public QDialog
{
    Q_OBJECT
public:
    explicit PracticeWindow(PracticePresenter &presenter, QWidget *parent = nullptr);

private:
    void refresh();

    PracticePresenter &m_presenter;
    QWidget *m_rows = nullptr;
    QGridLayout *m_grid = nullptr;
    QLabel *m_intro = nullptr;
    QLabel *m_summary = nullptr;
    QPushButton *m_reveal = nullptr;
};

} // namespace inchpeg::app
