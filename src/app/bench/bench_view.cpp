// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_view.h"

#include "app/bench/live_words.h"
#include "app/gauge/gauge_bar.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSerialPortInfo>

namespace inchpeg::app
{

namespace
{

constexpr int kFrame_ms = 16;
constexpr double kDigits = 4.6; ///< of the ordinary size: to be read from two metres
constexpr double kCode = 2.6;

QLabel *largeLabel(const char *name, double times)
{
    auto *label = new QLabel;
    label->setObjectName(QLatin1String(name));
    QFont font = label->font();
    font.setPointSizeF(font.pointSizeF() * times);
    font.setWeight(QFont::DemiBold);
    label->setFont(font);
    return label;
}

} // namespace

BenchView::BenchView(ProjectSession &session, BenchPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter)
{
    setObjectName(QStringLiteral("benchView"));
    setFocusPolicy(Qt::StrongFocus);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(14, 10, 14, 10);
    layout->setSpacing(8);
    layout->addWidget(createConnection());
    layout->addWidget(createPiece());
    m_cautions = new QLabel;
    m_cautions->setObjectName(QStringLiteral("benchCautions"));
    m_cautions->setProperty("role", QStringLiteral("warning"));
    m_cautions->setWordWrap(true);
    layout->addWidget(m_cautions);
    layout->addWidget(createSwing());
    m_plot = new LivePlot;
    layout->addWidget(m_plot, 1);
    m_hammer = new HammerPicture;
    layout->addWidget(m_hammer, 1);
    layout->addWidget(createAfter());
    m_frames.setInterval(kFrame_ms);
    connect(&m_frames, &QTimer::timeout, this, [this] {
        m_presenter.poll();
        showLive();
    });
    connect(&m_presenter, &BenchPresenter::changed, this, [this] {
        if (isVisible()) // records are read by the hundred while another lens is shown
            refresh();
    });
    connect(&m_presenter, &BenchPresenter::told, this, &BenchView::say);
    connect(&m_simulated, &QProcess::readyReadStandardOutput, this, [this] {
        const QString path = QString::fromUtf8(m_simulated.readLine()).trimmed();
        if (path.isEmpty() || m_presenter.recorder().isConnected())
            return;
        m_port->setEditText(path);
        m_presenter.connectTo(path);
    });
    connect(&m_simulated, &QProcess::stateChanged, this, &BenchView::refresh);
    // A click leaves the keyboard where it is: Space is the bench's own.
    for (QPushButton *push : findChildren<QPushButton *>())
        push->setFocusPolicy(Qt::TabFocus);
    refresh();
}

BenchView::~BenchView()
{
    m_simulated.disconnect(this);
    if (m_simulated.state() != QProcess::NotRunning) {
        m_simulated.kill();
        m_simulated.waitForFinished(2000);
    }
}

QWidget *BenchView::createConnection()
{
    m_port = comboBox("benchPort", tr("Port of the rig"));
    m_port->setEditable(true);
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
    row->addWidget(new QLabel(tr("Rig")));
    row->addWidget(m_port, 1);
    row->addWidget(m_connect);
    row->addWidget(m_simulate);
    row->addWidget(m_pull);
    row->addWidget(m_state, 2);
    connect(m_connect, &QPushButton::clicked, this, &BenchView::toggleConnection);
    connect(m_simulate, &QPushButton::clicked, this, &BenchView::toggleSimulation);
    connect(m_pull, &QPushButton::clicked, this,
            [this] { m_presenter.recorder().send(m_presenter.isPendulum() ? "release" : "start"); });
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
    auto *both = new QWidget;
    auto *column = new QVBoxLayout(both);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(line);
    column->addWidget(m_cutOff);
    return both;
}

QWidget *BenchView::createPiece()
{
    m_piece = largeLabel("benchPiece", kCode);
    m_rail = softLabel({});
    m_rail->setObjectName(QStringLiteral("benchRail"));
    m_reading = largeLabel("benchReading", kDigits);
    m_reading->setAlignment(Qt::AlignRight | Qt::AlignBottom);
    m_unit = largeLabel("benchUnit", kCode);
    m_unit->setAlignment(Qt::AlignLeft | Qt::AlignBottom);
    m_peak = largeLabel("benchPeak", 1.5);
    m_peak->setAlignment(Qt::AlignRight);
    m_range = new QLabel;
    m_range->setObjectName(QStringLiteral("benchRange"));
    m_range->setProperty("role", QStringLiteral("warning"));
    m_range->setAlignment(Qt::AlignRight);
    m_action = largeLabel("benchAction", 1.3);
    m_action->setWordWrap(true);
    m_main = button("benchMain", {}, true);
    m_main->setMinimumHeight(44);
    m_main->setMinimumWidth(190);
    m_putBack = button("benchPutBack", tr("Put back"));
    m_putBack->setToolTip(tr("This piece is tested last; the next one lies at the rig (Backspace)"));
    m_typedPeak =
        lineEdit("benchTypedPeak", tr("Largest reading, typed"), tr("largest reading, e.g. 48.2 kgf"));
    m_typedPeak->setMinimumWidth(230);
    m_typedPeak->setMaximumWidth(260);
    auto *box = new QWidget;
    auto *grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setColumnStretch(0, 1);
    auto *who = new QVBoxLayout;
    who->setSpacing(0);
    who->addWidget(m_piece);
    who->addWidget(m_rail);
    grid->addLayout(who, 0, 0);
    auto *digits = new QHBoxLayout;
    digits->addStretch(1);
    digits->addWidget(m_reading);
    digits->addWidget(m_unit);
    grid->addLayout(digits, 0, 1);
    auto *limits = new QVBoxLayout;
    limits->setSpacing(0);
    limits->addWidget(m_peak);
    limits->addWidget(m_range);
    grid->addWidget(m_action, 1, 0);
    grid->addLayout(limits, 1, 1);
    auto *actions = new QHBoxLayout;
    actions->addWidget(m_main);
    actions->addWidget(m_typedPeak);
    actions->addWidget(m_putBack);
    actions->addStretch(1);
    grid->addLayout(actions, 2, 0, 1, 2);
    connect(m_main, &QPushButton::clicked, this, [this] {
        switch (m_presenter.phase()) {
        case BenchPhase::Cautions:
            m_presenter.confirmCautions();
            break;
        case BenchPhase::Done:
            m_presenter.next();
            break;
        default:
            m_presenter.startOrStop();
            break;
        }
    });
    connect(m_putBack, &QPushButton::clicked, &m_presenter, &BenchPresenter::putBack);
    connect(m_typedPeak, &QLineEdit::returnPressed, this, &BenchView::keepPeak);
    return box;
}

QWidget *BenchView::createSwing()
{
    m_swing = new QWidget;
    auto *row = new QHBoxLayout(m_swing);
    row->setContentsMargins(0, 0, 0, 0);
    for (const BenchPresenter::BreakKind &kind : BenchPresenter::breakKinds()) {
        auto *push = button("benchSwing", tr("%1 (%2)").arg(kind.words, kind.letter));
        push->setObjectName(QStringLiteral("benchSwing") + kind.letter);
        row->addWidget(push);
        connect(push, &QPushButton::clicked, this,
                [this, letter = kind.letter] { m_presenter.keepSwing(letter); });
    }
    auto *free = button("benchSwingF", tr("free swing (F)"));
    row->addWidget(free);
    row->addStretch(1);
    connect(free, &QPushButton::clicked, &m_presenter, &BenchPresenter::takeFreeSwing);
    return m_swing;
}

QWidget *BenchView::createAfter()
{
    m_result = new QLabel;
    m_result->setObjectName(QStringLiteral("benchResult"));
    m_result->setWordWrap(true);
    m_result->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_break = new BreakPanel;
    m_reason = lineEdit("benchReason", tr("Why the piece is void"), tr("why: meant solid, was hollow"));
    m_reason->setMinimumWidth(230);
    m_void = button("benchVoid", tr("Void this piece"));
    auto *box = new QWidget;
    auto *column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(m_result);
    column->addWidget(m_break);
    auto *row = new QHBoxLayout;
    row->addStretch(1);
    row->addWidget(m_reason);
    row->addWidget(m_void);
    column->addLayout(row);
    connect(m_break, &BreakPanel::said, &m_presenter, &BenchPresenter::sayBreak);
    connect(m_void, &QPushButton::clicked, this, [this] {
        if (m_presenter.voidPiece(m_reason->text()))
            m_reason->clear();
    });
    return box;
}

/// Asking the system for its ports takes some milliseconds: once, when the lens is shown.
void BenchView::offerPorts()
{
    const QString typed = m_port->currentText();
    m_port->clear();
    for (const QSerialPortInfo &port : QSerialPortInfo::availablePorts())
        m_port->addItem(port.systemLocation());
    m_port->setCurrentText(typed);
}

void BenchView::refresh()
{
    const BenchPhase phase = m_presenter.phase();
    const bool isConnected = m_presenter.recorder().isConnected();
    const bool hasPiece = m_presenter.piece() != nullptr;
    m_port->setEnabled(!isConnected);
    m_connect->setText(isConnected ? tr("Disconnect") : tr("Connect"));
    const bool simulates = m_simulated.state() != QProcess::NotRunning;
    m_simulate->setText(simulates ? tr("Switch it off") : tr("Simulated rig"));
    m_plot->setVisible(!m_presenter.isPendulum());
    m_hammer->setVisible(m_presenter.isPendulum());
    m_pull->setText(m_presenter.isPendulum() ? tr("Let it go") : tr("Load the piece"));
    m_pull->setEnabled(isConnected);
    m_cutOff->setVisible(!m_presenter.cutOff().empty());
    if (!m_presenter.cutOff().empty()) {
        const CutOffRecord &cut = m_presenter.cutOff().front();
        const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), cut.piece);
        m_cutOffWords->setText(
            tr("A record was cut off: %1, %2.")
                .arg(of == nullptr ? tr("a piece of another study") : QString::fromStdString(of->code),
                     cut.words));
    }
    m_piece->setText(m_presenter.pieceTitle());
    m_rail->setText(hasPiece ? tr("%1 · %2 · %n to test", nullptr, static_cast<int>(m_presenter.waiting()))
                                   .arg(m_presenter.railTitle(), m_presenter.expectedText())
                             : QString());
    m_action->setText(m_presenter.nextAction());
    const bool canStart =
        (phase == BenchPhase::Ready && !m_presenter.isPendulum()) || phase == BenchPhase::Recording;
    m_main->setText(phase == BenchPhase::Cautions    ? tr("I have read them")
                    : phase == BenchPhase::Done      ? tr("Next piece (Enter)")
                    : phase == BenchPhase::Recording ? tr("End it (Space)")
                                                     : tr("Begin now (Space)"));
    m_main->setVisible(canStart || phase == BenchPhase::Cautions || phase == BenchPhase::Done);
    m_typedPeak->setVisible(m_presenter.takesTypedPeak() &&
                            (phase == BenchPhase::NoRig || phase == BenchPhase::Ready));
    m_putBack->setVisible(m_presenter.waiting() > 1 &&
                          (phase == BenchPhase::NoRig || phase == BenchPhase::Ready));
    QStringList cautions;
    if (phase == BenchPhase::Cautions) {
        for (const Caution &caution : m_presenter.openCautions())
            cautions << QStringLiteral("▲ ") +
                            QString::fromUtf8(caution.text.data(), qsizetype(caution.text.size()));
    }
    if (const QString first = m_presenter.beforeItBreaks(); !first.isEmpty())
        cautions << first;
    m_cautions->setText(cautions.join(QLatin1Char('\n')));
    m_cautions->setVisible(!cautions.isEmpty());
    m_swing->setVisible(phase == BenchPhase::Ready && m_presenter.swing().has_value());
    const bool isDone = phase == BenchPhase::Done;
    m_result->setText(m_presenter.resultText());
    m_result->setVisible(isDone);
    m_break->showLooks(isDone ? m_presenter.looks() : std::span<const BreakLook>(),
                       m_presenter.look().toStdString());
    m_break->setVisible(isDone && !m_presenter.looks().empty());
    const bool canVoid = hasPiece && (isDone || phase == BenchPhase::NoRig || phase == BenchPhase::Ready);
    m_reason->setVisible(canVoid);
    m_void->setVisible(canVoid);
    showLive();
}

