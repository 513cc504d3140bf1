// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/gauge/serial_gauge.h"

namespace inchpeg::app
{

namespace
{

constexpr int kRetry_ms = 500;

} // namespace

SerialGauge::SerialGauge(QObject *parent) : QObject(parent)
{
    m_retry.setInterval(kRetry_ms);
    connect(&m_retry, &QTimer::timeout, this, [this] {
        if (open()) {
            m_retry.stop();
            emit stateChanged();
        }
    });
    connect(&m_port, &QSerialPort::readyRead, this, &SerialGauge::takeBytes);
    connect(&m_port, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
        // Queued: the port may not be closed from within its own signal.
        if (error == QSerialPort::ResourceError || error == QSerialPort::ReadError)
            QMetaObject::invokeMethod(this, &SerialGauge::lost, Qt::QueuedConnection);
    });
}

bool SerialGauge::open()
{
    m_port.setPortName(m_name);
    // Set before opening, as some pseudo-terminals refuse a change afterwards.
    m_port.setBaudRate(QSerialPort::Baud9600);
    m_port.setDataBits(QSerialPort::Data8);
    m_port.setParity(QSerialPort::NoParity);
    return m_port.open(QIODevice::ReadWrite);
}

void SerialGauge::connectTo(const QString &port)
{
    disconnectNow();
    m_name = port;
    if (!open()) {
        emit fault(tr("%1 cannot be opened: %2. Is the gauge plugged in, and may this user read the port?")
                       .arg(port, m_port.errorString()));
        m_port.close();
    }
    emit stateChanged();
}

void SerialGauge::disconnectNow()
{
    m_retry.stop();
    m_lines.forget();
    if (m_port.isOpen())
        m_port.close();
}

void SerialGauge::takeBytes()
{
    for (const std::string &line : m_lines.take(m_port.readAll().toStdString())) {
        const Result<GaugeReading> read = parseGaugeLine(line);
        if (read)
            emit reading(*read);
        else
            emit fault(QString::fromStdString(read.error().message));
    }
}

void SerialGauge::lost()
{
    if (!m_port.isOpen())
        return;
    takeBytes(); // what came before the cable was pulled
    const QString half = QString::fromStdString(m_lines.pending());
    m_lines.forget();
    m_port.close();
    m_retry.start();
    emit fault(half.isEmpty()
                   ? tr("The gauge is gone from %1; it is taken up again once it is plugged in.").arg(m_name)
                   : tr("The gauge is gone from %1 in the middle of a reading; \"%2\" was not taken. "
                        "Plug it in and press its button again.")
                         .arg(m_name, half.trimmed()));
    emit stateChanged();
}

} // namespace inchpeg::app
