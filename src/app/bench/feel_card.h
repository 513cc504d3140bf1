// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/feel_presenter.h"

#include <QWidget>

#include <vector>

class QKeyEvent;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// The card of a blind round: the code of the piece at hand, and five keys for its grade.
class FeelCard : public QWidget
{
    Q_OBJECT
public:
    explicit FeelCard(FeelPresenter &feel, QWidget *parent = nullptr);
    void refresh();
    bool takeKey(const QKeyEvent &event); ///< Space, 1 to 5 and Backspace

private:
    FeelPresenter &m_feel;
    QLabel *m_code = nullptr;
    QLabel *m_progress = nullptr;
    QLabel *m_hint = nullptr;
    QPushButton *m_begin = nullptr;
    QPushButton *m_back = nullptr;
    std::vector<QPushButton *> m_grades;
};

} // namespace inchpeg::app
