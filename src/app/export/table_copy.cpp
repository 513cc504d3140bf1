// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/export/table_copy.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QTableView>

namespace inchpeg::app
{

QString tableText(const QTableView &table)
{
    const QAbstractItemModel &model = *table.model();
    QItemSelection chosen = table.selectionModel()->selection();
    int top = 0;
    int bottom = model.rowCount() - 1;
    int left = 0;
    int right = model.columnCount() - 1;
    if (chosen.indexes().size() > 1) {
        top = bottom;
        left = right;
        bottom = right = 0;
        for (const QItemSelectionRange &range : chosen) {
            top = std::min(top, range.top());
            bottom = std::max(bottom, range.bottom());
            left = std::min(left, range.left());
            right = std::max(right, range.right());
        }
    }
    QStringList lines;
    for (int row = top - 1; row <= bottom; ++row) {
        QStringList cells;
        for (int column = left; column <= right; ++column)
            cells << (row < top ? model.headerData(column, Qt::Horizontal).toString()
                                : model.index(row, column).data().toString());
        lines << cells.join(QLatin1Char('\t'));
    }
    return lines.join(QLatin1Char('\n'));
}

void offerCopy(QTableView &table)
{
    auto *copy = new QAction(QCoreApplication::translate("TableCopy", "Copy as text"), &table);
    copy->setShortcut(QKeySequence::Copy);
    copy->setShortcutContext(Qt::WidgetShortcut);
    QObject::connect(copy, &QAction::triggered, &table,
                     [&table] { QApplication::clipboard()->setText(tableText(table)); });
    table.addAction(copy);
    table.setContextMenuPolicy(Qt::ActionsContextMenu);
}

} // namespace inchpeg::app
