// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/pairs_card.h"

#include "app/bench/large_label.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kPairCode = 2.6; ///< of the ordinary size
constexpr double kAnswer = 1.2;

} // namespace

PairsCard::PairsCard(PairsPresenter &pairs, QWidget *parent) : QWidget(parent), m_pairs(pairs)
{
    setObjectName(QStringLiteral("pairsCard"));
    m_left = largeLabel("pairsLeft", kPairCode);
    m_right = largeLabel("pairsRight", kPairCode);
    m_progress = softLabel({});
    m_progress->setObjectName(QStringLiteral("pairsProgress"));
    m_hint = softLabel(
        tr("Which rails the two are of is told when all are answered. Say what you feel now: every pair that "
           "is only bent comes twice."));
    m_hint->setWordWrap(true);
    m_begin = button("pairsBegin", tr("Begin the round (Space)"), true);
    m_begin->setMinimumHeight(44);
    m_back = button("pairsBack", tr("Take the last answer back (Backspace)"));
    auto *both = new QGridLayout;
    both->setHorizontalSpacing(12);
    both->addWidget(m_left, 0, 0, Qt::AlignHCenter);
    both->addWidget(m_right, 0, 2, Qt::AlignHCenter);
    both->addWidget(
        answerButton("pairsAnswerLeft", tr("←\nleft one"), tr("The left one is stronger"), PairAnswer::Left),
        1, 0);
    both->addWidget(
        answerButton("pairsAnswerEven", tr("↓\nno difference"), tr("No difference"), PairAnswer::Even), 1, 1);
    both->addWidget(answerButton("pairsAnswerRight", tr("→\nright one"), tr("The right one is stronger"),
                                 PairAnswer::Right),
                    1, 2);
    for (int column = 0; column < 3; ++column)
        both->setColumnStretch(column, 1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(both);
    layout->addWidget(m_progress);
    layout->addSpacing(8);
    layout->addWidget(m_begin, 0, Qt::AlignLeft);
    layout->addWidget(m_back, 0, Qt::AlignLeft);
    layout->addWidget(m_hint);
    layout->addStretch(1);
    connect(m_begin, &QPushButton::clicked, &m_pairs, &PairsPresenter::begin);
    connect(m_back, &QPushButton::clicked, &m_pairs, &PairsPresenter::takeBack);
}

QPushButton *PairsCard::answerButton(const char *name, const QString &text, const QString &meaning,
                                     PairAnswer answer)
{
    QPushButton *push = button(name, text);
    push->setMinimumHeight(84);
    QFont font = push->font();
    font.setPointSizeF(font.pointSizeF() * kAnswer);
    push->setFont(font);
    push->installEventFilter(this);
    push->setAccessibleName(meaning);
    connect(push, &QPushButton::clicked, this, [this, answer] { m_pairs.answer(answer); });
    m_answers.push_back(push);
    return push;
}

void PairsCard::refresh()
{
    const bool isUnderWay = m_pairs.isUnderWay();
    m_left->setText(m_pairs.leftCode());
    m_right->setText(m_pairs.rightCode());
    m_progress->setText(m_pairs.progressText());
    m_begin->setVisible(!isUnderWay && m_pairs.hasWork());
    m_back->setVisible(m_pairs.canTakeBack());
    m_hint->setVisible(isUnderWay);
    m_left->setVisible(isUnderWay);
    m_right->setVisible(isUnderWay);
    for (QPushButton *push : m_answers)
        push->setVisible(isUnderWay);
}

bool PairsCard::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::KeyPress) {
        const auto &key = static_cast<const QKeyEvent &>(*event);
        if (key.key() != Qt::Key_Space && takeKey(key))
            return true;
    }
    return QWidget::eventFilter(watched, event);
}

bool PairsCard::takeKey(const QKeyEvent &event)
{
    if ((event.modifiers() & ~Qt::KeypadModifier) != Qt::NoModifier)
        return false;
    if (event.key() == Qt::Key_Space && !m_pairs.isUnderWay() && m_pairs.hasWork()) {
        m_pairs.begin();
        return true;
    }
    if (!m_pairs.isUnderWay())
        return false;
    switch (event.key()) {
    case Qt::Key_Left:
        m_pairs.answer(PairAnswer::Left);
        return true;
    case Qt::Key_Right:
        m_pairs.answer(PairAnswer::Right);
        return true;
    case Qt::Key_Down:
        m_pairs.answer(PairAnswer::Even);
        return true;
    case Qt::Key_Backspace:
        m_pairs.takeBack();
        return true;
    default:
        // While a round goes on a slip onto a digit leads to no other lens.
        return event.key() >= Qt::Key_0 && event.key() <= Qt::Key_9;
    }
}

} // namespace inchpeg::app
