// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_view.h"

#include "app/bench/large_label.h"
#include "app/bench/live_words.h"
#include "app/gauge/gauge_bar.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "app/session/photos.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QSerialPortInfo>

#include <functional>

namespace inchpeg::app
{

namespace
{

constexpr int kFrame_ms = 15;
constexpr int kFramesPerDigits = 2; ///< laying texts out costs more than drawing the curve
constexpr int kFramesPerState = 15;
constexpr double kDigits = 4.6; ///< of the ordinary size: to be read from two metres
constexpr double kCode = 2.6;

} // namespace

BenchView::BenchView(ProjectSession &session, BenchPresenter &presenter, PracticePresenter &practice,
                     Prompts &prompts, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter), m_practice(practice), m_prompts(prompts)
{
    setObjectName(QStringLiteral("benchView"));
    setFocusPolicy(Qt::StrongFocus);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(14, 10, 14, 10);
    layout->setSpacing(8);
    layout->addWidget(createPractice());
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
    m_timed = new TimedCard(presenter);
    m_steps = new StepsCard(presenter.steps());
    m_oven = new OvenCard(presenter.oven());
    for (QWidget *card :
         {static_cast<QWidget *>(m_timed), static_cast<QWidget *>(m_steps), static_cast<QWidget *>(m_oven)})
        layout->addWidget(card, 1);
    layout->addWidget(createAfter());
    m_frames.setTimerType(Qt::PreciseTimer);
    m_frames.setInterval(kFrame_ms);
    connect(&m_frames, &QTimer::timeout, this, [this] {
        m_presenter.poll();
        ++m_frame;
        if (m_frame % kFramesPerDigits == 0)
            showDigits();
        if (m_frame % kFramesPerState == 0)
            m_state->setText(liveStateText(m_presenter.live()));
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
    // What is said once is left with Enter; readings and reasons are typed one after the other.
    for (QLineEdit *edit : findChildren<QLineEdit *>()) {
        if (edit != m_typedPeak && edit != m_reason && edit->objectName() != QStringLiteral("timedValue"))
            connect(edit, &QLineEdit::returnPressed, this, [this] { setFocus(); });
    }
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

QWidget *BenchView::createPractice()
{
    m_virtual = new QWidget;
    auto *words = new QLabel(tr("Practice: the pieces are virtual, and what is true of them is hidden."));
    words->setProperty("role", QStringLiteral("warning"));
    words->setWordWrap(true);
    m_breakOne = button("practiceOne", tr("Break one of each rail"));
    m_breakAll = button("practiceAll", tr("Break all"));
    auto *verdict = button("practiceVerdict", tr("Verdict…"));
    auto *row = new QHBoxLayout(m_virtual);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(words, 1);
    for (QPushButton *push : {m_breakOne, m_breakAll, verdict}) {
        push->setProperty("slim", true);
        row->addWidget(push);
    }
    connect(m_breakOne, &QPushButton::clicked, this, [this] { m_practice.breakPieces(false); });
    connect(m_breakAll, &QPushButton::clicked, this, [this] { m_practice.breakPieces(true); });
    connect(verdict, &QPushButton::clicked, this, &BenchView::verdictRequested);
    connect(&m_practice, &PracticePresenter::changed, this, [this] {
        if (isVisible())
            refresh();
    });
    return m_virtual;
}

QWidget *BenchView::createConnection()
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
    row->addWidget(new QLabel(tr("Rig")));
    row->addWidget(m_port, 1);
    row->addWidget(m_connect);
    row->addWidget(m_simulate);
    row->addWidget(m_pull);
    row->addWidget(m_state, 2);
    m_goTo = lineEdit("benchGoTo", tr("Code or label of a piece"), tr("code or label (/)"));
    m_goTo->setMaximumWidth(120);
    m_goTo->setMinimumWidth(60);
    m_room = lineEdit("benchRoom", tr("Temperature and humidity of the room"), tr("room: 23 °C, 50 %"));
    m_room->setMaximumWidth(130);
    m_room->setMinimumWidth(70);
    row->addWidget(m_room);
    connect(m_room, &QLineEdit::editingFinished, this, [this] {
        if (m_room->isModified() && !m_room->text().trimmed().isEmpty())
            m_presenter.setRoom(m_room->text());
        m_room->setText(m_presenter.roomText());
    });
    connect(m_goTo, &QLineEdit::returnPressed, this, [this] {
        if (m_presenter.goTo(m_goTo->text())) {
            m_goTo->clear();
            setFocus();
        }
    });
    connect(m_connect, &QPushButton::clicked, this, &BenchView::toggleConnection);
    connect(m_simulate, &QPushButton::clicked, this, &BenchView::toggleSimulation);
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
    auto *both = new QWidget;
    auto *column = new QVBoxLayout(both);
    column->setContentsMargins(0, 0, 0, 0);
    m_otherRigs = softLabel({});
    m_otherRigs->setObjectName(QStringLiteral("benchOtherRigs"));
    column->addWidget(line);
    column->addWidget(m_otherRigs);
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
    // Of a fixed size: a label that may grow has the whole card laid out again at each reading.
    const QFontMetrics digitMetrics(m_reading->font());
    m_reading->setFixedSize(digitMetrics.horizontalAdvance(QStringLiteral("-88888")) + 4,
                            digitMetrics.height());
    m_unit = largeLabel("benchUnit", kCode);
    m_unit->setAlignment(Qt::AlignLeft | Qt::AlignBottom);
    m_peak = largeLabel("benchPeak", 1.5);
    m_peak->setAlignment(Qt::AlignRight);
    const QFontMetrics peakMetrics(m_peak->font());
    m_peak->setFixedSize(peakMetrics.horizontalAdvance(QStringLiteral("peak -88888 N·m")),
                         peakMetrics.height());
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
    m_typedPeak->setMinimumWidth(150);
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
    limits->addWidget(m_peak, 0, Qt::AlignRight);
    limits->addWidget(m_range);
    grid->addWidget(m_action, 1, 0);
    grid->addLayout(limits, 1, 1);
    auto *actions = new QHBoxLayout;
    actions->addWidget(m_main);
    actions->addWidget(m_typedPeak);
    actions->addWidget(m_putBack);
    actions->addStretch(1);
    actions->addWidget(m_goTo);
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
    for (const SwingPresenter::BreakKind &kind : SwingPresenter::breakKinds()) {
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
    m_reason->setMinimumWidth(120);
    m_void = button("benchVoid", tr("Void this piece"));
    m_again = button("benchAgain", tr("Test it again"));
    m_again->setToolTip(tr("Its record is set aside with the reason, and stays in the project"));
    m_reprint = button("benchReprint", tr("Print it again"));
    m_note = lineEdit("benchNote", tr("Note on this piece"), tr("note: cracking was heard at 300 N"));
    m_note->setMinimumWidth(70);
    m_photo = button("benchPhoto", tr("Photo…"));
    auto *box = new QWidget;
    auto *column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(m_result);
    column->addWidget(m_break);
    auto *row = new QHBoxLayout;
    row->addWidget(m_note, 1);
    row->addWidget(m_photo);
    row->addSpacing(16);
    row->addWidget(m_reason);
    row->addWidget(m_void);
    row->addWidget(m_again);
    row->addWidget(m_reprint);
    column->addLayout(row);
    connect(m_break, &BreakPanel::said, &m_presenter, &BenchPresenter::sayBreak);
    const auto sayWhy = [this](QPushButton *push, const std::function<bool(const QString &)> &said) {
        connect(push, &QPushButton::clicked, this, [this, said] {
            if (said(m_reason->text()))
                m_reason->clear();
        });
    };
    sayWhy(m_void, [this](const QString &reason) { return m_presenter.voidPiece(reason); });
    sayWhy(m_again, [this](const QString &reason) { return m_presenter.testAgain(reason); });
    sayWhy(m_reprint, [this](const QString &reason) { return m_presenter.printAgain(reason); });
    connect(m_note, &QLineEdit::editingFinished, this, [this] {
        if (m_note->isModified())
            m_presenter.setNote(m_note->text().simplified());
        m_note->setModified(false);
    });
    connect(m_photo, &QPushButton::clicked, this, &BenchView::addPhoto);
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

void BenchView::addPhoto()
{
    const QString path = m_prompts.filePath(this, tr("Add a photo"), photoFilter());
    if (!path.isEmpty() && m_presenter.piece() != nullptr)
        addPhotos(m_session, m_presenter.piece()->id, {path});
}

void BenchView::refreshConnection()
{
    m_virtual->setVisible(m_practice.isPractice());
    m_breakOne->setEnabled(m_practice.isPractice() && m_practice.canBreak() &&
                           m_presenter.openCautions().empty());
    m_breakAll->setEnabled(m_breakOne->isEnabled());
    const bool isConnected = m_presenter.recorder().isConnected();
    m_port->setEnabled(!isConnected);
    m_connect->setText(isConnected ? tr("Disconnect") : tr("Connect"));
    const bool simulates = m_simulated.state() != QProcess::NotRunning;
    m_simulate->setText(simulates ? tr("Switch it off") : tr("Simulated rig"));
    m_pull->setText(m_presenter.isPendulum()                ? tr("Let it go")
                    : m_presenter.kind() == BenchKind::Oven ? tr("Heat it")
                                                            : tr("Load the piece"));
    m_pull->setEnabled(isConnected);
    m_pull->setVisible(m_presenter.kind() != BenchKind::Timed && m_presenter.kind() != BenchKind::Steps);
    if (!m_room->hasFocus())
        m_room->setText(m_presenter.roomText());
    m_otherRigs->setText(m_presenter.otherRigs());
    m_otherRigs->setVisible(!m_otherRigs->text().isEmpty());
    m_cutOff->setVisible(!m_presenter.cutOff().empty());
    if (m_presenter.cutOff().empty())
        return;
    const CutOffRecord &cut = m_presenter.cutOff().front();
    const Piece *of = m_session.study() == nullptr ? nullptr : findPiece(*m_session.study(), cut.piece);
    m_cutOffWords->setText(
        tr("A record was cut off: %1, %2.")
            .arg(of == nullptr ? tr("a piece of another study") : QString::fromStdString(of->code),
                 cut.words));
}

/// What is asked once the piece is broken, and what can be said of it before.
void BenchView::refreshAfter()
{
    const BenchPhase phase = m_presenter.phase();
    const bool isDone = phase == BenchPhase::Done;
    m_result->setText(m_presenter.resultText());
    m_result->setVisible(isDone);
    m_break->showLooks(isDone ? m_presenter.looks() : std::span<const BreakLook>(),
                       m_presenter.look().toStdString());
    m_break->setVisible(isDone && !m_presenter.looks().empty());
    const bool canSay = m_presenter.piece() != nullptr && m_presenter.kind() != BenchKind::Oven &&
                        (isDone || phase == BenchPhase::NoRig || phase == BenchPhase::Ready);
    for (QWidget *widget : {static_cast<QWidget *>(m_reason), static_cast<QWidget *>(m_void),
                            static_cast<QWidget *>(m_note), static_cast<QWidget *>(m_photo)})
        widget->setVisible(canSay);
    if (!m_note->hasFocus())
        m_note->setText(m_presenter.note());
    m_again->setVisible(canSay && m_presenter.canTestAgain());
    m_reprint->setVisible(canSay && m_presenter.canPrintAgain());
}

void BenchView::refresh()
{
    const BenchPhase phase = m_presenter.phase();
    const BenchKind kind = m_presenter.kind();
    const bool hasPiece = m_presenter.piece() != nullptr;
    const bool isReadied = phase != BenchPhase::Cautions && phase != BenchPhase::NoStudy;
    refreshConnection();
    m_plot->setVisible(kind == BenchKind::Pull);
    m_hammer->setVisible(kind == BenchKind::Swing);
    m_timed->setVisible(kind == BenchKind::Timed && isReadied && hasPiece);
    m_steps->setVisible(kind == BenchKind::Steps && isReadied && hasPiece);
    m_oven->setVisible(kind == BenchKind::Oven && isReadied);
    m_timed->refresh();
    m_steps->refresh();
    m_oven->refresh();
    const bool isAboutOne = kind != BenchKind::Oven;
    m_piece->setText(isAboutOne ? m_presenter.pieceTitle() : tr("Oven"));
    m_rail->setText(hasPiece && isAboutOne
                        ? tr("%1 · %2 · %n to test", nullptr, static_cast<int>(m_presenter.waiting()))
                              .arg(m_presenter.railTitle(), m_presenter.expectedText())
                    : isAboutOne ? QString()
                                 : tr("%n to test", nullptr, static_cast<int>(m_presenter.waiting())));
    m_action->setText(m_presenter.nextAction());
    const bool canStart =
        (phase == BenchPhase::Ready && kind == BenchKind::Pull) || phase == BenchPhase::Recording;
    m_main->setText(phase == BenchPhase::Cautions    ? tr("I have read them")
                    : phase == BenchPhase::Done      ? tr("Next piece (Enter)")
                    : phase == BenchPhase::Recording ? tr("End it (Space)")
                                                     : tr("Begin now (Space)"));
    m_main->setVisible(canStart || phase == BenchPhase::Cautions || phase == BenchPhase::Done);
    m_typedPeak->setVisible(m_presenter.takesTypedPeak() &&
                            (phase == BenchPhase::NoRig || phase == BenchPhase::Ready));
    m_putBack->setVisible(m_presenter.waiting() > 1 && isAboutOne &&
                          (phase == BenchPhase::NoRig || phase == BenchPhase::Ready));
    QStringList cautions;
    if (phase == BenchPhase::Cautions) {
        for (const Caution &caution : m_presenter.openCautions())
            cautions << QStringLiteral("▲ ") +
                            QString::fromUtf8(caution.text.data(), qsizetype(caution.text.size()));
    }
    if (!m_practice.isPractice()) // virtual pieces are as they were drawn
        cautions << m_presenter.beforeItBreaks();
    m_cautions->setText(cautions.join(QLatin1Char('\n')));
    m_cautions->setVisible(!cautions.isEmpty());
    m_swing->setVisible(phase == BenchPhase::Ready && m_presenter.swings().swing().has_value());
    refreshAfter();
    m_state->setText(liveStateText(m_presenter.live()));
    showDigits();
    showLive();
}

void BenchView::showDigits()
{
    const LiveState &live = m_presenter.live();
    const BenchKind kind = m_presenter.kind();
    const bool showsDigits = live.isConnected && kind != BenchKind::Oven && kind != BenchKind::Steps;
    m_reading->setText(showsDigits ? liveReadingText(live, m_session.notation()) : QString());
    m_unit->setText(showsDigits ? liveUnitText(live) : QString());
    m_peak->setText(m_presenter.peakText());
    m_range->setText(m_presenter.rangeText());
    if (m_timed->isVisible()) {
        m_timed->showTime();
        m_action->setText(m_presenter.nextAction());
    }
    if (m_oven->isVisible())
        m_oven->showTemperature();
}

void BenchView::showLive()
{
    const LiveState &live = m_presenter.live();
    m_hammer->show(m_presenter.hammerAngle(), m_presenter.swings().throughAngle());
    m_plot->show(m_presenter.trace(), liveXLabel(live), liveYLabel(live), m_presenter.shownLimit(),
                 m_session.notation(), m_presenter.otherTraces());
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

bool BenchView::takeSwingKey(const QKeyEvent &event)
{
    if (m_presenter.phase() != BenchPhase::Ready || !m_presenter.swings().swing() ||
        event.modifiers() != Qt::NoModifier)
        return false;
    for (const SwingPresenter::BreakKind &kind : SwingPresenter::breakKinds()) {
        if (event.key() == static_cast<int>(kind.letter.front().unicode()))
            return m_presenter.keepSwing(kind.letter);
    }
    return event.key() == Qt::Key_F && m_presenter.takeFreeSwing();
}

/// Keys that mean something in the mode of the test.
bool BenchView::takeModeKey(const QKeyEvent &event)
{
    if (m_presenter.phase() == BenchPhase::Done || m_presenter.phase() == BenchPhase::Cautions)
        return false;
    switch (m_presenter.kind()) {
    case BenchKind::Timed:
        return m_timed->isVisible() && m_timed->takeKey(event);
    case BenchKind::Steps:
        return m_steps->isVisible() && m_steps->takeKey(event);
    case BenchKind::Oven:
        return m_oven->isVisible() && m_oven->takeKey(event);
    case BenchKind::Swing:
        return takeSwingKey(event);
    case BenchKind::Pull:
        if (event.key() == Qt::Key_Z && event.modifiers() == Qt::NoModifier) {
            m_presenter.zeroGauge();
            return true;
        }
        return false;
    }
    return false;
}

/// Space and Enter also while a button has the keyboard; a field that is typed into keeps its keys.
void BenchView::keyPressEvent(QKeyEvent *event)
{
    if (takeModeKey(*event))
        return;
    const auto looks = m_presenter.looks();
    const int letter = event->key() - Qt::Key_A;
    if (event->key() == Qt::Key_Space) {
        m_presenter.startOrStop();
    } else if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        m_presenter.next();
    } else if (event->key() == Qt::Key_Backspace) {
        m_presenter.putBack();
    } else if (event->key() == Qt::Key_Slash) {
        m_goTo->setFocus();
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
