// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/piece_table_model.h"
#include "core/logbook/gauge_line.h"

#include <QTableView>

namespace inchpeg::app
{

/// The entry grid: a digit starts typing, Enter goes on to the next cell, Ctrl+V pastes, Delete clears.
class MeasureTable : public QTableView
{
    Q_OBJECT
public:
    explicit MeasureTable(PieceTableModel &model, QWidget *parent = nullptr);
    /// Gives each column the room that its heading and the rows in sight want.
    void fitColumns();
    /// Puts a gauge's reading in the present cell and goes on to the next.
    void takeReading(const GaugeReading &reading);

signals:
    /// A whole table with its heading line was pasted; it is to be looked at first.
    void tablePasted(const QString &text);

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void takeKeyboard();
    void dataChanged(const QModelIndex &topLeft, const QModelIndex &bottomRight,
                     const QList<int> &roles = {}) override;
    void commitData(QWidget *editor) override;
    void closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint) override;

private:
    PieceTableModel &m_model;
    const QWidget *m_refused = nullptr; ///< the editor whose text was not taken
};

} // namespace inchpeg::app
