// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/gauge_line.h"

#include <QObject>
#include <QSerialPort>
#include <QTimer>

namespace inchpeg::app
{

/// A gauge that sends its readings over a serial line at the press of its button: docs/rig_protocol.md. Where
/// the cable is pulled it waits for the port to come back.
class SerialGauge : public QObject
{
    Q_OBJECT
public:
    explicit SerialGauge(QObject *parent = nullptr);

    /// port: "/dev/ttyUSB0", or any path to a serial device. Tells by stateChanged() or fault().
    void connectTo(const QString &port);
    void disconnectNow();
    [[nodiscard]] bool isConnected() const { return m_port.isOpen(); }
    [[nodiscard]] bool isWaiting() const { return m_retry.isActive(); } ///< for a port that went away
    [[nodiscard]] QString port() const { return m_name; }

signals:
    void reading(const inchpeg::GaugeReading &reading);
    /// A sentence: a line that is no reading, a cable that was pulled, a port that cannot be opened.
    void fault(const QString &sentence);
    void stateChanged();

private:
    bool open();
    void takeBytes();
    void lost();

    QSerialPort m_port;
    QString m_name;
    GaugeLines m_lines;
    QTimer m_retry;
};

} // namespace inchpeg::app
