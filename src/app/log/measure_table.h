// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/log/piece_table_model.h"

#include <QTableView>

namespace inchpeg::app
{

/// The entry grid: a digit starts typing, Enter goes on to the next cell, Ctrl+V pastes, Delete clears.
class MeasureTable : public QTableView
{
    Q_OBJECT
public:
    explicit MeasureTable(PieceTableModel &model, QWidget *parent = nullptr);

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void closeEditor(QWidget *editor, QAbstractItemDelegate::EndEditHint hint) override;

private:
    PieceTableModel &m_model;
};

} // namespace inchpeg::app
