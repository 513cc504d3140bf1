// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/check_view.h"

#include "app/parts/page_parts.h"
#include "app/parts/peg_mark.h"
#include "core/planning/cautions.h"

#include <QCheckBox>

namespace inchpeg::app
{

CheckView::CheckView(PlanPresenter &presenter, QWidget *parent) : QWidget(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("checkView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(heading(tr("What moves together with the factors")));
    m_confounds = new QVBoxLayout;
    m_confounds->setSpacing(2);
    layout->addLayout(m_confounds);
    layout->addWidget(heading(tr("What can hurt: confirm each before the bench")));
    layout->addWidget(
        softLabel(tr("The rig's manual, local codes and qualified people go before anything said "
                     "here.")));
    m_cautions = new QVBoxLayout;
    layout->addLayout(m_cautions);
    layout->addWidget(heading(tr("What must be at hand")));
    m_needed = new QLabel;
    m_needed->setWordWrap(true);
    m_needed->setObjectName(QStringLiteral("needed"));
    layout->addWidget(m_needed);
    layout->addStretch(1);
}

void CheckView::addConfound(const Confound &confound, int number)
{
    auto *box = new QWidget;
    auto *row = new QHBoxLayout(box);
    row->setContentsMargins(0, 2, 0, 2);
    const bool aliased = confound.weight == Confound::Weight::Aliased;
    row->addWidget(new PegMark(aliased ? PegState::Doubtful : PegState::Measured), 0, Qt::AlignTop);
    auto *words = new QLabel(QString::fromStdString(confound.sentence));
    words->setWordWrap(true);
    words->setTextInteractionFlags(Qt::TextSelectableByMouse);
    if (aliased)
        words->setProperty("role", QStringLiteral("warning"));
    row->addWidget(words, 1);
    if (confound.control) {
        auto *apply = button("", QString::fromStdString(confound.control->label));
        apply->setObjectName(QStringLiteral("control") + QString::number(number));
        row->addWidget(apply, 0, Qt::AlignTop);
        connect(apply, &QPushButton::clicked, this,
                [this, control = *confound.control] { m_presenter.apply(control); });
    }
    m_confounds->addWidget(box);
}

void CheckView::refresh()
{
    clearLayout(m_confounds);
    clearLayout(m_cautions);
    const Study &study = m_presenter.state().study();
    int number = 0;
    for (const Confound &confound : m_presenter.state().confounds())
        addConfound(confound, number++);
    if (number == 0)
        m_confounds->addWidget(softLabel(
            study.conditions.size() < 2 ? tr("There is nothing to compare yet: make rails under Ask.")
                                        : tr("Nothing that is planned moves together with the factors.")));
    for (const Caution &caution : cautionsOf(study)) {
        auto *box = new QWidget;
        auto *row = new QHBoxLayout(box);
        row->setContentsMargins(0, 2, 0, 2);
        auto *check = new QCheckBox;
        check->setObjectName(QStringLiteral("caution-") + QString::fromUtf8(caution.key.data()));
        check->setAccessibleName(QString::fromUtf8(caution.text.data()));
        check->setChecked(isConfirmed(study.plan, caution.key));
        auto *words = new QLabel(QString::fromUtf8(caution.text.data()));
        words->setWordWrap(true);
        words->setBuddy(check);
        row->addWidget(check, 0, Qt::AlignTop);
        row->addWidget(words, 1);
        m_cautions->addWidget(box);
        connect(check, &QCheckBox::clicked, this,
                [this, key = caution.key](bool on) { m_presenter.confirm(key, on); });
    }
    QStringList needed;
    for (const std::string_view thing : neededFor(study))
        needed << QString::fromUtf8(thing.data(), static_cast<qsizetype>(thing.size()));
    m_needed->setText(needed.join(QStringLiteral(" · ")));
}

} // namespace inchpeg::app
