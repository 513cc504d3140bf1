// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_connection.h"

#include "app/bench/large_label.h"
#include "app/bench/live_words.h"
#include "app/gauge/gauge_bar.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSerialPortInfo>

namespace inchpeg::app
{

namespace
{

constexpr double kTroubleSize = 1.3; ///< read from where the rig stands

} // namespace

BenchConnection::BenchConnection(ProjectSession &session, BenchPresenter &presenter,
                                 PracticePresenter &practice, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter), m_practice(practice)
{
    m_port = comboBox("benchPort", tr("Port of the rig"));
    m_port->setEditable(true);
    m_port->setMinimumWidth(80);
    m_port->lineEdit()->setPlaceholderText(tr("port, e.g. /dev/ttyUSB0"));
    m_connect = button("benchConnect", tr("Connect"));
    m_simulate = button("benchSimulate", tr("Simulated rig"));
    m_simulate->setToolTip(tr("A rig that comes with the program, to try the bench without one"));
    m_pull = button("benchPull", tr("Load the piece"));
    m_pull->setToolTip(tr("Tells the rig to start; a rig that takes no commands is started by hand"));
    m_state = softLabel({});
    m_state->setObjectName(QStringLiteral("benchState"));
    for (QPushButton *push : {m_connect, m_simulate, m_pull})
        push->setProperty("slim", true);
    auto *line = new QWidget;
    auto *row = new QHBoxLayout(line);
    row->setContentsMargins(0, 0, 0, 0);
    m_rigWord = new QLabel(tr("Rig"));
    row->addWidget(m_rigWord);
    row->addWidget(m_port, 1);
    row->addWidget(m_connect);
    row->addWidget(m_simulate);
    row->addWidget(m_pull);
    row->addWidget(m_state, 2);
    row->addStretch(0);
    m_room = lineEdit("benchRoom", tr("Temperature and humidity of the room"), tr("room: 23 °C, 50 %"));
    m_room->setMaximumWidth(130);
    m_room->setMinimumWidth(70);
    row->addWidget(m_room);
    connect(m_room, &QLineEdit::editingFinished, this, [this] {
        if (m_room->isModified() && !m_room->text().trimmed().isEmpty())
            m_presenter.setRoom(m_room->text());
        m_room->setText(m_presenter.roomText());
    });
    connect(m_connect, &QPushButton::clicked, this, &BenchConnection::toggleConnection);
    connect(m_simulate, &QPushButton::clicked, this, &BenchConnection::toggleSimulation);
    connect(m_pull, &QPushButton::clicked, this, [this] {
        const Piece *piece = m_presenter.piece();
        const std::optional<double> hidden = piece == nullptr ? std::nullopt : m_practice.load_N(*piece);
        if (hidden) // of the virtual piece; a real rig does not know the word
            m_presenter.recorder().send("strength " + std::to_string(*hidden));
        m_presenter.recorder().send(m_presenter.isPendulum() ? "release" : "start");
    });
    m_cutOff = new QWidget;
    m_cutOffWords = new QLabel;
    m_cutOffWords->setObjectName(QStringLiteral("benchCutOff"));
    m_cutOffWords->setProperty("role", QStringLiteral("warning"));
    m_cutOffWords->setWordWrap(true);
    auto *take = button("benchTakeCutOff", tr("Take it as it is"));
    auto *leave = button("benchLeaveCutOff", tr("Leave it aside"));
    auto *cut = new QHBoxLayout(m_cutOff);
    cut->setContentsMargins(0, 0, 0, 0);
    cut->addWidget(m_cutOffWords, 1);
    cut->addWidget(take);
    cut->addWidget(leave);
    connect(take, &QPushButton::clicked, &m_presenter, &BenchPresenter::takeCutOff);
    connect(leave, &QPushButton::clicked, &m_presenter, &BenchPresenter::leaveCutOffAside);
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    m_otherRigs = softLabel({});
    m_otherRigs->setObjectName(QStringLiteral("benchOtherRigs"));
    column->addWidget(line);
    m_disk = largeLabel("benchDisk", kTroubleSize);
    m_disk->setProperty("role", QStringLiteral("warning"));
    m_disk->setWordWrap(true);
    column->addWidget(m_otherRigs);
    column->addWidget(m_disk);
    column->addWidget(m_cutOff);
    connect(&m_simulated, &QProcess::readyReadStandardOutput, this, [this] {
        const QString path = QString::fromUtf8(m_simulated.readLine()).trimmed();
        if (path.isEmpty() || m_presenter.recorder().isConnected())
            return;
        m_port->setEditText(path);
        m_presenter.connectTo(path);
    });
    connect(&m_simulated, &QProcess::stateChanged, this, &BenchConnection::refresh);
}

BenchConnection::~BenchConnection()
{
    m_simulated.disconnect(this);
    if (m_simulated.state() != QProcess::NotRunning) {
        m_simulated.kill();
        m_simulated.waitForFinished(2000);
    }
}

/// Asking the system for its ports takes some milliseconds: once, when the lens is shown.
void BenchConnection::offerPorts()
{
    const QString typed = m_port->currentText();
    m_port->clear();
    for (const QSerialPortInfo &port : QSerialPortInfo::availablePorts())
        m_port->addItem(port.systemLocation());
    m_port->setCurrentText(typed);
    m_port->lineEdit()->setCursorPosition(0); // a long name shows its beginning
}

void BenchConnection::refresh()
{
    const bool isConnected = m_presenter.recorder().isConnected();
    m_port->setEnabled(!isConnected);
    m_connect->setText(isConnected ? tr("Disconnect") : tr("Connect"));
    const bool simulates = m_simulated.state() != QProcess::NotRunning;
    m_simulate->setText(simulates ? tr("Switch it off") : tr("Simulated rig"));
    m_pull->setText(m_presenter.isPendulum()                ? tr("Let it go")
                    : m_presenter.kind() == BenchKind::Oven ? tr("Heat it")
                                                            : tr("Load the piece"));
    m_pull->setEnabled(isConnected);
    const bool isByHand = isBlind(m_presenter.kind()) || m_presenter.kind() == BenchKind::Typed;
    for (QWidget *widget : {static_cast<QWidget *>(m_port), static_cast<QWidget *>(m_connect),
                            static_cast<QWidget *>(m_simulate), static_cast<QWidget *>(m_state)})
        widget->setVisible(!isByHand);
    m_rigWord->setVisible(!isByHand);
    m_pull->setVisible(!isByHand && m_presenter.kind() != BenchKind::Timed &&
                       m_presenter.kind() != BenchKind::Steps);
    if (!m_room->hasFocus())
        m_room->setText(m_presenter.roomText());
    m_otherRigs->setText(m_presenter.otherRigs());
    m_otherRigs->setVisible(!m_otherRigs->text().isEmpty());
    showState();
    m_disk->setText(m_presenter.diskTrouble());
    m_disk->setToolTip(m_presenter.diskTroubleDetail());
    m_disk->setVisible(!m_disk->text().isEmpty());
    m_cutOff->setVisible(!m_presenter.cutOff().empty());
    if (m_presenter.cutOff().empty())
        return;
    const CutOffRecord &cut = m_presenter.cutOff().front();
    const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), cut.piece);
    const QString code = of == nullptr ? tr("a piece of another study") : QString::fromStdString(of->code);
    m_cutOffWords->setText(cut.isWhole
                               ? tr("The record of %1 is not in the project yet: free some space on its "
                                    "disk, then take it.")
                                     .arg(code)
                               : tr("A record was cut off: %1, %2.").arg(code, cut.words));
    m_cutOffWords->setToolTip(cut.rest.isEmpty() ? cut.file : cut.file + QLatin1Char('\n') + cut.rest);
}

