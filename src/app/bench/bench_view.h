// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_connection.h"
#include "app/bench/bench_presenter.h"
#include "app/bench/feel_card.h"
#include "app/bench/hammer_picture.h"
#include "app/bench/live_plot.h"
#include "app/bench/oven_card.h"
#include "app/bench/pairs_card.h"
#include "app/bench/steps_card.h"
#include "app/bench/timed_card.h"
#include "app/parts/break_panel.h"
#include "app/parts/prompts.h"
#include "app/practice/practice_bar.h"

#include <QTimer>
#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The lens beside the rig: the next piece and the next action, large digits, the growing curve, and what is
/// asked when the piece is broken. One hand is free: Space begins and ends, Enter goes on, letters say the
/// break.
class BenchView : public QWidget
{
    Q_OBJECT
public:
    BenchView(ProjectSession &session, BenchPresenter &presenter, PracticePresenter &practice,
              Prompts &prompts, QWidget *parent = nullptr);

signals:
    void verdictRequested(); ///< of a practice study

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    QWidget *createPiece();
    QWidget *createSwing();
    QWidget *createAfter();
    void refresh();
    void refreshAfter();
    void showLive();
    void showDigits(); ///< that nobody reads sixty times a second
    void addPhoto();
    bool takeModeKey(const QKeyEvent &event);
    bool takeSwingKey(const QKeyEvent &event);
    void keepPeak();
    void say(const QString &sentence);

    ProjectSession &m_session;
    BenchPresenter &m_presenter;
    PracticePresenter &m_practice;
    Prompts &m_prompts;
    QTimer m_frames;
    int m_frame = 0;
    PracticeBar *m_practiceBar = nullptr;
    BenchConnection *m_connection = nullptr;
    QLabel *m_piece = nullptr;
    QLabel *m_rail = nullptr;
    QLabel *m_reading = nullptr;
    QLabel *m_unit = nullptr;
    QLabel *m_peak = nullptr;
    QLabel *m_range = nullptr;
    QLabel *m_action = nullptr;
    QPushButton *m_main = nullptr; ///< the one next action
    QPushButton *m_putBack = nullptr;
    QLineEdit *m_typedPeak = nullptr;
    QLabel *m_cautions = nullptr;
    QWidget *m_swing = nullptr; ///< what a swing was
    LivePlot *m_plot = nullptr;
    HammerPicture *m_hammer = nullptr;
    QLabel *m_result = nullptr;
    BreakPanel *m_break = nullptr;
    TimedCard *m_timed = nullptr;
    StepsCard *m_steps = nullptr;
    OvenCard *m_oven = nullptr;
    FeelCard *m_feel = nullptr;
    PairsCard *m_pairs = nullptr;
    QLineEdit *m_goTo = nullptr;
    QLineEdit *m_note = nullptr;
    QPushButton *m_photo = nullptr;
    QLineEdit *m_reason = nullptr;
    QPushButton *m_void = nullptr;
    QPushButton *m_again = nullptr;
    QPushButton *m_reprint = nullptr;
};

} // namespace inchpeg::app
