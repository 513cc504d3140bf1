// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/practice/practice_window.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr PracticeVerdict kVerdicts[] = {PracticeVerdict::CannotTell, PracticeVerdict::More,
                                         PracticeVerdict::Less, PracticeVerdict::NoDifference};

} // namespace

PracticeWindow::PracticeWindow(PracticePresenter &presenter, QWidget *parent)
    : QDialog(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("practiceWindow"));
    setWindowTitle(tr("Your verdict, and the truth"));
    resize(620, 380);
    m_intro = new QLabel;
    m_intro->setWordWrap(true);
    m_rows = new QWidget;
    m_grid = new QGridLayout(m_rows);
    m_grid->setContentsMargins(0, 0, 0, 0);
    m_grid->setHorizontalSpacing(14);
    m_grid->setColumnStretch(2, 1);
    m_summary = new QLabel;
    m_summary->setObjectName(QStringLiteral("practiceSummary"));
    m_summary->setWordWrap(true);
    m_summary->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_reveal = button("practiceReveal", tr("Give the verdict and see what was true"), true);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(16, 14, 16, 14);
    layout->setSpacing(12);
    layout->addWidget(m_intro);
    layout->addWidget(m_rows);
    layout->addWidget(m_summary);
    layout->addStretch(1);
    layout->addWidget(m_reveal, 0, Qt::AlignLeft);
    connect(m_reveal, &QPushButton::clicked, &m_presenter, &PracticePresenter::reveal);
    connect(&m_presenter, &PracticePresenter::changed, this, &PracticeWindow::refresh);
    refresh();
}

void PracticeWindow::refresh()
{
    while (QLayoutItem *item = m_grid->takeAt(0)) {
        if (item->widget() != nullptr)
            item->widget()->deleteLater();
        delete item;
    }
    const bool isRevealed = m_presenter.isRevealed();
    const std::vector<PracticePresenter::Row> rows = m_presenter.rows();
    m_intro->setText(!m_presenter.isPractice() ? tr("This is no practice project: nothing is hidden here.")
                     : rows.empty()            ? tr("Rails beside the reference are needed for a verdict.")
                     : isRevealed              ? tr("What you said, and what is true of the virtual pieces:")
                                  : tr("Look at Compare, then say of each rail what it does beside the "
                                       "reference. The verdict cannot be changed afterwards."));
    for (int i = 0; i < static_cast<int>(rows.size()); ++i) {
        const PracticePresenter::Row &row = rows[static_cast<std::size_t>(i)];
        auto *title = new QLabel(row.title);
        title->setStyleSheet(QStringLiteral("font-weight: 600"));
        m_grid->addWidget(title, i, 0);
        if (isRevealed) {
            m_grid->addWidget(new QLabel(PracticePresenter::verdictText(row.said)), i, 1);
            auto *truth = new QLabel(row.truth);
            truth->setObjectName(QStringLiteral("practiceTruth%1").arg(i));
            truth->setWordWrap(true);
            m_grid->addWidget(truth, i, 2);
            continue;
        }
        auto *verdict = comboBox("", tr("Verdict on %1").arg(row.title));
        verdict->setObjectName(QStringLiteral("practiceVerdict%1").arg(i));
        verdict->setMinimumWidth(160);
        for (const PracticeVerdict one : kVerdicts)
            verdict->addItem(PracticePresenter::verdictText(one));
        verdict->setCurrentIndex(static_cast<int>(
            std::find(std::begin(kVerdicts), std::end(kVerdicts), row.said) - std::begin(kVerdicts)));
        connect(verdict, &QComboBox::activated, this,
                [this, rail = row.rail](int index) { m_presenter.say(rail, kVerdicts[index]); });
        m_grid->addWidget(verdict, i, 1);
    }
    m_summary->setText(m_presenter.summary());
    m_summary->setVisible(isRevealed);
    m_reveal->setVisible(m_presenter.isPractice() && !isRevealed && !rows.empty());
}

} // namespace inchpeg::app
