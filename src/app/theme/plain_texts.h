// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QString>

class QPoint;
class QWidget;

namespace inchpeg::app
{

/// Texts of people and files are shown as they are: labels and tooltips guess whether a text is rich, so that
/// a project called "<b>" would vanish. An event filter for the whole application: labels become plain where
/// they are not marked "rich", and tooltips are written out before they are shown.
class PlainTexts : public QObject
{
    Q_OBJECT // so that it is found among the application's children by its own type
        public : using QObject::QObject;
    bool eventFilter(QObject *watched, QEvent *event) override;
};

/// Marks a label whose own text, with everything from outside escaped, is meant to be rich.
void showRich(QWidget &label);

/// Shows a tooltip with its text as it is.
void showPlainTip(const QPoint &globalAt, const QString &text, QWidget *widget);

/// A text for a button or a labelled field, in which "&" is no mark of a key.
QString withoutKeyMarks(QString text);

} // namespace inchpeg::app
