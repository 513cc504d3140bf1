// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/layout_check.h"

#include <QAbstractButton>
#include <QAbstractScrollArea>
#include <QComboBox>
#include <QLabel>
#include <QLayout>
#include <QStackedWidget>
#include <QStyleOptionComboBox>
#include <QTextDocument>

namespace inchpeg::app
{

namespace
{

constexpr int kSlack_px = 2;

QString named(const QWidget &widget)
{
    QString name = QLatin1String(widget.metaObject()->className());
    for (const QWidget *at = &widget; at != nullptr; at = at->parentWidget()) {
        if (!at->objectName().isEmpty() && !at->objectName().startsWith(QLatin1String("qt_")))
            return name + QLatin1Char(' ') + at->objectName();
    }
    return name;
}

/// Text without its keyboard mark.
QString plainText(QString text)
{
    return text.replace(QLatin1String("&&"), QLatin1String("\x01"))
        .remove(QLatin1Char('&'))
        .replace(QLatin1String("\x01"), QLatin1String("&"));
}

bool isClipped(const QLabel &label)
{
    if (label.text().isEmpty() || !label.pixmap(Qt::ReturnByValue).isNull())
        return false;
    const QRect room = label.contentsRect();
    if (label.wordWrap())
        return label.heightForWidth(label.width()) > label.height() + kSlack_px;
    return label.sizeHint().width() > label.width() + kSlack_px && room.width() < label.sizeHint().width();
}

bool isClipped(const QComboBox &box)
{
    QStyleOptionComboBox option;
    option.initFrom(&box);
    option.editable = box.isEditable();
    const QRect room =
        box.style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, &box);
    return box.fontMetrics().horizontalAdvance(box.currentText()) > room.width() + kSlack_px;
}

bool isClipped(const QAbstractButton &button)
{
    int widest = 0;
    for (const QString &line : plainText(button.text()).split(QLatin1Char('\n')))
        widest = std::max(widest, button.fontMetrics().horizontalAdvance(line));
    return widest > button.width() + kSlack_px;
}

/// Neighbours in a layout that lie over each other.
void findOverlaps(const QWidget &parent, QStringList &findings)
{
    if (parent.layout() == nullptr || qobject_cast<const QStackedWidget *>(&parent) != nullptr)
        return;
    QList<QWidget *> children;
    for (QObject *child : parent.children()) {
        auto *widget = qobject_cast<QWidget *>(child);
        if (widget != nullptr && widget->isVisible() && !widget->isWindow())
            children << widget;
    }
    for (qsizetype a = 0; a < children.size(); ++a) {
        for (qsizetype b = a + 1; b < children.size(); ++b) {
            const QRect both = children[a]->geometry().intersected(children[b]->geometry());
            if (both.width() > kSlack_px && both.height() > kSlack_px)
                findings << QStringLiteral("%1 lies over %2").arg(named(*children[a]), named(*children[b]));
        }
    }
}

} // namespace

QStringList layoutFindings(const QWidget &window)
{
    QStringList findings;
    for (const QWidget *widget : window.findChildren<QWidget *>()) {
        if (!widget->isVisible() || widget->visibleRegion().isEmpty())
            continue;
        findOverlaps(*widget, findings);
        QString text;
        if (const auto *label = qobject_cast<const QLabel *>(widget)) {
            text = isClipped(*label) ? label->text() : QString();
        } else if (const auto *box = qobject_cast<const QComboBox *>(widget)) {
            text = isClipped(*box) ? box->currentText() : QString();
        } else if (const auto *button = qobject_cast<const QAbstractButton *>(widget)) {
            text = isClipped(*button) ? button->text() : QString();
        }
        if (!text.isEmpty())
            findings << QStringLiteral("%1 is cut: \"%2\"").arg(named(*widget), text.left(80));
    }
    return findings;
}

} // namespace inchpeg::app
