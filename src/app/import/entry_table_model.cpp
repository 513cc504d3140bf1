// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/entry_table_model.h"

#include "app/rack/rack_view.h"
#include "app/theme/theme.h"

#include <QMimeData>

namespace inchpeg::app
{

EntryTableModel::EntryTableModel(ImportPresenter &presenter, QObject *parent)
    : QAbstractTableModel(parent), m_presenter(presenter)
{
    connect(&presenter, &ImportPresenter::changed, this, [this] {
        beginResetModel();
        endResetModel();
    });
}

int EntryTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_presenter.entries().size());
}

int EntryTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : ColumnCount;
}

QVariant EntryTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const ImportPresenter::Entry &entry = m_presenter.entries()[static_cast<std::size_t>(index.row())];
    if (role == Qt::ForegroundRole && entry.file.problem && index.column() == State)
        return currentTheme().warning;
    if (role == Qt::ToolTipRole)
        return index.column() == File ? QString::fromStdString(entry.file.path)
                                      : m_presenter.stateText(entry);
    if (role != Qt::DisplayRole)
        return {};
    switch (index.column()) {
    case File:
        return QString::fromStdString(entry.file.name);
    case Place:
        return entry.file.problem ? QString() : entry.piece ? m_presenter.placeText(entry) : tr("no peg yet");
    case State:
        return m_presenter.stateText(entry);
    default:
        return {};
    }
}

QVariant EntryTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    switch (section) {
    case File:
        return tr("File");
    case Place:
        return tr("Peg");
    case State:
        return tr("What was read");
    default:
        return {};
    }
}

Qt::ItemFlags EntryTableModel::flags(const QModelIndex &) const
{
    return Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsDragEnabled;
}

QStringList EntryTableModel::mimeTypes() const
{
    return {QLatin1String(kFileIndexMime)};
}

QMimeData *EntryTableModel::mimeData(const QModelIndexList &indexes) const
{
    auto *data = new QMimeData;
    if (!indexes.isEmpty())
        data->setData(QLatin1String(kFileIndexMime), QByteArray::number(indexes.front().row()));
    return data;
}

} // namespace inchpeg::app
