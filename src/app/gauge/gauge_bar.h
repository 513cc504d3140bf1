// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/gauge/serial_gauge.h"

#include <QProcess>
#include <QWidget>

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;

namespace inchpeg::app
{

/// Connects a gauge on a serial line, or the simulated one that comes with the program, and shows its last
/// reading in large digits.
class GaugeBar : public QWidget
{
    Q_OBJECT
public:
    explicit GaugeBar(QWidget *parent = nullptr);
    ~GaugeBar() override;
    [[nodiscard]] SerialGauge &gauge() { return m_gauge; }
    /// Ports to offer beside those of the system: of the workshop's gauges.
    void offerPorts(const QStringList &ports);
    void showReading(const QString &text);

private:
    void refresh();
    void toggleConnection();
    void toggleSimulation();
    void startSimulation();

    SerialGauge m_gauge;
    QProcess m_simulated;
    std::optional<QStringList> m_offered;
    QComboBox *m_port = nullptr;
    QPushButton *m_connect = nullptr;
    QPushButton *m_simulate = nullptr;
    QPushButton *m_press = nullptr;
    QLabel *m_state = nullptr;
    QLabel *m_last = nullptr;
};

/// Where inchpeg-rig lies: beside the program, in its build folder, or on the path. Empty where nowhere.
QString simulatedGaugeProgram();

} // namespace inchpeg::app
