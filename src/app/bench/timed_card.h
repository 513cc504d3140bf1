// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/bench/bench_presenter.h"
#include "app/bench/time_rails.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;

namespace inchpeg::app
{

/// The card of readings at set times: how long until the next one, in digits for two metres, the field that
/// takes it, and the rails of time.
class TimedCard : public QWidget
{
    Q_OBJECT
public:
    TimedCard(BenchPresenter &bench, QWidget *parent = nullptr);
    void refresh();
    void showTime(); ///< what changes by itself
    /// Space, a period, digits; false for a key that means nothing here.
    bool takeKey(const QKeyEvent &event);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void keepReading();
    void takeFromGauge();

    BenchPresenter &m_bench;
    TimedPresenter &m_timed;
    QLabel *m_countdown = nullptr;
    QLabel *m_last = nullptr;
    QLineEdit *m_value = nullptr;
    QLineEdit *m_loads = nullptr;
    QPushButton *m_rests = nullptr;
    QPushButton *m_take = nullptr;
    QPushButton *m_end = nullptr;
    TimeRails *m_rails = nullptr;
};

} // namespace inchpeg::app
