// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/typed_record.h"
#include "core/text/notation.h"

#include <QAbstractTableModel>

#include <functional>

namespace inchpeg::app
{

/// The rows of the card in which readings are typed; one empty row is always there at the end.
class TypedRowsModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    /// now: the time in ISO 8601, UTC, at which a row is first typed in.
    explicit TypedRowsModel(std::function<std::string()> now, QObject *parent = nullptr);

    void show(const Reduction *reduction, const Notation &notation, std::vector<TypedRow> rows);
    [[nodiscard]] const std::vector<TypedColumn> &columns() const { return m_columns; }
    [[nodiscard]] const std::vector<TypedRow> &rows() const { return m_rows; }
    /// Units of cells that name none, one a column.
    [[nodiscard]] std::vector<Unit> units() const;
    [[nodiscard]] bool isEmpty() const;

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role = Qt::EditRole) override;
    /// Cells from the clipboard, from a place on: tabs and line ends part them.
    void paste(const QModelIndex &from, const QString &text);

signals:
    void typed();

private:
    void put(int row, int column, const QString &text);

    std::function<std::string()> m_now;
    Notation m_notation;
    std::vector<TypedColumn> m_columns;
    std::vector<TypedRow> m_rows;
};

} // namespace inchpeg::app
