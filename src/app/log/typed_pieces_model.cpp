// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/typed_pieces_model.h"

#include <QColor>
#include <QGuiApplication>
#include <QPalette>
#include <QStringList>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

constexpr std::size_t kReadings = 5; ///< of one kind beside each other; as many as ISO 868 asks for

bool areReadingsOfOneKind(const Reduction &reduction)
{
    return reduction.columns.size() == 1;
}

} // namespace

TypedPiecesModel::TypedPiecesModel(ProjectSession &session, QObject *parent)
    : QAbstractTableModel(parent), m_session(session)
{
}

bool TypedPiecesModel::isFor(Method test)
{
    const Reduction *reduction = reductionOf(test);
    return reduction != nullptr && !typedColumns(*reduction).empty() &&
           (reduction->columns.empty() || areReadingsOfOneKind(*reduction));
}

void TypedPiecesModel::show(std::optional<Method> test)
{
    const Study *study = m_session.study();
    std::vector<PieceId> pieces;
    std::vector<QString> rails;
    if (study != nullptr && test) {
        for (const Condition &condition : study->conditions) {
            for (const Piece *piece : piecesOf(*study, condition.id)) {
                if (piece->test != *test)
                    continue;
                pieces.push_back(piece->id);
                rails.push_back(QString::fromStdString(distinctTitle(*study, condition)));
            }
        }
    }
    const StudyId shown = study != nullptr ? study->id : StudyId{};
    const bool isSame = shown == m_study && test == m_test && pieces == m_pieces && rails == m_rails;
    if (isSame) { // keeps the place, the selection and an open editor
        if (!m_pieces.empty())
            emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    if (shown != m_study || test != m_test) {
        m_typed.clear();
        m_troubles.clear();
        m_kept.clear();
    }
    m_study = shown;
    m_test = test;
    m_pieces = std::move(pieces);
    m_rails = std::move(rails);
    const Reduction *reduction = test ? reductionOf(*test) : nullptr;
    m_columns = reduction != nullptr ? typedColumns(*reduction) : std::vector<TypedColumn>();
    m_areReadings = reduction != nullptr && areReadingsOfOneKind(*reduction);
    if (m_areReadings)
        m_columns.resize(kReadings, m_columns.front());
    std::erase_if(m_typed, [this](const auto &entry) { return rowOf(entry.first) < 0; });
    endResetModel();
}

PieceId TypedPiecesModel::pieceAt(int row) const
{
    return row >= 0 && row < rowCount() ? m_pieces[static_cast<std::size_t>(row)] : PieceId{};
}

int TypedPiecesModel::rowOf(PieceId piece) const
{
    const auto found = std::find(m_pieces.begin(), m_pieces.end(), piece);
    return found == m_pieces.end() ? -1 : static_cast<int>(found - m_pieces.begin());
}

std::vector<PieceId> TypedPiecesModel::typedPieces() const
{
    std::vector<PieceId> pieces;
    for (const PieceId piece : m_pieces) {
        if (m_typed.contains(piece))
            pieces.push_back(piece);
    }
    return pieces;
}

TypedRow TypedPiecesModel::typedRow(PieceId piece) const
{
    const auto found = m_typed.find(piece);
    return found != m_typed.end() ? found->second : TypedRow{};
}

Result<std::string> TypedPiecesModel::recordOf(PieceId id, const std::string &gauge) const
{
    const Piece *piece = m_session.study() != nullptr ? findPiece(*m_session.study(), id) : nullptr;
    if (piece == nullptr || reductionOf(piece->test) == nullptr)
        return Error{ErrorCode::NotFound, "the piece is no longer there", {}};
    const TypedRow row = typedRow(id);
    std::vector<TypedRow> rows{row};
    if (m_areReadings) {
        rows.clear();
        for (const std::string &cell : row.cells)
            rows.push_back({{cell}, cell.empty() ? std::string() : row.takenAt});
    }
    std::vector<Unit> own = units();
    own.resize(m_areReadings ? 1 : own.size(), *findUnit("1"));
    const TypedRecord record{piece->code, m_session.who().toStdString(), gauge, std::move(rows)};
    return typedRecordText(record, *reductionOf(piece->test), own);
}

void TypedPiecesModel::wasKept(PieceId piece, const TypedRow &row)
{
    const auto found = m_typed.find(piece);
    if (found == m_typed.end() || !(found->second == row))
        return; // it was typed on meanwhile
    m_typed.erase(found);
    setTrouble(piece, {});
}

void TypedPiecesModel::setTrouble(PieceId piece, const QString &why)
{
    if (why.isEmpty())
        m_troubles.erase(piece);
    else
        m_troubles[piece] = why;
    if (const int row = rowOf(piece); row >= 0)
        emit dataChanged(index(row, 0), index(row, columnCount() - 1));
}

void TypedPiecesModel::forget(PieceId piece)
{
    if (m_typed.erase(piece) == 0)
        return;
    setTrouble(piece, {});
    emit typed();
}

std::vector<Unit> TypedPiecesModel::units() const
{
    return shownUnits(m_columns, m_session.notation());
}

/// What the piece's record holds, as it was typed. Read when the row is first looked at.
const TypedPiecesModel::Shown &TypedPiecesModel::shownOf(PieceId id) const
{
    static const Shown kNothing;
    const Piece *piece = m_session.study() != nullptr ? findPiece(*m_session.study(), id) : nullptr;
    if (piece == nullptr || !piece->recording || !m_test)
        return kNothing;
    const auto [entry, isNew] = m_kept.try_emplace(piece->recording->file);
    if (isNew) {
        const Result<std::string> bytes = m_session.project().rawBytes(piece->recording->file);
        std::optional<TypedRecord> typed =
            bytes ? typedRecordFrom(*bytes, *reductionOf(*m_test)) : std::nullopt;
        if (typed && m_areReadings && typed->rows.size() <= kReadings) {
            for (const TypedRow &row : typed->rows)
                entry->second.cells.push_back(row.cells.empty() ? std::string() : row.cells.front());
        } else if (typed && !m_areReadings && typed->rows.size() == 1) {
            entry->second.cells = std::move(typed->rows.front().cells);
        } else {
            entry->second.isFromFile = true;
        }
    }
    return entry->second;
}

int TypedPiecesModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_pieces.size());
}

int TypedPiecesModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() || m_columns.empty() ? 0 : static_cast<int>(m_columns.size()) + kFirstTyped;
}

QVariant TypedPiecesModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const PieceId piece = pieceAt(index.row());
    const auto trouble = m_troubles.find(piece);
    if (role == Qt::ToolTipRole && trouble != m_troubles.end())
        return trouble->second;
    const bool isRail = index.column() < kFirstTyped;
    if (role == Qt::TextAlignmentRole)
        return QVariant((isRail ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
    if (isRail)
        return role == Qt::DisplayRole ? QVariant(m_rails[static_cast<std::size_t>(index.row())])
                                       : QVariant();
    const auto typed = m_typed.find(piece);
    const Shown &kept = shownOf(piece);
    const auto column = static_cast<std::size_t>(index.column() - kFirstTyped);
    const bool isNote = typed == m_typed.end() && kept.isFromFile && column == 0;
    if (role == Qt::ForegroundRole && isNote)
        return QGuiApplication::palette().color(QPalette::PlaceholderText);
    if (role != Qt::DisplayRole && role != Qt::EditRole)
        return {};
    if (isNote)
        return role == Qt::DisplayRole ? QVariant(tr("has a record")) : QVariant();
    const std::vector<std::string> &cells = typed != m_typed.end() ? typed->second.cells : kept.cells;
    return column < cells.size() ? QString::fromStdString(cells[column]) : QString();
}

QVariant TypedPiecesModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation == Qt::Vertical) {
        const Piece *piece =
            m_session.study() != nullptr ? findPiece(*m_session.study(), pieceAt(section)) : nullptr;
        if (role != Qt::DisplayRole || piece == nullptr)
            return {};
        const QString code = QString::fromStdString(piece->code);
        return m_troubles.contains(piece->id) ? tr("%1 !").arg(code)
               : m_typed.contains(piece->id)  ? tr("%1 *").arg(code)
                                              : code;
    }
    if (section < kFirstTyped)
        return role == Qt::DisplayRole ? QVariant(tr("Rail")) : QVariant();
    const auto c = static_cast<std::size_t>(section - kFirstTyped);
    if (c >= m_columns.size())
        return {};
    const TypedColumn &column = m_columns[c];
    QStringList choices;
    for (std::string_view choice : column.choices)
        choices << QString::fromUtf8(choice);
    if (role == Qt::ToolTipRole || role == Qt::WhatsThisRole) {
        const QString meaning = QString::fromUtf8(column.meaning);
        return choices.isEmpty() ? meaning : tr("%1: %2").arg(meaning, choices.join(QStringLiteral(", ")));
    }
    if (role != Qt::DisplayRole)
        return {};
    if (m_areReadings && c > 0)
        return tr("Reading %1").arg(c + 1);
    return column.dimension ? QString::fromStdString(headingIn(column.label, units()[c]))
                            : QString::fromUtf8(column.label);
}

