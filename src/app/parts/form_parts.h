// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QString>

namespace inchpeg::app
{

/// The small parts that all lenses build their forms of.

inline QLabel *heading(const QString &text, QWidget *parent = nullptr)
{
    auto *label = new QLabel(text, parent);
    label->setProperty("role", QStringLiteral("heading"));
    label->setWordWrap(true); // gives way in a narrow window
    return label;
}

inline QLabel *softLabel(const QString &text, QWidget *parent = nullptr)
{
    auto *label = new QLabel(text, parent);
    label->setProperty("role", QStringLiteral("soft"));
    label->setWordWrap(true);
    return label;
}

/// A line to type in; name is its object name, label its accessible name.
inline QLineEdit *lineEdit(const char *name, const QString &label, const QString &placeholder = {})
{
    auto *edit = new QLineEdit;
    edit->setObjectName(QLatin1String(name));
    edit->setAccessibleName(label);
    edit->setPlaceholderText(placeholder);
    return edit;
}

inline QPushButton *button(const char *name, const QString &text, bool primary = false)
{
    auto *push = new QPushButton(text);
    push->setObjectName(QLatin1String(name));
    push->setProperty("primary", primary);
    push->setAutoDefault(false);
    return push;
}

} // namespace inchpeg::app
