// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_presenter.h"
#include "app/practice/practice_presenter.h"

#include <QProcess>
#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The line of the bench that says which rig is connected, starts a simulated one, notes the room, and offers
/// records that were cut off.
class BenchConnection : public QWidget
{
    Q_OBJECT
public:
    BenchConnection(ProjectSession &session, BenchPresenter &presenter, PracticePresenter &practice,
                    QWidget *parent = nullptr);
    ~BenchConnection() override;
    void refresh();
    void showState(); ///< "connected · 393 readings in 19.6 s"
    void offerPorts();

signals:
    void said(const QString &sentence);

private:
    void toggleConnection();
    void toggleSimulation();

    ProjectSession &m_session;
    BenchPresenter &m_presenter;
    PracticePresenter &m_practice;
    QProcess m_simulated;
    QComboBox *m_port = nullptr;
    QPushButton *m_connect = nullptr;
    QPushButton *m_simulate = nullptr;
    QPushButton *m_pull = nullptr; ///< tells the rig to start
    QLabel *m_rigWord = nullptr;
    QLabel *m_state = nullptr;
    QLineEdit *m_room = nullptr;
    QLabel *m_otherRigs = nullptr;
    QWidget *m_cutOff = nullptr;
    QLabel *m_disk = nullptr; ///< that it refused the record
    QLabel *m_cutOffWords = nullptr;
};

} // namespace inchpeg::app
