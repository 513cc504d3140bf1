// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/practice/practice_bar.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace inchpeg::app
{

PracticeBar::PracticeBar(PracticePresenter &practice, QWidget *parent) : QWidget(parent), m_practice(practice)
{
    auto *words = new QLabel(tr("Practice: the pieces are virtual, and what is true of them is hidden."));
    words->setProperty("role", QStringLiteral("warning"));
    words->setWordWrap(true);
    m_breakOne = button("practiceOne", tr("Break one of each rail"));
    m_breakAll = button("practiceAll", tr("Break all"));
    auto *verdict = button("practiceVerdict", tr("Verdict…"));
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(words, 1);
    for (QPushButton *push : {m_breakOne, m_breakAll, verdict}) {
        push->setProperty("slim", true);
        row->addWidget(push);
    }
    connect(m_breakOne, &QPushButton::clicked, this, [this] { m_practice.breakPieces(false); });
    connect(m_breakAll, &QPushButton::clicked, this, [this] { m_practice.breakPieces(true); });
    connect(verdict, &QPushButton::clicked, this, &PracticeBar::verdictRequested);
}

void PracticeBar::refresh(bool isConfirmed)
{
    setVisible(m_practice.isPractice());
    const bool canBreak = m_practice.isPractice() && isConfirmed && m_practice.canBreak();
    m_breakOne->setEnabled(canBreak);
    m_breakAll->setEnabled(canBreak);
}

} // namespace inchpeg::app
