// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/decide/decide_presenter.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace inchpeg::app
{

class GateBoard;

/// The lens in which one is chosen: the needs of the part, the candidates at their gates, why each stands
/// where it stands, and what to test next.
class DecideView : public QWidget
{
    Q_OBJECT
public:
    DecideView(ProjectSession &session, DecidePresenter &presenter, QWidget *parent = nullptr);

signals:
    void tellRequested(); ///< the decision is to be told to others

protected:
    void showEvent(QShowEvent *event) override;

private:
    QWidget *createHead();
    QWidget *createNeeds();
    QWidget *createReasons();
    void buildNeeds();
    void addNeedRow(int row, std::size_t place);
    void refresh();

    ProjectSession &m_session;
    DecidePresenter &m_presenter;
    QLineEdit *m_part = nullptr;
    QComboBox *m_templates = nullptr;
    QComboBox *m_scope = nullptr;
    QComboBox *m_add = nullptr;
    QPushButton *m_tell = nullptr;
    QLabel *m_headline = nullptr;
    QLabel *m_sentences = nullptr;
    QLabel *m_chosen = nullptr;
    QLabel *m_reasons = nullptr;
    QLabel *m_key = nullptr;
    QGridLayout *m_needs = nullptr;
    QVBoxLayout *m_added = nullptr;
    QLineEdit *m_addCandidate = nullptr;
    QVBoxLayout *m_settle = nullptr;
    GateBoard *m_board = nullptr;
};

} // namespace inchpeg::app