void BenchConnection::showState()
{
    m_state->setText(liveStateText(m_presenter.live()));
}

void BenchConnection::toggleConnection()
{
    if (m_presenter.recorder().isConnected())
        m_presenter.disconnectNow();
    else if (!m_port->currentText().trimmed().isEmpty())
        m_presenter.connectTo(m_port->currentText().trimmed());
    else
        emit said(tr("Type the port of the rig, such as /dev/ttyUSB0, or start the simulated one."));
    refresh();
}

void BenchConnection::toggleSimulation()
{
    if (m_simulated.state() != QProcess::NotRunning) {
        m_presenter.disconnectNow();
        m_simulated.write("quit\n");
        m_simulated.waitForFinished(1000);
        return;
    }
    const QString program = simulatedGaugeProgram();
    if (program.isEmpty()) {
        emit said(tr("inchpeg-rig, which plays the rig, was not found beside the program."));
        return;
    }
    const bool isWarm = m_presenter.simulatedKind() == QStringLiteral("oven");
    QStringList words{m_presenter.simulatedKind(), QStringLiteral("--speedup"),
                      m_presenter.isPendulum() ? QStringLiteral("2")
                      : isWarm                 ? QStringLiteral("60")
                                               : QStringLiteral("6")};
    if (m_presenter.kind() == BenchKind::Pull && isWarm) // a bar that bends under its load as it is warmed
        words << QStringLiteral("--method") << QStringLiteral("heat-deflection");
    const std::optional<ExpectedLoad> load = m_presenter.expected();
    const bool isRead = load && load->kind != LoadKind::DeadMass_kg && load->kind != LoadKind::None;
    if (isRead && load->value > 0.0)
        words << QStringLiteral("--strength") << QString::number(load->value);
    m_simulated.start(program, words);
}

} // namespace inchpeg::app
