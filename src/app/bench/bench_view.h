// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_presenter.h"
#include "app/bench/hammer_picture.h"
#include "app/bench/live_plot.h"
#include "app/parts/break_panel.h"

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
    BenchView(ProjectSession &session, BenchPresenter &presenter, QWidget *parent = nullptr);
    ~BenchView() override;

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    QWidget *createConnection();
    QWidget *createPiece();
    QWidget *createSwing();
    QWidget *createAfter();
    void offerPorts();
    void refresh();
    void showLive();
    void toggleSimulation();
    void toggleConnection();
    void keepPeak();
    void say(const QString &sentence);

    ProjectSession &m_session;
    BenchPresenter &m_presenter;
    QProcess m_simulated;
    QTimer m_frames;
    QComboBox *m_port = nullptr;
    QPushButton *m_connect = nullptr;
    QPushButton *m_simulate = nullptr;
    QPushButton *m_pull = nullptr; ///< of the simulated rig
    QLabel *m_state = nullptr;
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
    QLineEdit *m_reason = nullptr;
    QPushButton *m_void = nullptr;
};

} // namespace inchpeg::app
