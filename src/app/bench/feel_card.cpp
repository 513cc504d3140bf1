// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/feel_card.h"

#include "app/bench/large_label.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kFeelCode = 4.0; ///< of the ordinary size
constexpr double kGrade = 1.2;

QString gradeWord(int grade)
{
    switch (grade) {
    case 1:
        return FeelCard::tr("very weak");
    case 2:
        return FeelCard::tr("weak");
    case 3:
        return FeelCard::tr("middling");
    case 4:
        return FeelCard::tr("strong");
    default:
        return FeelCard::tr("very strong");
    }
}

} // namespace

FeelCard::FeelCard(FeelPresenter &feel, QWidget *parent) : QWidget(parent), m_feel(feel)
{
    setObjectName(QStringLiteral("feelCard"));
    m_code = largeLabel("feelCode", kFeelCode);
    m_progress = softLabel({});
    m_progress->setObjectName(QStringLiteral("feelProgress"));
    m_hint = softLabel(
        tr("Which rail a piece is of is told when all are graded. Grade what you feel now, not what you "
           "gave before."));
    m_hint->setWordWrap(true);
    m_begin = button("feelBegin", tr("Begin the round (Space)"), true);
    m_begin->setMinimumHeight(44);
    m_back = button("feelBack", tr("Take the last grade back (Backspace)"));
    auto *grades = new QHBoxLayout;
    for (int grade = 1; grade <= 5; ++grade) {
        auto *push = button("feelGrade", tr("%1\n%2").arg(grade).arg(gradeWord(grade)));
        push->setObjectName(QStringLiteral("feelGrade%1").arg(grade));
        push->setAccessibleName(tr("Grade %1, %2").arg(grade).arg(gradeWord(grade)));
        push->setMinimumHeight(84);
        push->setMinimumWidth(96);
        QFont font = push->font();
        font.setPointSizeF(font.pointSizeF() * kGrade);
        push->setFont(font);
        connect(push, &QPushButton::clicked, this, [this, grade] { m_feel.grade(grade); });
        m_grades.push_back(push);
        grades->addWidget(push, 1);
    }
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_code);
    layout->addWidget(m_progress);
    layout->addSpacing(8);
    layout->addWidget(m_begin, 0, Qt::AlignLeft);
    layout->addLayout(grades);
    layout->addWidget(m_back, 0, Qt::AlignLeft);
    layout->addWidget(m_hint);
    layout->addStretch(1);
    connect(m_begin, &QPushButton::clicked, &m_feel, &FeelPresenter::begin);
    connect(m_back, &QPushButton::clicked, &m_feel, &FeelPresenter::takeBack);
}

void FeelCard::refresh()
{
    const bool isUnderWay = m_feel.isUnderWay();
    m_code->setText(m_feel.code());
    m_code->setVisible(isUnderWay);
    m_progress->setText(m_feel.progressText());
    m_begin->setVisible(!isUnderWay && m_feel.hasWork());
    m_back->setVisible(m_feel.canTakeBack());
    m_hint->setVisible(isUnderWay);
    for (QPushButton *push : m_grades)
        push->setVisible(isUnderWay);
}

bool FeelCard::takeKey(const QKeyEvent &event)
{
    if (event.key() == Qt::Key_Space && !m_feel.isUnderWay() && m_feel.hasWork()) {
        m_feel.begin();
        return true;
    }
    if (!m_feel.isUnderWay())
        return false;
    if (event.key() == Qt::Key_Backspace) {
        m_feel.takeBack();
        return true;
    }
    // Digits of a number pad count as well; while a round goes on no digit is a lens.
    const int grade = event.key() - Qt::Key_0;
    if ((event.modifiers() & ~Qt::KeypadModifier) != Qt::NoModifier || grade < 0 || grade > 9)
        return false;
    if (grade >= 1 && grade <= static_cast<int>(m_grades.size()))
        m_feel.grade(grade);
    return true;
}

} // namespace inchpeg::app
