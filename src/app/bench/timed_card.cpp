// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/timed_card.h"

#include "app/bench/large_label.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kCountdown = 3.2; ///< of the ordinary size

} // namespace

TimedCard::TimedCard(BenchPresenter &bench, QWidget *parent)
    : QWidget(parent), m_bench(bench), m_timed(bench.timed())
{
    setObjectName(QStringLiteral("timedCard"));
    m_countdown = largeLabel("timedCountdown", kCountdown);
    m_last = softLabel({});
    m_last->setObjectName(QStringLiteral("timedLast"));
    m_value = lineEdit("timedValue", tr("What the gauge reads"), tr("reading, e.g. 0.42 mm"));
    m_value->setMinimumWidth(190);
    m_value->installEventFilter(this);
    m_rests = button("timedRests", {}, true);
    m_rests->setMinimumHeight(40);
    m_take = button("timedTake", tr("Take what the gauge shows (.)"));
    m_end = button("timedEnd", tr("End here"));
    m_end->setToolTip(tr("It broke under the load, or cannot be read any more: what was read stays"));
    m_loads = lineEdit("timedLoads", tr("Loads, one after the other"), tr("loads, e.g. 2.5; 5; 10 kg"));
    m_loads->setMaximumWidth(210);
    m_rails = new TimeRails;
    auto *scroll = new QScrollArea;
    scroll->setWidget(m_rails);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto *top = new QHBoxLayout;
    top->addWidget(m_countdown);
    top->addWidget(m_last, 1);
    auto *row = new QHBoxLayout;
    row->addWidget(m_rests);
    row->addWidget(m_value);
    row->addWidget(m_take);
    row->addStretch(1);
    row->addWidget(m_loads);
    row->addWidget(m_end);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(top);
    layout->addLayout(row);
    layout->addWidget(scroll, 1);
    connect(m_rests, &QPushButton::clicked, &m_timed, &TimedPresenter::loadIsSet);
    connect(m_take, &QPushButton::clicked, this, &TimedCard::takeFromGauge);
    connect(m_end, &QPushButton::clicked, &m_timed, &TimedPresenter::endHere);
    connect(m_value, &QLineEdit::returnPressed, this, &TimedCard::keepReading);
    connect(m_value, &QLineEdit::textEdited, this, [this](const QString &text) {
        // The key that begins a value is its moment.
        if (text.isEmpty())
            m_timed.dropStamp();
        else
            m_timed.stamp();
    });
    connect(m_loads, &QLineEdit::editingFinished, this, [this] {
        if (m_loads->isModified() && m_loads->text() != m_timed.loadsText())
            m_timed.setLoads(m_loads->text());
        m_loads->setModified(false);
        refresh();
    });
    connect(m_rails, &TimeRails::chosen, &m_bench, &BenchPresenter::choose);
}

void TimedCard::keepReading()
{
    if (m_timed.take(m_value->text()))
        m_value->clear();
}

/// What the gauge on the cable shows now; without one, the moment is taken and the value is typed.
void TimedCard::takeFromGauge()
{
    const QString shown = m_bench.shownReading();
    if (!shown.isEmpty()) {
        m_timed.take(shown);
        return;
    }
    m_timed.stamp();
    m_value->setFocus();
}

void TimedCard::refresh()
{
    const TimedStep step = m_timed.step();
    const bool isRead = step == TimedStep::Reading || step == TimedStep::Set;
    const bool isMoved = step == TimedStep::PlaceLoad || step == TimedStep::TakeOff;
    m_rests->setText(step == TimedStep::TakeOff ? tr("The load is off (Space)") : tr("It rests (Space)"));
    m_rests->setVisible(isMoved);
    const bool hadFocus = m_value->hasFocus();
    if (hadFocus && !isRead)
        parentWidget()->setFocus(); // the next field in line is a note, and Space is the bench's own
    m_value->setVisible(isRead);
    if (isRead && !hadFocus && isVisible())
        m_value->setFocus(); // digits typed at the bench are the reading
    m_take->setText(m_bench.shownReading().isEmpty() ? tr("Take the moment (.)")
                                                     : tr("Take what the gauge shows (.)"));
    m_take->setVisible(isRead);
    m_end->setVisible(isRead);
    m_loads->setVisible(!m_timed.isCreep() && step == TimedStep::PlaceLoad);
    if (!m_loads->hasFocus())
        m_loads->setText(m_timed.loadsText());
    showTime();
}

void TimedCard::showTime()
{
    const std::optional<double> toNext = m_timed.secondsToNext();
    const bool isShort = toNext && std::abs(*toNext) < 100.0;
    m_countdown->setText(!toNext   ? QString()
                         : isShort ? tr("%1 s").arg(*toNext, 0, 'f', *toNext < 10.0 ? 1 : 0)
                                   : QString::fromStdString(countdownText(*toNext)));
    m_countdown->setProperty("role", toNext && *toNext <= 0.0 ? QStringLiteral("warning") : QString());
    m_last->setText(m_timed.lastText());
    m_rails->show(m_timed.rows());
}

bool TimedCard::takeKey(const QKeyEvent &event)
{
    if (event.key() == Qt::Key_Space) {
        m_timed.loadIsSet();
        return true;
    }
    const bool isRead = m_timed.step() == TimedStep::Reading || m_timed.step() == TimedStep::Set;
    if (event.key() == Qt::Key_Period && isRead) {
        takeFromGauge();
        return true;
    }
    const bool isDigit = event.text().size() == 1 && event.text().front().isDigit();
    if (isDigit && isRead && event.modifiers() == Qt::NoModifier) {
        m_timed.stamp();
        m_value->setFocus();
        m_value->setText(event.text());
        return true;
    }
    return false;
}

/// A period in the empty field takes what the gauge on the cable shows; where there is none it is typed.
bool TimedCard::eventFilter(QObject *watched, QEvent *event)
{
    if (watched == m_value && event->type() == QEvent::KeyPress) {
        const auto *key = static_cast<const QKeyEvent *>(event);
        if (key->key() == Qt::Key_Period && m_value->text().isEmpty() && !m_bench.shownReading().isEmpty()) {
            takeFromGauge();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace inchpeg::app
