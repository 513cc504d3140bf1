// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_presenter.h"
#include "app/bench/hammer_picture.h"
#include "app/bench/live_plot.h"
#include "app/bench/oven_card.h"
#include "app/bench/steps_card.h"
#include "app/bench/timed_card.h"
#include "app/parts/break_panel.h"
#include "app/parts/prompts.h"
#include "app/practice/practice_presenter.h"

#include <QProcess>
#include <QTimer>
#include <QWidget>

class QComboBox;
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
    ~BenchView() override;

signals:
    void verdictRequested(); ///< of a practice study

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    QWidget *createPractice();
    QWidget *createConnection();
    QWidget *createPiece();
    QWidget *createSwing();
    QWidget *createAfter();
    void offerPorts();
    void refresh();
    void refreshConnection();
    void refreshAfter();
    void showLive();
    void showDigits(); ///< that nobody reads sixty times a second
    void addPhoto();
    bool takeModeKey(const QKeyEvent &event);
    bool takeSwingKey(const QKeyEvent &event);
    void toggleSimulation();
    void toggleConnection();
    void keepPeak();
    void say(const QString &sentence);

    ProjectSession &m_session;
    BenchPresenter &m_presenter;
    PracticePresenter &m_practice;
    Prompts &m_prompts;
    QProcess m_simulated;
    QTimer m_frames;
    int m_frame = 0;
    QComboBox *m_port = nullptr;
    QPushButton *m_connect = nullptr;
    QPushButton *m_simulate = nullptr;
    QPushButton *m_pull = nullptr; ///< of the simulated rig
    QLabel *m_state = nullptr;
    QWidget *m_virtual = nullptr; ///< of a practice project
    QPushButton *m_breakOne = nullptr;
    QPushButton *m_breakAll = nullptr;
    QWidget *m_cutOff = nullptr;
    QLabel *m_cutOffWords = nullptr;
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
    QLineEdit *m_goTo = nullptr;
    QLineEdit *m_note = nullptr;
    QLineEdit *m_room = nullptr;
    QPushButton *m_photo = nullptr;
    QLineEdit *m_reason = nullptr;
    QPushButton *m_void = nullptr;
    QPushButton *m_again = nullptr;
    QPushButton *m_reprint = nullptr;
    QLabel *m_otherRigs = nullptr;
};

} // namespace inchpeg::app