Qt::ItemFlags TypedPiecesModel::flags(const QModelIndex &index) const
{
    if (!index.isValid())
        return Qt::NoItemFlags;
    const Qt::ItemFlags seen = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return index.column() < kFirstTyped ? seen : seen | Qt::ItemIsEditable;
}

void TypedPiecesModel::put(int row, int column, const QString &text)
{
    const PieceId piece = pieceAt(row);
    const auto c = static_cast<std::size_t>(column - kFirstTyped);
    std::string cell = typedCell(m_columns[c], text.toStdString()); // what is wrong is told when it is kept
    auto found = m_typed.find(piece);
    const std::vector<std::string> &before =
        found != m_typed.end() ? found->second.cells : shownOf(piece).cells;
    if ((c < before.size() ? before[c] : std::string()) == cell)
        return; // as it was
    if (found == m_typed.end())
        found = m_typed.emplace(piece, TypedRow{before, m_session.now()}).first;
    found->second.cells.resize(std::max(found->second.cells.size(), m_columns.size()));
    found->second.cells[c] = std::move(cell);
    m_troubles.erase(piece);
}

bool TypedPiecesModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (!index.isValid() || role != Qt::EditRole || index.column() < kFirstTyped)
        return false;
    put(index.row(), index.column(), value.toString().simplified());
    emit dataChanged(this->index(index.row(), 0), this->index(index.row(), columnCount() - 1));
    emit headerDataChanged(Qt::Vertical, index.row(), index.row());
    emit typed();
    return true;
}

int TypedPiecesModel::paste(const QModelIndex &from, const QString &text)
{
    const QStringList lines = text.split(QLatin1Char('\n'), Qt::SkipEmptyParts);
    if (lines.isEmpty() || m_pieces.empty() || m_session.study() == nullptr)
        return 0;
    std::map<QString, int> rows;
    for (int row = 0; row < rowCount(); ++row)
        rows[QString::fromStdString(findPiece(*m_session.study(), pieceAt(row))->code).toLower()] = row;
    const auto rowByCode = [&](const QString &line) {
        const auto found = rows.find(line.section(QLatin1Char('\t'), 0, 0).simplified().toLower());
        return found == rows.end() ? -1 : found->second;
    };
    const bool areCoded = std::all_of(lines.begin(), lines.end(), [&](const QString &line) {
        return line.contains(QLatin1Char('\t')) && rowByCode(line) >= 0;
    });
    int lost = 0;
    int next = from.isValid() ? from.row() : 0;
    for (const QString &line : lines) {
        QStringList cells = line.split(QLatin1Char('\t'));
        const int row = areCoded ? rowByCode(line) : next++;
        if (areCoded)
            cells.removeFirst();
        int column = from.isValid() ? std::max(from.column(), kFirstTyped) : kFirstTyped;
        lost += row < rowCount() ? 0 : 1;
        for (const QString &cell : cells) {
            if (row < rowCount() && column < columnCount())
                put(row, column, cell.simplified());
            ++column;
        }
    }
    emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
    emit headerDataChanged(Qt::Vertical, 0, rowCount() - 1);
    emit typed();
    return lost;
}

} // namespace inchpeg::app
