// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/oven_card.h"

#include "app/bench/large_label.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr double kTemperature = 4.0; ///< of the ordinary size
constexpr double kPiece = 1.25;
constexpr int kPlacesAcross = 4;

} // namespace

OvenCard::OvenCard(OvenPresenter &oven, QWidget *parent) : QWidget(parent), m_oven(oven)
{
    setObjectName(QStringLiteral("ovenCard"));
    m_temperature = largeLabel("ovenTemperature", kTemperature);
    m_rate = softLabel({});
    m_rate->setObjectName(QStringLiteral("ovenRate"));
    m_rate->setWordWrap(true);
    m_typed = lineEdit("ovenTyped", tr("What the thermometer shows"), tr("thermometer, e.g. 83.5 °C"));
    m_typed->setMaximumWidth(220);
    m_next = button("ovenNext", tr("Next pieces (Enter)"), true);
    auto *top = new QHBoxLayout;
    top->addWidget(m_temperature);
    top->addSpacing(18);
    top->addWidget(m_rate, 1);
    top->addWidget(m_typed);
    auto *grid = new QGridLayout;
    for (std::size_t i = 0; i < OvenPresenter::kMostPieces; ++i) {
        auto *push = button("ovenPiece", {});
        const QChar key(u'A' + static_cast<char16_t>(i));
        push->setObjectName(QStringLiteral("ovenPiece") + key);
        push->setMinimumHeight(92);
        QFont font = push->font();
        font.setPointSizeF(font.pointSizeF() * kPiece);
        push->setFont(font);
        push->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
        connect(push, &QPushButton::clicked, this, [this, key] { m_oven.stamp(key); });
        m_pieces.push_back(push);
        grid->addWidget(push, static_cast<int>(i) / kPlacesAcross, static_cast<int>(i) % kPlacesAcross);
    }
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addLayout(top);
    layout->addLayout(grid);
    layout->addWidget(m_next, 0, Qt::AlignLeft);
    layout->addStretch(1);
    connect(m_next, &QPushButton::clicked, this, [this] {
        m_oven.beginNext();
        refresh();
    });
    connect(m_typed, &QLineEdit::returnPressed, this, [this] {
        if (!m_oven.typeTemperature(m_typed->text()))
            return;
        m_typed->clear();
        parentWidget()->setFocus(); // letters stamp again
    });
}

void OvenCard::refresh()
{
    const std::vector<OvenPresenter::Place> places = m_oven.places();
    for (std::size_t i = 0; i < m_pieces.size(); ++i) {
        QPushButton *push = m_pieces[i];
        push->setVisible(i < places.size());
        if (i >= places.size())
            continue;
        const OvenPresenter::Place &place = places[i];
        const bool stands = place.sag.isEmpty();
        push->setText(tr("%1   %2\n%3\n%4")
                          .arg(stands ? QString(place.key) : QStringLiteral("●"), place.code, place.rail,
                               stands ? tr("stands") : tr("sagged at %1").arg(place.sag)));
        push->setEnabled(stands);
    }
    m_next->setVisible(m_oven.canBeginNext() && !places.empty());
    showTemperature();
}

void OvenCard::showTemperature()
{
    m_temperature->setText(m_oven.temperatureText());
    m_rate->setText(m_oven.rateText());
}

bool OvenCard::takeKey(const QKeyEvent &event)
{
    const bool isEnter = event.key() == Qt::Key_Return || event.key() == Qt::Key_Enter;
    if (isEnter && m_oven.canBeginNext()) {
        m_oven.beginNext();
        refresh();
        return true;
    }
    const int place = event.key() - Qt::Key_A;
    if (event.modifiers() != Qt::NoModifier || place < 0 || place >= static_cast<int>(m_oven.places().size()))
        return false;
    m_oven.stamp(QChar(u'A' + static_cast<char16_t>(place)));
    return true;
}

} // namespace inchpeg::app
