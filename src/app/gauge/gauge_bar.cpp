// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/gauge/gauge_bar.h"

#include "app/parts/page_parts.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QRegularExpression>
#include <QSerialPortInfo>
#include <QStandardPaths>

namespace inchpeg::app
{

namespace
{

constexpr int kQuit_ms = 2000;

} // namespace

QString simulatedGaugeProgram()
{
    const QString name = QStringLiteral("inchpeg-rig");
    const QString here = QCoreApplication::applicationDirPath();
    for (const char *folder : {"/", "/../rig/", "/../src/rig/"}) {
        const QFileInfo candidate(here + QLatin1String(folder) + name);
        if (candidate.isExecutable() && candidate.isFile())
            return candidate.canonicalFilePath();
    }
    return QStandardPaths::findExecutable(name);
}

GaugeBar::GaugeBar(QWidget *parent) : QWidget(parent)
{
    m_port = comboBox("gaugePort", tr("Port of the gauge"));
    m_port->setEditable(true);
    m_port->lineEdit()->setPlaceholderText(tr("port, e.g. /dev/ttyUSB0"));
    m_port->setMinimumWidth(kNarrowestField);
    m_connect = button("gaugeConnect", tr("Connect"));
    m_simulate = button("gaugeSimulate", tr("Simulated gauge"));
    m_simulate->setToolTip(tr("A calliper that comes with the program, to try this without one"));
    m_press = button("gaugePress", tr("Press its button"));
    m_state = softLabel({});
    m_state->setObjectName(QStringLiteral("gaugeState"));
    m_last = new QLabel;
    m_last->setObjectName(QStringLiteral("gaugeLast"));
    QFont large = m_last->font();
    large.setPointSizeF(large.pointSizeF() * 1.7);
    large.setWeight(QFont::DemiBold);
    m_last->setFont(large);
    for (QPushButton *push : {m_connect, m_simulate, m_press})
        push->setProperty("slim", true);
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(new QLabel(tr("Gauge")));
    row->addWidget(m_port, 1);
    row->addWidget(m_connect);
    row->addWidget(m_simulate);
    row->addWidget(m_press);
    row->addWidget(m_state, 2);
    row->addWidget(m_last);
    connect(m_connect, &QPushButton::clicked, this, &GaugeBar::toggleConnection);
    connect(m_simulate, &QPushButton::clicked, this, &GaugeBar::toggleSimulation);
    connect(m_press, &QPushButton::clicked, this, [this] { m_simulated.write("press\n"); });
    connect(&m_gauge, &SerialGauge::stateChanged, this, &GaugeBar::refresh);
    connect(&m_simulated, &QProcess::readyReadStandardOutput, this, [this] {
        // The first line is the terminal that it plays on.
        const QString path = QString::fromUtf8(m_simulated.readLine()).trimmed();
        if (!path.isEmpty())
            m_gauge.connectTo(path);
    });
    connect(&m_simulated, &QProcess::stateChanged, this, &GaugeBar::refresh);
    offerPorts({});
    refresh();
}

GaugeBar::~GaugeBar()
{
    m_simulated.disconnect(this);
    if (m_simulated.state() != QProcess::NotRunning) {
        m_simulated.write("quit\n");
        if (!m_simulated.waitForFinished(kQuit_ms))
            m_simulated.kill();
    }
}

void GaugeBar::offerPorts(const QStringList &ports)
{
    if (m_offered && *m_offered == ports)
        return; // asking the system for its ports takes longer than a frame
    m_offered = ports;
    QStringList all = ports;
    for (const QSerialPortInfo &info : QSerialPortInfo::availablePorts())
        all << info.systemLocation();
    all.removeDuplicates();
    const QString typed = m_port->currentText();
    m_port->clear();
    m_port->addItems(all);
    m_port->setCurrentText(typed);
    m_port->lineEdit()->setCursorPosition(0); // a long name shows its beginning
}

void GaugeBar::showReading(const QString &text)
{
    // Gauges pad their numbers: "+0004.03 mm" is read as "4.03 mm".
    static const QRegularExpression padding(QStringLiteral("(?<![\\d.,])\\+?0*(?=\\d)"));
    m_last->setText(QString(text).remove(padding));
}

void GaugeBar::toggleConnection()
{
    if (m_gauge.isConnected() || m_gauge.isWaiting()) {
        m_gauge.disconnectNow();
        refresh();
    } else if (!m_port->currentText().trimmed().isEmpty()) {
        m_gauge.connectTo(m_port->currentText().trimmed());
    } else {
        m_port->setFocus();
    }
}

void GaugeBar::toggleSimulation()
{
    if (m_simulated.state() == QProcess::NotRunning) {
        startSimulation();
        return;
    }
    m_gauge.disconnectNow();
    m_simulated.write("quit\n");
    refresh();
}

void GaugeBar::startSimulation()
{
    const QString program = simulatedGaugeProgram();
    if (program.isEmpty()) {
        emit m_gauge.fault(tr("inchpeg-rig, which plays the gauge, is not beside this program"));
        return;
    }
    m_simulated.start(program, {QStringLiteral("calliper")});
}

void GaugeBar::refresh()
{
    const bool simulated = m_simulated.state() != QProcess::NotRunning;
    const bool busy = m_gauge.isConnected() || m_gauge.isWaiting();
    if (!busy)
        m_last->clear();
    m_connect->setVisible(!simulated);
    m_port->setVisible(!simulated);
    m_connect->setText(busy ? tr("Disconnect") : tr("Connect"));
    m_port->setEnabled(!busy);
    m_simulate->setText(simulated ? tr("End the simulated gauge") : tr("Simulated gauge"));
    m_simulate->setVisible(simulated || !busy);
    m_press->setVisible(simulated);
    m_press->setEnabled(m_gauge.isConnected());
    m_state->setText(m_gauge.isConnected() ? tr("connected: each press fills the cell and goes on")
                     : m_gauge.isWaiting() ? tr("waiting for %1").arg(m_gauge.port())
                                           : QString());
}

} // namespace inchpeg::app
