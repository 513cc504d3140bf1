// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/measuring.h"

#include <QAbstractTableModel>

#include <set>

namespace inchpeg::app
{

/// In which order pieces are walked along.
enum class BenchOrder { Rails, Plates, Testing };

/// Which cell comes after the one that was filled.
enum class Walk {
    Piece,  ///< along the piece: sizes, mass, length
    Sizes,  ///< along the piece, sizes only: what is weighed is weighed later
    Column, ///< down the column, where one size is measured on all pieces first
};

/// The pieces of the study in the order in which they lie on the bench, with what is measured on them to be
/// typed, pasted, scanned or sent by a gauge.
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
    /// Takes a typed value; a scanned label makes labelScanned() instead.
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;
    /// Whether what was typed last was refused, by a rule or by the disk: it is in no study.
    [[nodiscard]] bool isRefused() const { return m_isRefused; }

    [[nodiscard]] PieceId pieceAt(int row) const;
    [[nodiscard]] int rowOf(PieceId piece) const;
    [[nodiscard]] bool isEntry(int column) const;
    /// What is logged in a column; nothing for one that is only shown.
    [[nodiscard]] std::optional<LogPlace> placeAt(int column) const;

    [[nodiscard]] BenchOrder order() const { return m_benchOrder; }
    void setOrder(BenchOrder order);
    void setWalk(Walk walk) { m_walk = walk; }
    [[nodiscard]] Walk walk() const { return m_walk; }
    /// The next cell of the walk after this one. Notes are not part of it.
    [[nodiscard]] QModelIndex nextEntry(const QModelIndex &index) const;
    /// The first cell of a row that is empty still, else its first entry.
    [[nodiscard]] QModelIndex firstOpen(int row) const;

    /// What is unlikely about a piece's values and not confirmed.
    [[nodiscard]] std::vector<Doubt> doubtsAbout(PieceId piece) const;

    /// Puts a gauge's reading in a cell. Yields false, and tells why, where it does not belong there.
    bool takeReading(const QModelIndex &index, double value, std::optional<Dimension> dimension);

    /// Pastes a block of typed values (tabs or semicolons between cells, lines between rows) from a cell on,
    /// as one step. Where a value is wrong nothing is changed and the sentence names its place.
    bool paste(const QModelIndex &from, const QString &text);
    /// Takes the values of these cells away, as one step.
    bool clear(const QModelIndexList &cells);
    /// The cells of a block as tab-separated text, for a spreadsheet.
    [[nodiscard]] QString copied(const QModelIndexList &cells) const;

    static constexpr int kRailColumn = 1;

signals:
    /// A label of this project was scanned or typed into a cell.
    void labelScanned(inchpeg::PieceId piece);
    /// A value was taken by hand or from a gauge.
    void taken(inchpeg::PieceId piece);

private:
    enum class Shown { Code, Rail, Entry, Area, State };
    struct Column {
        Shown kind = Shown::Entry;
        LogPlace place;
        bool operator==(const Column &) const = default;
    };
    [[nodiscard]] bool isWalked(int column) const;
    [[nodiscard]] std::vector<Column> wantedColumns() const;
    [[nodiscard]] std::vector<PieceId> wantedOrder() const;
    void rebuild();
    /// Nothing where the row is of a study that is no longer on the rack.
    [[nodiscard]] const Piece *pieceIn(int row) const;
    [[nodiscard]] QString textOf(const Column &column, const Piece &piece) const;
    [[nodiscard]] QString headingOf(const Column &column) const;
    [[nodiscard]] QString tipOf(const Column &column, const Piece &piece) const;
    [[nodiscard]] Unit unitOf(const LogPlace &place) const;
    [[nodiscard]] const Expectations &expectations() const;
    Status setText(Study &study, PieceId piece, const LogPlace &place, const std::string &text) const;

    ProjectSession &m_session;
    bool m_isRefused = false;
    std::vector<PieceId> m_order;
    std::vector<std::size_t> m_places; ///< of m_order in the study's pieces
    std::vector<Column> m_columns;
    mutable std::optional<Expectations> m_expectations; ///< of the study as it is; made when first asked for
    BenchOrder m_benchOrder = BenchOrder::Rails;
    Walk m_walk = Walk::Piece;
};

/// "Bench order": names for a choice.
QString benchOrderName(BenchOrder order);

} // namespace inchpeg::app
