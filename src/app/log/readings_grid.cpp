// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/readings_grid.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>

namespace inchpeg::app
{

ReadingsGrid::ReadingsGrid(QAbstractItemModel &model, const char *name, const QString &label, QWidget *parent)
    : QTableView(parent)
{
    setModel(&model);
    setObjectName(QLatin1String(name));
    setAccessibleName(label);
    setEditTriggers(AnyKeyPressed | DoubleClicked | EditKeyPressed | SelectedClicked);
    setTabKeyNavigation(false);
    horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
}

void ReadingsGrid::closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint)
{
    const bool isTyped = hint == QAbstractItemDelegate::SubmitModelCache;
    QTableView::closeEditor(editor, isTyped ? QAbstractItemDelegate::NoHint : hint);
    if (isTyped)
        goOn();
}

void ReadingsGrid::dataChanged(const QModelIndex &from, const QModelIndex &to, const QList<int> &roles)
{
    if (state() == EditingState)
        viewport()->update(); // the base would put what the model holds over what is half typed
    else
        QTableView::dataChanged(from, to, roles);
}

void ReadingsGrid::keyPressEvent(QKeyEvent *event)
{
    if (event->matches(QKeySequence::Paste)) {
        pasteText(QApplication::clipboard()->text());
        return;
    }
    if (event->key() == Qt::Key_Delete && currentIndex().isValid()) {
        model()->setData(currentIndex(), QString());
        return;
    }
    const bool isEnter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (isEnter && event->modifiers().testFlag(Qt::ControlModifier)) {
        setFocus(); // what is being typed is taken first
        emit keepRequested();
        return;
    }
    // While a cell is edited, Enter comes here too, after its editor; closeEditor() goes on then.
    if (isEnter && event->modifiers() == Qt::NoModifier && state() != EditingState) {
        goOn(); // an empty cell says nothing, and is gone past
        return;
    }
    QTableView::keyPressEvent(event);
    if (state() == EditingState)
        event->accept(); // a digit that opened a cell belongs to it; the window must not take it for a lens
}

} // namespace inchpeg::app
