// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QTableView>

namespace inchpeg::app
{

/// A grid in which readings are typed: a digit opens its cell, Enter takes it and goes on, Ctrl+Enter keeps,
/// Delete empties, and what comes from elsewhere leaves what is half typed alone.
class ReadingsGrid : public QTableView
{
    Q_OBJECT
public:
    ReadingsGrid(QAbstractItemModel &model, const char *name, const QString &label, QWidget *parent);

signals:
    void keepRequested(); ///< by Ctrl+Enter

protected:
    /// To the cell that is typed next.
    virtual void goOn() = 0;
    virtual void pasteText(const QString &text) = 0;

    void closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint) override;
    void keyPressEvent(QKeyEvent *event) override;
    void dataChanged(const QModelIndex &from, const QModelIndex &to, const QList<int> &roles) override;
};

} // namespace inchpeg::app
