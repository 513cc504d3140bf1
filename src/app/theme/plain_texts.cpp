// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/plain_texts.h"

#include <QAbstractItemView>
#include <QHelpEvent>
#include <QLabel>
#include <QMessageBox>
#include <QToolTip>

namespace inchpeg::app
{

namespace
{

constexpr const char *kRich = "rich";

/// What a tooltip over a widget would say: of an item view's viewport that of the item.
QString tipAt(const QWidget &widget, const QPoint &at)
{
    const auto *view = qobject_cast<const QAbstractItemView *>(widget.parentWidget());
    if (view != nullptr && view->viewport() == &widget)
        return view->indexAt(at).data(Qt::ToolTipRole).toString();
    return widget.toolTip();
}

} // namespace

bool PlainTexts::eventFilter(QObject *watched, QEvent *event)
{
    if (event->type() == QEvent::Polish) {
        if (auto *label = qobject_cast<QLabel *>(watched);
            label != nullptr && label->textFormat() == Qt::AutoText && !label->property(kRich).toBool() &&
            !label->inherits("QTipLabel"))
            label->setTextFormat(Qt::PlainText);
    } else if (event->type() == QEvent::ToolTip) {
        auto *widget = qobject_cast<QWidget *>(watched);
        const auto *help = static_cast<QHelpEvent *>(event);
        const QString tip = widget == nullptr ? QString() : tipAt(*widget, help->pos());
        if (Qt::mightBeRichText(tip)) {
            showPlainTip(help->globalPos(), tip, widget);
            return true;
        }
    }
    return QObject::eventFilter(watched, event);
}

void showRich(QWidget &label)
{
    label.setProperty(kRich, true);
}

void showPlainTip(const QPoint &globalAt, const QString &text, QWidget *widget)
{
    QString shown = text;
    if (Qt::mightBeRichText(text))
        shown = text.toHtmlEscaped().replace(QLatin1Char('\n'), QStringLiteral("<br>"));
    QToolTip::showText(globalAt, shown, widget);
}

QString withoutKeyMarks(QString text)
{
    return text.replace(QLatin1Char('&'), QStringLiteral("&&"));
}

} // namespace inchpeg::app
