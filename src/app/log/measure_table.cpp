// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/measure_table.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>

namespace inchpeg::app
{

MeasureTable::MeasureTable(PieceTableModel &model, QWidget *parent) : QTableView(parent), m_model(model)
{
    setObjectName(QStringLiteral("measureTable"));
    setAccessibleName(tr("Measured sections"));
    setModel(&model);
    setEditTriggers(QAbstractItemView::AnyKeyPressed | QAbstractItemView::DoubleClicked |
                    QAbstractItemView::EditKeyPressed);
    setSelectionMode(QAbstractItemView::ContiguousSelection);
    verticalHeader()->hide();
    horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    horizontalHeader()->setStretchLastSection(true);
    horizontalHeader()->setHighlightSections(false);
    setTabKeyNavigation(false);
}

void MeasureTable::keyPressEvent(QKeyEvent *event)
{
    if (event->matches(QKeySequence::Paste)) {
        m_model.paste(currentIndex(), QApplication::clipboard()->text());
    } else if (event->matches(QKeySequence::Copy)) {
        QApplication::clipboard()->setText(m_model.copied(selectionModel()->selectedIndexes()));
    } else if (event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) {
        m_model.clear(selectionModel()->selectedIndexes());
    } else if (state() != EditingState && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)) {
        // While a cell is edited, Enter comes here too, after its editor; closeEditor() goes on then.
        setCurrentIndex(m_model.nextEntry(currentIndex()));
    } else {
        QTableView::keyPressEvent(event);
        // A digit that opened a cell belongs to the cell; the window must not take it for a lens.
        if (state() == EditingState)
            event->accept();
    }
}

void MeasureTable::closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint)
{
    QTableView::closeEditor(
        editor, hint == QAbstractItemDelegate::SubmitModelCache ? QAbstractItemDelegate::NoHint : hint);
    if (hint == QAbstractItemDelegate::SubmitModelCache)
        setCurrentIndex(m_model.nextEntry(currentIndex()));
}

} // namespace inchpeg::app
