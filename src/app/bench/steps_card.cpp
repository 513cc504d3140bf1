// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/steps_card.h"

#include "app/bench/large_label.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kHeight = 4.0; ///< of the ordinary size

} // namespace

StepsCard::StepsCard(StepsPresenter &steps, QWidget *parent) : QWidget(parent), m_steps(steps)
{
    setObjectName(QStringLiteral("stepsCard"));
    m_height = largeLabel("stepsHeight", kHeight);
    m_energy = softLabel({});
    m_energy->setObjectName(QStringLiteral("stepsEnergy"));
    m_trials = new QLabel;
    m_trials->setObjectName(QStringLiteral("stepsTrials"));
    m_trials->setWordWrap(true);
    m_held = button("stepsHeld", tr("It held (H)"), true);
    m_failed = button("stepsFailed", tr("It failed (F)"), true);
    for (QPushButton *push : {m_held, m_failed}) {
        push->setMinimumHeight(48);
        push->setMinimumWidth(170);
    }
    m_rule = comboBox("stepsRule", tr("Which height comes next"));
    m_rule->setMinimumWidth(190);
    m_rule->addItem(tr("rising, piece by piece"));
    m_rule->addItem(tr("up and down, one drop a piece"));
    m_mass = lineEdit("stepsMass", tr("Falling weight"), tr("e.g. 1 kg"));
    m_start = lineEdit("stepsStart", tr("First height"), tr("first height"));
    m_step = lineEdit("stepsStep", tr("Step"), tr("step"));
    for (QLineEdit *edit : {m_mass, m_start, m_step}) {
        edit->setMaximumWidth(96);
        connect(edit, &QLineEdit::editingFinished, this, &StepsCard::keepPlan);
    }
    connect(m_rule, &QComboBox::activated, this, &StepsCard::keepPlan);
    connect(m_held, &QPushButton::clicked, this, [this] { m_steps.say(false); });
    connect(m_failed, &QPushButton::clicked, this, [this] { m_steps.say(true); });
    auto *outcome = new QHBoxLayout;
    outcome->addWidget(m_held);
    outcome->addWidget(m_failed);
    outcome->addStretch(1);
    auto *plan = new QHBoxLayout;
    for (const auto &[words, widget] : {std::pair<QString, QWidget *>{tr("Weight"), m_mass},
                                        {tr("from"), m_start},
                                        {tr("in steps of"), m_step}}) {
        auto *label = new QLabel(words);
        if (widget == m_mass)
            m_massWord = label;
        plan->addWidget(label);
        plan->addWidget(widget);
    }
    plan->addWidget(m_rule);
    plan->addStretch(1);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(m_height);
    layout->addWidget(m_energy);
    layout->addLayout(outcome);
    layout->addWidget(m_trials);
    layout->addStretch(1);
    layout->addLayout(plan);
}

void StepsCard::keepPlan()
{
    if (m_mass->isModified() && m_mass->text() != m_steps.massText())
        m_steps.setMass(m_mass->text());
    const StepRule rule = m_rule->currentIndex() == 1 ? StepRule::UpAndDown : StepRule::Rise;
    if (m_start->isModified() || m_step->isModified() || rule != m_steps.plan().rule)
        m_steps.setPlan(rule, m_start->text(), m_step->text());
    for (QLineEdit *edit : {m_mass, m_start, m_step})
        edit->setModified(false);
    refresh();
}

void StepsCard::refresh()
{
    m_height->setText(m_steps.nextText());
    m_energy->setText(m_steps.energyText());
    m_trials->setText(m_steps.trialsText());
    const bool canDrop = m_steps.nextStep().has_value();
    m_held->setVisible(canDrop);
    m_failed->setVisible(canDrop);
    const bool isByWeight = m_steps.isByWeight();
    m_massWord->setVisible(isByWeight);
    m_mass->setVisible(isByWeight);
    m_rule->setVisible(isByWeight);
    m_start->setPlaceholderText(isByWeight ? tr("first height") : tr("first torque"));
    const StepPlan plan = m_steps.plan();
    m_rule->setCurrentIndex(plan.rule == StepRule::UpAndDown ? 1 : 0);
    for (const auto &[edit, text] : {std::pair<QLineEdit *, QString>{m_mass, m_steps.massText()},
                                     {m_start, m_steps.stepText(plan.start)},
                                     {m_step, m_steps.stepText(plan.step)}}) {
        if (!edit->hasFocus())
            edit->setText(text);
    }
}

bool StepsCard::takeKey(const QKeyEvent &event)
{
    if (event.modifiers() != Qt::NoModifier || !m_steps.nextStep())
        return false;
    if (event.key() != Qt::Key_H && event.key() != Qt::Key_F)
        return false;
    m_steps.say(event.key() == Qt::Key_F);
    return true;
}

} // namespace inchpeg::app
