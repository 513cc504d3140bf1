// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/compare/graph_view.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QClipboard>
#include <QComboBox>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace inchpeg::app
{

GraphView::GraphView(ProjectSession &session, QWidget *parent) : QWidget(parent), m_presenter(session)
{
    setObjectName(QStringLiteral("graph"));
    m_kind = comboBox("graphKind", tr("What is drawn"));
    m_kind->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_third = comboBox("graphThird", tr("A third response beside each rail"));
    m_third->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    m_sentence = new QLabel;
    m_sentence->setObjectName(QStringLiteral("graphSentence"));
    m_sentence->setWordWrap(true);
    m_sentence->setTextInteractionFlags(Qt::TextSelectableByMouse);
    m_copy = button("copyGraph", tr("Copy the data"));
    m_copy->setToolTip(tr("Tab-separated text, which pastes into a spreadsheet"));
    m_plot = new GraphPlot;
    auto *row = new QHBoxLayout;
    row->setContentsMargins(12, 6, 12, 2);
    row->addWidget(m_kind);
    row->addSpacing(6);
    row->addWidget(m_third);
    row->addSpacing(12);
    row->addWidget(m_sentence, 1);
    row->addSpacing(12);
    row->addWidget(m_copy);
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addLayout(row);
    layout->addWidget(m_plot);
    connect(m_kind, &QComboBox::activated, this,
            [this](int choice) { m_presenter.choose(static_cast<std::size_t>(choice)); });
    connect(m_third, &QComboBox::activated, this, [this](int choice) {
        m_presenter.chooseThird(choice > 0 ? std::optional(static_cast<std::size_t>(choice - 1))
                                           : std::nullopt);
    });
    connect(m_copy, &QPushButton::clicked, this,
            [this] { QGuiApplication::clipboard()->setText(m_presenter.text()); });
    connect(&m_presenter, &GraphPresenter::changed, this, &GraphView::showPresented);
    connect(m_plot, &GraphPlot::chosen, &m_presenter, &GraphPresenter::select);
}

void GraphView::showPresented()
{
    m_kind->clear();
    for (const GraphPresenter::Choice &choice : m_presenter.choices())
        m_kind->addItem(choice.name);
    m_kind->setCurrentIndex(static_cast<int>(m_presenter.chosen()));
    const std::vector<GraphPresenter::Choice> &choices = m_presenter.choices();
    m_third->setVisible(
        m_presenter.thirds().size() > 1 &&
        std::holds_alternative<GraphPresenter::OtherResponse>(choices[m_presenter.chosen()].kind));
    m_third->clear();
    m_third->addItem(tr("no third"));
    for (const GraphPresenter::Choice &choice : m_presenter.thirds())
        m_third->addItem(choice.name);
    m_third->setCurrentIndex(static_cast<int>(m_presenter.chosenThird().value_or(std::size_t(-1)) + 1));
    m_sentence->setText(QString::fromStdString(m_presenter.graph().sentence));
    m_copy->setEnabled(!m_presenter.graph().isEmpty());
    m_plot->setVisible(!m_presenter.graph().isEmpty());
    m_plot->show(m_presenter.graph(), m_presenter.notation());
}

} // namespace inchpeg::app
