// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/break_panel.h"

#include "app/parts/break_drawing.h"
#include "app/parts/form_parts.h"
#include "app/parts/page_parts.h"

#include <QGridLayout>
#include <QPainter>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kLooksAcross = 4;
constexpr QSize kButton{56, 70};
constexpr double kDrawing = 34.0;
constexpr double kWordScale = 0.78;

} // namespace

BreakButton::BreakButton(const BreakLook &look, QWidget *parent) : QAbstractButton(parent), m_look(look)
{
    setObjectName(QStringLiteral("break-") + QString::fromUtf8(look.name));
    setAccessibleName(tr("Break: %1").arg(QString::fromUtf8(look.label)));
    setToolTip(QString::fromUtf8(look.meaning));
    setCheckable(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(kButton);
}

QSize BreakButton::sizeHint() const
{
    return kButton;
}

void BreakButton::paintEvent(QPaintEvent *)
{
    const Theme &theme = currentTheme();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF frame = QRectF(rect()).adjusted(1.0, 1.0, -1.0, -1.0);
    const bool marked = isChecked() || hasFocus();
    painter.setPen(QPen(marked ? theme.accent : theme.line, isChecked() ? 2.0 : 1.0));
    painter.setBrush(theme.sheet);
    painter.drawRoundedRect(frame, 4.0, 4.0);
    paintBreak(painter, QRectF(0.5 * (width() - kDrawing), 4.0, kDrawing, kDrawing), m_look, theme);
    QFont word = font();
    word.setPointSizeF(word.pointSizeF() * kWordScale);
    word.setBold(isChecked());
    painter.setFont(word);
    painter.setPen(isChecked() ? theme.accent : theme.ink);
    painter.drawText(QRectF(2.0, kDrawing + 4.0, width() - 4.0, height() - kDrawing - 6.0),
                     Qt::AlignHCenter | Qt::AlignTop | Qt::TextWordWrap, QString::fromUtf8(m_look.label));
}

BreakPanel::BreakPanel(QWidget *parent) : QWidget(parent)
{
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 4, 0, 4);
    layout->setSpacing(4);
    layout->addWidget(heading(tr("The break")));
    m_grid = new QGridLayout;
    m_grid->setSpacing(3);
    layout->addLayout(m_grid);
    hide();
}

void BreakPanel::showLooks(std::span<const BreakLook> looks, std::string_view chosen)
{
    setVisible(!looks.empty());
    const BreakLook *first = looks.empty() ? nullptr : looks.data();
    if (m_shown != first) {
        m_shown = first;
        m_buttons.clear();
        clearLayout(m_grid);
        int place = 0;
        for (const BreakLook &look : looks) {
            auto *one = new BreakButton(look);
            m_grid->addWidget(one, place / kLooksAcross, place % kLooksAcross);
            ++place;
            connect(one, &QAbstractButton::clicked, this, [this, one](bool checked) {
                emit said(checked ? QString::fromUtf8(one->look().name) : QString());
            });
            m_buttons.push_back(one);
        }
    }
    for (BreakButton *one : m_buttons)
        one->setChecked(one->look().name == chosen);
}

} // namespace inchpeg::app
