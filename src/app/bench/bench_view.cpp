// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/bench_view.h"

#include "app/bench/large_label.h"
#include "app/bench/live_words.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"
#include "app/session/photos.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>

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
    m_practiceBar = new PracticeBar(practice);
    m_connection = new BenchConnection(session, presenter, practice);
    layout->addWidget(m_practiceBar);
    layout->addWidget(m_connection);
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
    m_feel = new FeelCard(presenter.feel());
    m_pairs = new PairsCard(presenter.pairs());
    for (QWidget *card :
         {static_cast<QWidget *>(m_timed), static_cast<QWidget *>(m_steps), static_cast<QWidget *>(m_oven),
          static_cast<QWidget *>(m_feel), static_cast<QWidget *>(m_pairs)})
        layout->addWidget(card, 1);
    layout->addWidget(createAfter());
    layout->addStretch(0); // takes the room that no card asks for
    m_frames.setTimerType(Qt::PreciseTimer);
    m_frames.setInterval(kFrame_ms);
    connect(&m_frames, &QTimer::timeout, this, [this] {
        m_presenter.poll();
        ++m_frame;
        if (m_frame % kFramesPerDigits == 0)
            showDigits();
        if (m_frame % kFramesPerState == 0)
            m_connection->showState();
        showLive();
    });
    connect(&m_presenter, &BenchPresenter::changed, this, [this] {
        if (isVisible()) // records are read by the hundred while another lens is shown
            refresh();
    });
    connect(&m_presenter, &BenchPresenter::told, this, &BenchView::say);
    connect(m_connection, &BenchConnection::said, this, &BenchView::say);
    connect(m_practiceBar, &PracticeBar::verdictRequested, this, &BenchView::verdictRequested);
    connect(&practice, &PracticePresenter::changed, this, [this] {
        if (isVisible())
            refresh();
    });
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
    m_goTo = lineEdit("benchGoTo", tr("Code or label of a piece"), tr("code or label (/)"));
    m_goTo->setMaximumWidth(120);
    m_goTo->setMinimumWidth(60);
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
            if (m_presenter.kind() == BenchKind::Typed)
                m_session.setLens(Lens::Log);
            else
                m_presenter.startOrStop();
            break;
        }
    });
    connect(m_goTo, &QLineEdit::returnPressed, this, [this] {
        if (m_presenter.goTo(m_goTo->text()))
            m_goTo->clear();
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

void BenchView::addPhoto()
{
    const QString path = m_prompts.filePath(this, tr("Add a photo"), photoFilter());
    if (!path.isEmpty() && m_presenter.piece() != nullptr)
        addPhotos(m_session, m_presenter.piece()->id, {path});
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
    m_connection->refresh();
    m_practiceBar->refresh(m_presenter.openCautions().empty());
    m_plot->setVisible(kind == BenchKind::Pull);
    m_hammer->setVisible(kind == BenchKind::Swing);
    m_timed->setVisible(kind == BenchKind::Timed && isReadied && hasPiece);
    m_steps->setVisible(kind == BenchKind::Steps && isReadied && hasPiece);
    m_goTo->setVisible(!isBlind(kind)); // it would tell the rail
    m_oven->setVisible(kind == BenchKind::Oven && isReadied);
    m_feel->setVisible(kind == BenchKind::Feel && isReadied);
    m_pairs->setVisible(kind == BenchKind::Pairs && isReadied);
    m_timed->refresh();
    m_steps->refresh();
    m_oven->refresh();
    m_feel->refresh();
    m_pairs->refresh();
    const bool isAboutOne = kind != BenchKind::Oven && !isBlind(kind);
    m_piece->setText(isAboutOne                ? m_presenter.pieceTitle()
                     : kind == BenchKind::Oven ? tr("Oven")
                                               : tr("By feel, blind"));
    m_rail->setText(hasPiece && isAboutOne
                        ? tr("%1 · %2 · %n to test", nullptr, static_cast<int>(m_presenter.waiting()))
                              .arg(m_presenter.railTitle(), m_presenter.expectedText())
                    : isAboutOne ? QString()
                                 : tr("%n to test", nullptr, static_cast<int>(m_presenter.waiting())));
    m_action->setText(m_presenter.nextAction());
    const bool canStart =
        (phase == BenchPhase::Ready && (kind == BenchKind::Pull || kind == BenchKind::Typed)) ||
        phase == BenchPhase::Recording;
    m_main->setText(phase == BenchPhase::Cautions    ? tr("I have read them")
                    : phase == BenchPhase::Done      ? tr("Next piece (Enter)")
                    : phase == BenchPhase::Recording ? tr("End it (Space)")
                    : kind == BenchKind::Typed       ? tr("Type its readings")
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
    showDigits();
    showLive();
}

void BenchView::showDigits()
{
    const LiveState &live = m_presenter.live();
    const BenchKind kind = m_presenter.kind();
    const bool showsDigits = live.isConnected && kind != BenchKind::Oven && kind != BenchKind::Steps &&
                             !isBlind(kind) && kind != BenchKind::Typed;
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
    case BenchKind::Feel:
        return m_feel->isVisible() && m_feel->takeKey(event);
    case BenchKind::Pairs:
        return m_pairs->isVisible() && m_pairs->takeKey(event);
    case BenchKind::Typed:
        return false;
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
    m_connection->offerPorts();
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
