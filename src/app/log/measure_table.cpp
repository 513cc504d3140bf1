// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/measure_table.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLineEdit>
#include <QRegularExpression>
#include <QTimer>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr int kLeastLastColumn = 44;
constexpr int kNarrowestRail = 84;

/// True for a table whose first line is words where the next has numbers.
bool hasHeading(const QString &text)
{
    static const QRegularExpression lineEnd(QStringLiteral("\\r\\n|\\n|\\r"));
    static const QRegularExpression word(QStringLiteral("[A-Za-z]{3}"));
    static const QRegularExpression digit(QStringLiteral("\\d"));
    const QStringList lines = text.split(lineEnd, Qt::SkipEmptyParts);
    return lines.size() > 1 && lines[0].contains(word) && lines[1].contains(digit);
}

} // namespace

MeasureTable::MeasureTable(PieceTableModel &model, QWidget *parent) : QTableView(parent), m_model(model)
{
    setObjectName(QStringLiteral("measureTable"));
    setAccessibleName(tr("Measurements of the pieces"));
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
        const QString text = QApplication::clipboard()->text();
        if (hasHeading(text))
            emit tablePasted(text);
        else
            m_model.paste(currentIndex(), text);
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

/// What a person is typing must not give way to what the model says meanwhile.
void MeasureTable::dataChanged(const QModelIndex &topLeft, const QModelIndex &bottomRight,
                               const QList<int> &roles)
{
    if (state() == EditingState)
        viewport()->update();
    else
        QTableView::dataChanged(topLeft, bottomRight, roles);
}

void MeasureTable::commitData(QWidget *editor)
{
    QTableView::commitData(editor);
    m_refused = m_model.isRefused() ? editor : nullptr;
}

/// What was refused stays in its cell as it was typed, and the cursor with it: Escape gives it up.
void MeasureTable::closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint)
{
    if (editor == m_refused && hint != QAbstractItemDelegate::RevertModelCache) {
        if (hint == QAbstractItemDelegate::SubmitModelCache) {
            editor->setFocus();
            if (auto *edit = qobject_cast<QLineEdit *>(editor))
                edit->selectAll();
        }
        return;
    }
    m_refused = nullptr;
    QTableView::closeEditor(
        editor, hint == QAbstractItemDelegate::SubmitModelCache ? QAbstractItemDelegate::NoHint : hint);
    if (hint == QAbstractItemDelegate::SubmitModelCache)
        setCurrentIndex(m_model.nextEntry(currentIndex()));
}

void MeasureTable::fitColumns()
{
    if (!isVisible())
        return;                                        // a table that is not seen would look at all its rows
    horizontalHeader()->setResizeContentsPrecision(0); // rows out of sight do not count
    resizeColumnsToContents();
    // The last takes what room is left, however long a note is; long names of rails give way.
    setColumnWidth(m_model.columnCount() - 1, kLeastLastColumn);
    const int rail = columnWidth(PieceTableModel::kRailColumn);
    const int over = horizontalHeader()->length() - viewport()->width();
    if (over > 0)
        setColumnWidth(PieceTableModel::kRailColumn, std::max(std::min(rail, kNarrowestRail), rail - over));
}

void MeasureTable::showEvent(QShowEvent *event)
{
    QTableView::showEvent(event);
    fitColumns();
    // What is highlighted as the next place to type in has the keyboard; once the lens stands where it will.
    QTimer::singleShot(0, this, &MeasureTable::takeKeyboard);
}

void MeasureTable::takeKeyboard()
{
    if (isVisible() && window()->isActiveWindow() && currentIndex().isValid())
        setFocus(Qt::OtherFocusReason);
}

void MeasureTable::takeReading(const GaugeReading &reading)
{
    if (state() == EditingState) { // what is being typed gives way to the gauge
        if (QWidget *editor = indexWidget(currentIndex()) != nullptr ? indexWidget(currentIndex())
                                                                     : viewport()->findChild<QLineEdit *>())
            QTableView::closeEditor(editor, QAbstractItemDelegate::RevertModelCache);
    }
    const QModelIndex cell = currentIndex();
    if (m_model.takeReading(cell, reading.value, reading.dimension))
        setCurrentIndex(m_model.nextEntry(cell));
}

} // namespace inchpeg::app