void BenchView::showLive()
{
    const LiveState &live = m_presenter.live();
    m_reading->setText(live.isConnected ? liveReadingText(live, m_session.notation()) : QString());
    m_unit->setText(live.isConnected ? liveUnitText(live) : QString());
    m_peak->setText(m_presenter.peakText());
    m_range->setText(m_presenter.rangeText());
    m_state->setText(liveStateText(live));
    m_hammer->show(m_presenter.hammerAngle(), m_presenter.throughAngle());
    m_plot->show(m_presenter.trace(), liveXLabel(live), liveYLabel(live), m_presenter.shownLimit(),
                 m_session.notation());
}

void BenchView::say(const QString &sentence)
{
    m_session.tell(Status(invalidArgument(sentence.toStdString())));
}

void BenchView::keepPeak()
{
    if (m_presenter.keepTypedPeak(m_typedPeak->text()))
        m_typedPeak->clear();
}

void BenchView::toggleConnection()
{
    if (m_presenter.recorder().isConnected())
        m_presenter.disconnectNow();
    else if (!m_port->currentText().trimmed().isEmpty())
        m_presenter.connectTo(m_port->currentText().trimmed());
    else
        say(tr("Type the port of the rig, such as /dev/ttyUSB0, or start the simulated one."));
    refresh();
}

