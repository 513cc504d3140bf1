// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// The pieces of the study in their rails' order, with their measured sections to be typed or pasted.
class PieceTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    explicit PieceTableModel(ProjectSession &session, QObject *parent = nullptr);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;

    [[nodiscard]] PieceId pieceAt(int row) const;
    [[nodiscard]] int rowOf(PieceId piece) const;
    [[nodiscard]] bool isEntry(int column) const;
    /// The next cell to type in after this one: along the row, then the next row.
    [[nodiscard]] QModelIndex nextEntry(const QModelIndex &index) const;

    /// Pastes a block of typed values (tabs or semicolons between cells, lines between rows) from a cell on,
    /// as one step. Where a value is wrong nothing is changed and the sentence names its place.
    bool paste(const QModelIndex &from, const QString &text);
    /// Takes the values of these cells away, as one step.
    bool clear(const QModelIndexList &cells);
    /// The cells of a block as tab-separated text, for a spreadsheet.
    [[nodiscard]] QString copied(const QModelIndexList &cells) const;

private:
    struct ColumnDescriptor;
    [[nodiscard]] const std::vector<ColumnDescriptor> &columns() const;
    void rebuild();
    [[nodiscard]] const Piece &pieceIn(int row) const;

    ProjectSession &m_session;
    std::vector<PieceId> m_order;
    const ColumnDescriptor *m_shownColumns = nullptr;
};

} // namespace inchpeg::app
