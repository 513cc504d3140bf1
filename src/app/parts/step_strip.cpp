// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/step_strip.h"

#include "app/parts/form_parts.h"
#include "app/rack/rack_painter.h"
#include "app/theme/theme.h"

#include <QButtonGroup>
#include <QEvent>
#include <QHBoxLayout>
#include <QIcon>
#include <QPainter>

namespace inchpeg::app
{

namespace
{

constexpr int kMark = 16;
constexpr int kPadding = 16;

PegState pegOf(StepState state)
{
    switch (state) {
    case StepState::Open:
        return PegState::Open;
    case StepState::Done:
        return PegState::Read;
    case StepState::Mind:
        return PegState::Doubtful;
    }
    throw ContractViolation("unknown state of a part");
}

QString wordOf(StepState state)
{
    switch (state) {
    case StepState::Open:
        return StepStrip::tr("nothing said yet");
    case StepState::Done:
        return StepStrip::tr("settled");
    case StepState::Mind:
        return StepStrip::tr("look at it");
    }
    throw ContractViolation("unknown state of a part");
}

QIcon markOf(StepState state, qreal ratio)
{
    QPixmap pixmap(QSize(kMark, kMark) * ratio);
    pixmap.setDevicePixelRatio(ratio);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setRenderHint(QPainter::Antialiasing);
    paintPeg(painter, QPointF(0.5 * kMark, 0.5 * kMark), 7.0, pegOf(state), false, false, currentTheme());
    return pixmap;
}

} // namespace

StepStrip::StepStrip(QStringList names, const QString &objectName, QWidget *parent)
    : QWidget(parent), m_names(std::move(names))
{
    m_group = new QButtonGroup(this);
    auto *layout = new QHBoxLayout(this);
    layout->setContentsMargins(12, 4, 12, 0);
    layout->setSpacing(0);
    for (int part = 0; part < m_names.size(); ++part) {
        auto *push = button("", m_names[part]);
        push->setObjectName(objectName + QString::number(part));
        push->setProperty("step", true);
        push->setCheckable(true);
        push->setIconSize(QSize(kMark, kMark));
        QFont bold = font();
        bold.setWeight(QFont::DemiBold);
        push->setMinimumWidth(QFontMetrics(bold).horizontalAdvance(push->text()) + kMark + kPadding);
        m_group->addButton(push, part);
        layout->addWidget(push);
        m_parts.push_back({push, StepState::Open});
        dress(m_parts.size() - 1);
    }
    layout->addStretch(1);
    connect(m_group, &QButtonGroup::idClicked, this, &StepStrip::chosen);
    choose(0);
}

void StepStrip::dress(std::size_t index)
{
    Part &part = m_parts[index];
    part.button->setIcon(markOf(part.state, devicePixelRatioF()));
    part.button->setAccessibleName(m_names[static_cast<qsizetype>(index)]);
}

void StepStrip::setState(int index, StepState state, const QString &tip)
{
    Part &part = m_parts[static_cast<std::size_t>(index)];
    const QString words = tip.isEmpty() ? wordOf(state) : tip;
    part.button->setToolTip(words);
    part.button->setAccessibleDescription(words);
    if (part.state == state)
        return;
    part.state = state;
    dress(static_cast<std::size_t>(index));
}

void StepStrip::choose(int part)
{
    m_group->button(part)->setChecked(true);
}

void StepStrip::changeEvent(QEvent *event)
{
    QWidget::changeEvent(event);
    if (event->type() == QEvent::PaletteChange || event->type() == QEvent::StyleChange) {
        for (std::size_t i = 0; i < m_parts.size(); ++i)
            dress(i);
    }
}

} // namespace inchpeg::app
