// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/typed_record.h"

#include <QAbstractTableModel>

#include <map>

namespace inchpeg::app
{

/// The pieces of a test that is read from one row each, as one table: rail, and what is typed of each. What a
/// person typed stays in its cell until it is kept, whatever else changes in the study meanwhile.
class TypedPiecesModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    explicit TypedPiecesModel(ProjectSession &session, QObject *parent = nullptr);

    /// True for a test whose pieces are read from a row each, or from a few readings of one kind (hardness,
    /// the lift of corners, a length), which stand beside each other here.
    static bool isFor(Method test);
    /// Shows the pieces of a test of the study on the rack; what was typed for pieces that are still there
    /// stays.
    void show(std::optional<Method> test);
    [[nodiscard]] std::optional<Method> test() const { return m_test; }

    [[nodiscard]] PieceId pieceAt(int row) const;
    [[nodiscard]] int rowOf(PieceId piece) const; ///< -1: not among them
    /// Pieces whose row was typed in and is not kept yet, in the order of the rows.
    [[nodiscard]] std::vector<PieceId> typedPieces() const;
    /// The bytes of a piece's record from its row. Errors: those of typedRecordText().
    [[nodiscard]] Result<std::string> recordOf(PieceId piece, const std::string &gauge) const;
    /// What is typed of a piece is in the project.
    void wasKept(PieceId piece, const TypedRow &row);
    [[nodiscard]] TypedRow typedRow(PieceId piece) const;
    /// Shows at the row why it could not be kept; empty: nothing.
    void setTrouble(PieceId piece, const QString &why);
    /// Takes back what was typed in a row and is not kept.
    void forget(PieceId piece);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role = Qt::EditRole) override;
    /// Cells from the clipboard, from a place on: tabs and line ends part them. Where each line begins with
    /// the code of a piece, its cells go to that piece. Yields how many lines found no row.
    int paste(const QModelIndex &from, const QString &text);

    static constexpr int kFirstTyped = 1; ///< the column behind the rail

signals:
    void typed();

private:
    struct Shown {
        std::vector<std::string> cells;
        bool isFromFile = false; ///< it has a record that was not typed
    };
    [[nodiscard]] const Shown &shownOf(PieceId piece) const;
    [[nodiscard]] std::vector<Unit> units() const;
    void put(int row, int column, const QString &text);

    ProjectSession &m_session;
    StudyId m_study;
    std::optional<Method> m_test;
    std::vector<TypedColumn> m_columns;
    bool m_areReadings = false; ///< the columns are readings of one kind: each is a row of the record
    std::vector<PieceId> m_pieces;
    std::vector<QString> m_rails;
    std::map<PieceId, TypedRow> m_typed;
    std::map<PieceId, QString> m_troubles;
    mutable std::map<RawFileId, Shown> m_kept; ///< read as they are asked for
};

} // namespace inchpeg::app
