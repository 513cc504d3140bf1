// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/peg_mark.h"

#include "app/rack/rack_painter.h"
#include "app/theme/theme.h"

#include <QPainter>

namespace inchpeg::app
{

namespace
{

constexpr int kSize = 22;

} // namespace

PegMark::PegMark(PegState state, QWidget *parent) : QWidget(parent), m_state(state)
{
    setFixedSize(kSize, kSize);
}

void PegMark::setState(PegState state)
{
    m_state = state;
    update();
}

void PegMark::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    paintPeg(painter, QPointF(0.5 * kSize, 0.5 * kSize), 8.0, m_state, false, false, currentTheme());
}

} // namespace inchpeg::app
