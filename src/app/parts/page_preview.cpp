// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/parts/page_preview.h"

#include "app/theme/theme.h"

#include <QKeyEvent>
#include <QPainter>
#include <QWheelEvent>

namespace inchpeg::app
{

PagePreview::PagePreview(const char *name, QWidget *parent) : QWidget(parent)
{
    setObjectName(QLatin1String(name));
    setAccessibleName(tr("The page as it will be printed"));
    setMinimumHeight(240);
    setFocusPolicy(Qt::StrongFocus);
}

void PagePreview::set(std::function<void(QPainter &)> paint, QSizeF page_mm)
{
    m_paint = std::move(paint);
    m_page_mm = page_mm;
    update();
}

void PagePreview::paintEvent(QPaintEvent *)
{
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const double scale = std::min(width() / m_page_mm.width(), height() / m_page_mm.height());
    const QRectF page(QPointF(0, 0), m_page_mm);
    painter.translate(0.5 * (width() - scale * page.width()), 0.5 * (height() - scale * page.height()));
    painter.scale(scale, scale);
    painter.fillRect(page, Qt::white);
    painter.setPen(QPen(hasFocus() ? currentTheme().accent : currentTheme().line, hasFocus() ? 0.8 : 0.3));
    painter.drawRect(page);
    painter.setClipRect(page);
    if (m_paint)
        m_paint(painter);
}

void PagePreview::wheelEvent(QWheelEvent *event)
{
    const int step = event->angleDelta().y();
    // A page that is larger than its place is scrolled by what holds it.
    if (step == 0 || (parentWidget() != nullptr && height() > parentWidget()->height())) {
        event->ignore();
        return;
    }
    emit turned(step > 0 ? -1 : 1);
    event->accept();
}

void PagePreview::keyPressEvent(QKeyEvent *event)
{
    switch (event->key()) {
    case Qt::Key_PageUp:
    case Qt::Key_Up:
        emit turned(-1);
        return;
    case Qt::Key_PageDown:
    case Qt::Key_Down:
        emit turned(1);
        return;
    default:
        QWidget::keyPressEvent(event);
    }
}

} // namespace inchpeg::app
