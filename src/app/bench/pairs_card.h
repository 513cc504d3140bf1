// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/pairs_presenter.h"

#include <QWidget>

#include <vector>

class QKeyEvent;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// The card of a round of pairs: the codes of both pieces, each over the key that says it is the stronger.
class PairsCard : public QWidget
{
    Q_OBJECT
public:
    explicit PairsCard(PairsPresenter &pairs, QWidget *parent = nullptr);
    void refresh();
    bool takeKey(const QKeyEvent &event); ///< Space, arrows (left, right, down), and Backspace

protected:
    /// The arrows answer as well while one of the buttons has the keyboard.
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    QPushButton *answerButton(const char *name, const QString &text, const QString &meaning,
                              PairAnswer answer);

    PairsPresenter &m_pairs;
    QLabel *m_left = nullptr;
    QLabel *m_right = nullptr;
    QLabel *m_progress = nullptr;
    QLabel *m_hint = nullptr;
    QPushButton *m_begin = nullptr;
    QPushButton *m_back = nullptr;
    std::vector<QPushButton *> m_answers;
};

} // namespace inchpeg::app
