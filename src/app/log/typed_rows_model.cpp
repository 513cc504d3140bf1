// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/typed_rows_model.h"

#include <QStringList>

#include <algorithm>

namespace inchpeg::app
{

TypedRowsModel::TypedRowsModel(std::function<std::string()> now, QObject *parent)
    : QAbstractTableModel(parent), m_now(std::move(now))
{
}

void TypedRowsModel::show(const Reduction *reduction, const Notation &notation, std::vector<TypedRow> rows)
{
    beginResetModel();
    m_notation = notation;
    m_columns = reduction != nullptr ? typedColumns(*reduction) : std::vector<TypedColumn>();
    m_rows = std::move(rows);
    m_rows.emplace_back();
    endResetModel();
}

std::vector<Unit> TypedRowsModel::units() const
{
    return shownUnits(m_columns, m_notation);
}

bool TypedRowsModel::isEmpty() const
{
    return std::all_of(m_rows.begin(), m_rows.end(), [](const TypedRow &row) {
        return std::all_of(row.cells.begin(), row.cells.end(),
                           [](const std::string &cell) { return cell.empty(); });
    });
}

int TypedRowsModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() || m_columns.empty() ? 0 : static_cast<int>(m_rows.size());
}

int TypedRowsModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_columns.size());
}

QVariant TypedRowsModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const TypedRow &row = m_rows[static_cast<std::size_t>(index.row())];
    const auto column = static_cast<std::size_t>(index.column());
    if (role == Qt::TextAlignmentRole)
        return QVariant(Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::ToolTipRole && !row.takenAt.empty())
        return tr("typed %1").arg(QString::fromStdString(row.takenAt));
    if (role != Qt::DisplayRole && role != Qt::EditRole)
        return {};
    return column < row.cells.size() ? QString::fromStdString(row.cells[column]) : QString();
}

QVariant TypedRowsModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation == Qt::Vertical)
        return role == Qt::DisplayRole ? QVariant(section + 1) : QVariant();
    const auto c = static_cast<std::size_t>(section);
    if (c >= m_columns.size())
        return {};
    const TypedColumn &column = m_columns[c];
    if (role == Qt::ToolTipRole || role == Qt::WhatsThisRole)
        return QString::fromUtf8(column.meaning);
    if (role != Qt::DisplayRole)
        return {};
    if (!column.dimension) {
        QStringList choices;
        for (std::string_view choice : column.choices)
            choices << QString::fromUtf8(choice);
        return QStringLiteral("%1 (%2)").arg(QString::fromUtf8(column.label), choices.join(QLatin1Char('/')));
    }
    return QString::fromStdString(headingIn(column.label, units()[c]));
}

Qt::ItemFlags TypedRowsModel::flags(const QModelIndex &index) const
{
    return index.isValid() ? Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable : Qt::NoItemFlags;
}

void TypedRowsModel::put(int row, int column, const QString &text)
{
    while (static_cast<std::size_t>(row) >= m_rows.size())
        m_rows.emplace_back();
    TypedRow &typedRow = m_rows[static_cast<std::size_t>(row)];
    if (typedRow.takenAt.empty() && !text.isEmpty())
        typedRow.takenAt = m_now();
    typedRow.cells.resize(std::max(typedRow.cells.size(), m_columns.size()));
    const auto c = static_cast<std::size_t>(column);
    typedRow.cells[c] = typedCell(m_columns[c], text.toStdString());
}

bool TypedRowsModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (!index.isValid() || role != Qt::EditRole)
        return false;
    const QString text = value.toString().simplified();
    const bool grows = index.row() + 1 == rowCount() && !text.isEmpty();
    put(index.row(), index.column(), text);
    emit dataChanged(index, index);
    if (grows) {
        beginInsertRows({}, rowCount(), rowCount());
        m_rows.emplace_back();
        endInsertRows();
    }
    emit typed();
    return true;
}

void TypedRowsModel::paste(const QModelIndex &from, const QString &text)
{
    if (m_columns.empty() || text.trimmed().isEmpty())
        return;
    const int firstRow = from.isValid() ? from.row() : 0;
    const int firstColumn = from.isValid() ? from.column() : 0;
    beginResetModel();
    int row = firstRow;
    for (const QString &line : text.split(QLatin1Char('\n'), Qt::SkipEmptyParts)) {
        int column = firstColumn;
        for (const QString &cell : line.split(QLatin1Char('\t'))) {
            if (column < columnCount())
                put(row, column, cell.simplified());
            ++column;
        }
        ++row;
    }
    const bool lastIsUsed = std::any_of(m_rows.back().cells.begin(), m_rows.back().cells.end(),
                                        [](const std::string &cell) { return !cell.empty(); });
    if (lastIsUsed)
        m_rows.emplace_back();
    endResetModel();
    emit typed();
}

} // namespace inchpeg::app
