// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/parts/form_parts.h"
#include "core/base/result.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QLineEdit>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QSpinBox>
#include <QVBoxLayout>

#include <cstddef>
#include <vector>

namespace inchpeg::app
{

/// The small parts that the pages of plan, log and workshop are built of.

inline constexpr int kNarrowestField = 64;

/// A label and its field beside it; column counts pairs.
inline void addField(QGridLayout *grid, int row, int column, const QString &text, QWidget *field,
                     int span = 1)
{
    auto *label = new QLabel(text);
    label->setBuddy(field);
    if (field->accessibleName().isEmpty())
        field->setAccessibleName(text);
    if (qobject_cast<QLineEdit *>(field) != nullptr || qobject_cast<QComboBox *>(field) != nullptr)
        field->setMinimumWidth(kNarrowestField); // gives way in a narrow window
    grid->setColumnStretch(2 * column + 1, 1);
    grid->addWidget(label, row, 2 * column, Qt::AlignLeft | Qt::AlignVCenter);
    grid->addWidget(field, row, 2 * column + 1, 1, span);
}

inline QComboBox *comboBox(const char *name, const QString &label)
{
    auto *box = new QComboBox;
    box->setObjectName(QLatin1String(name));
    box->setAccessibleName(label);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    return box;
}

inline QSpinBox *spinBox(const char *name, const QString &label, int low, int high)
{
    auto *box = new QSpinBox;
    box->setObjectName(QLatin1String(name));
    box->setAccessibleName(label);
    box->setRange(low, high);
    box->setKeyboardTracking(false);
    box->setButtonSymbols(QAbstractSpinBox::NoButtons);
    return box;
}

inline QDoubleSpinBox *numberBox(const char *name, const QString &label, double low, double high,
                                 int decimals, const QString &suffix = {})
{
    auto *box = new QDoubleSpinBox;
    box->setObjectName(QLatin1String(name));
    box->setAccessibleName(label);
    box->setRange(low, high);
    box->setDecimals(decimals);
    box->setSuffix(suffix);
    box->setKeyboardTracking(false);
    box->setButtonSymbols(QAbstractSpinBox::NoButtons);
    return box;
}

/// A time of the log as it is shown and typed: "2026-06-02 10:40" for the kept "2026-06-02T10:40".
inline QString shownTime(const std::string &kept)
{
    return QString::fromStdString(kept).replace(QLatin1Char('T'), QLatin1Char(' '));
}
inline std::string keptTime(const QString &typed)
{
    return typed.simplified().replace(QLatin1Char(' '), QLatin1Char('T')).toStdString();
}

/// Shows a value without telling of it.
template <typename Box, typename Value>
void showValue(Box *box, Value value)
{
    const QSignalBlocker blocker(box);
    box->setValue(value);
}

/// Shows a text unless the person is typing there.
inline void showText(QLineEdit *edit, const QString &text)
{
    if (edit->hasFocus() && edit->isModified())
        return;
    edit->setText(text);
    if (!edit->hasFocus())
        edit->setCursorPosition(0); // a long text is read from its beginning
}

inline void choose(QComboBox *box, int value)
{
    const QSignalBlocker blocker(box);
    box->setCurrentIndex(box->findData(value));
}

/// Calls set with what was typed once the field is left; where set refuses, refresh shows what holds.
template <typename Set, typename Refresh>
void onTyped(QLineEdit *edit, Set set, Refresh refresh)
{
    QObject::connect(edit, &QLineEdit::editingFinished, edit, [edit, set, refresh] {
        if (!edit->isModified())
            return;
        edit->setModified(false);
        if (!set(edit->text()))
            refresh();
    });
}

/// Whether the entry that a row shows is still at its place. Rows are made anew after every change, but what
/// was typed into one may come once the list, or the study, is another: leaving the field is what sends it.
template <typename Entry>
Status stillAt(std::size_t index, const std::vector<Entry> &entries, const Entry &shown)
{
    if (index < entries.size() && entries[index] == shown)
        return ok();
    return Error{ErrorCode::NotFound, "this entry is no longer there; nothing was changed", {}};
}

/// Takes everything out of a layout; the widgets go once control is back in the event loop, since one of them
/// may be the sender of the signal that led here. What comes in their place bears their names.
inline void clearLayout(QLayout *layout)
{
    while (QLayoutItem *item = layout->takeAt(0)) {
        if (QWidget *widget = item->widget()) {
            widget->hide();
            widget->setObjectName({});
            for (QWidget *part : widget->findChildren<QWidget *>())
                part->setObjectName({});
            widget->deleteLater();
        }
        if (QLayout *inner = item->layout())
            clearLayout(inner);
        delete item;
    }
}

/// A page that scrolls where the window is too low for it.
inline QVBoxLayout *scrollingPage(QWidget *page)
{
    auto *content = new QWidget;
    auto *layout = new QVBoxLayout(content);
    layout->setContentsMargins(18, 8, 18, 10);
    layout->setSpacing(7);
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(content);
    auto *outer = new QVBoxLayout(page);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(scroll);
    return layout;
}

} // namespace inchpeg::app
