// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/piece_card_view.h"

#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QApplication>
#include <QGridLayout>
#include <QPointer>
#include <QTimer>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kWidestCard = 300;
constexpr int kNarrowestCard = 245;
constexpr int kAround = 24; ///< of what is scrolled into view

} // namespace

PieceCardView::PieceCardView(ReadPresenter &presenter, QWidget *parent)
    : QScrollArea(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("pieceCard"));
    auto *card = new QWidget;
    auto *layout = new QVBoxLayout(card);
    layout->setContentsMargins(6, 4, 10, 6);
    m_title = heading({});
    m_title->setObjectName(QStringLiteral("pieceTitle"));
    m_origin = softLabel({});
    m_origin->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto *properties = new QWidget;
    m_properties = new QGridLayout(properties);
    m_properties->setContentsMargins(0, 4, 0, 4);
    m_properties->setVerticalSpacing(3);
    m_properties->setColumnStretch(0, 1);
    m_markers = new MarkerPanel(presenter.placing());
    m_attention = new QLabel;
    m_attention->setObjectName(QStringLiteral("attention"));
    m_attention->setProperty("role", QStringLiteral("warning"));
    m_attention->setWordWrap(true);
    m_break = new BreakPanel;
    connect(m_break, &BreakPanel::said, &m_presenter, &ReadPresenter::sayBreak);
    m_exclusion = new QLabel;
    m_exclusion->setWordWrap(true);
    layout->addWidget(m_title);
    layout->addWidget(m_origin);
    layout->addWidget(properties);
    layout->addWidget(m_attention);
    layout->addWidget(m_break);
    layout->addWidget(m_markers);
    layout->addWidget(m_exclusion);
    addDecisions(*layout);
    layout->addStretch();
    setWidget(card);
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setMinimumWidth(kNarrowestCard);
    setMaximumWidth(kWidestCard);
    // What has the keyboard is to be seen, also a question that was shown a moment ago.
    connect(qApp, &QApplication::focusChanged, this, [this](QWidget *, QWidget *now) {
        if (now != nullptr && widget()->isAncestorOf(now))
            QTimer::singleShot(0, this, [this, shown = QPointer(now)] {
                if (shown != nullptr)
                    ensureWidgetVisible(shown, 0, kAround);
            });
    });
}

void PieceCardView::addDecisions(QLayout &layout)
{
    m_reason =
        lineEdit("exclusionReason", tr("Reason for leaving the piece out"), tr("why it does not count"));
    m_leaveOut = button("leaveOut", tr("Leave out"));
    m_takeBack = button("takeBack", tr("Take back in"));
    m_takeOff = button("takeOffRecord", tr("Take the record off this peg"));
    const auto leaveOut = [this] {
        if (m_presenter.leaveOut(m_reason->text()))
            m_reason->clear();
    };
    connect(m_leaveOut, &QPushButton::clicked, this, leaveOut);
    connect(m_reason, &QLineEdit::returnPressed, this, leaveOut);
    connect(m_takeBack, &QPushButton::clicked, &m_presenter, &ReadPresenter::takeBackIn);
    connect(m_takeOff, &QPushButton::clicked, &m_presenter, &ReadPresenter::takeOffRecord);
    auto *reason = new QWidget;
    auto *row = new QHBoxLayout(reason);
    row->setContentsMargins(0, 6, 0, 0);
    row->addWidget(m_reason, 1);
    row->addWidget(m_leaveOut);
    layout.addWidget(reason);
    layout.addWidget(m_takeBack);
    layout.addWidget(m_takeOff);
}

void PieceCardView::refreshProperties(const std::vector<PropertyLine> &lines)
{
    clearLayout(m_properties);
    int row = 0;
    for (const PropertyLine &line : lines) {
        auto *label = new QLabel(line.label);
        auto *value = new QLabel(line.value);
        value->setAlignment(Qt::AlignRight);
        value->setTextInteractionFlags(Qt::TextSelectableByMouse);
        for (QLabel *part : {label, value}) {
            part->setToolTip(line.rule);
            part->setWhatsThis(line.rule);
        }
        m_properties->addWidget(label, row, 0);
        m_properties->addWidget(value, row++, 1);
        if (line.automatic.isEmpty())
            continue;
        auto *found = softLabel(line.automatic);
        found->setAlignment(Qt::AlignRight);
        found->setToolTip(tr("What the record gives without the markers that were placed by hand"));
        m_properties->addWidget(found, row++, 0, 1, 2);
    }
}

void PieceCardView::refresh()
{
    const PieceCard card = m_presenter.card();
    m_title->setText(card.title);
    m_origin->setText(card.title.isEmpty() ? QString() : tr("%1\n%2").arg(card.section, card.origin));
    refreshProperties(card.properties);
    m_attention->setText(card.attention.join(QStringLiteral("\n\n")));
    m_attention->setVisible(!card.attention.isEmpty());
    m_break->showLooks(card.looks, card.look);
    m_exclusion->setText(card.exclusionText);
    m_exclusion->setVisible(card.isLeftOut);
    m_reason->setVisible(card.canLeaveOut);
    m_leaveOut->setVisible(card.canLeaveOut);
    m_takeBack->setVisible(card.isLeftOut);
    m_takeOff->setVisible(card.hasRecord);
}

} // namespace inchpeg::app