void BenchView::toggleSimulation()
{
    if (m_simulated.state() != QProcess::NotRunning) {
        m_presenter.disconnectNow();
        m_simulated.write("quit\n");
        m_simulated.waitForFinished(1000);
        return;
    }
    const QString program = simulatedGaugeProgram();
    if (program.isEmpty()) {
        say(tr("inchpeg-rig, which plays the rig, was not found beside the program."));
        return;
    }
    QStringList words{m_presenter.simulatedKind(), QStringLiteral("--speedup"),
                      m_presenter.isPendulum() ? QStringLiteral("2") : QStringLiteral("6")};
    const std::optional<ExpectedLoad> load = m_presenter.expected();
    const bool isRead = load && load->kind != LoadKind::DeadMass_kg && load->kind != LoadKind::None;
    if (isRead && load->value > 0.0)
        words << QStringLiteral("--strength") << QString::number(load->value);
    m_simulated.start(program, words);
}

/// Space and Enter also while a button has the keyboard; a field that is typed into keeps its keys.
void BenchView::keyPressEvent(QKeyEvent *event)
{
    if (m_presenter.phase() == BenchPhase::Ready && m_presenter.swing() &&
        event->modifiers() == Qt::NoModifier) {
        for (const BenchPresenter::BreakKind &kind : BenchPresenter::breakKinds()) {
            if (event->key() == static_cast<int>(kind.letter.front().unicode())) {
                m_presenter.keepSwing(kind.letter);
                return;
            }
        }
        if (event->key() == Qt::Key_F) {
            m_presenter.takeFreeSwing();
            return;
        }
    }
    const auto looks = m_presenter.looks();
    const int letter = event->key() - Qt::Key_A;
    if (event->key() == Qt::Key_Space) {
        m_presenter.startOrStop();
    } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        m_presenter.next();
    } else if (event->key() == Qt::Key_Backspace) {
        m_presenter.putBack();
    } else if (m_presenter.phase() == BenchPhase::Done && event->modifiers() == Qt::NoModifier &&
               letter >= 0 && letter < static_cast<int>(looks.size())) {
        const std::string_view name = looks[static_cast<std::size_t>(letter)].name;
        m_presenter.sayBreak(QString::fromUtf8(name.data(), qsizetype(name.size())));
    } else {
        QWidget::keyPressEvent(event);
    }
}

void BenchView::showEvent(QShowEvent *event)
{
    QWidget::showEvent(event);
    offerPorts();
    m_presenter.refresh();
    refresh();
    m_frames.start();
    if (!event->spontaneous())
        setFocus(Qt::OtherFocusReason);
}

void BenchView::hideEvent(QHideEvent *event)
{
    // A record that is being made goes on; only nobody looks at it.
    m_frames.stop();
    QWidget::hideEvent(event);
}

} // namespace inchpeg::app
