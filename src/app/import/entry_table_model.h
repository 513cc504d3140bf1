// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/import/import_presenter.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// The files of the import page; a row can be dragged onto a peg.
class EntryTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    enum Column { File, Place, State, ColumnCount };

    explicit EntryTableModel(ImportPresenter &presenter, QObject *parent = nullptr);
    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    [[nodiscard]] QStringList mimeTypes() const override;
    [[nodiscard]] QMimeData *mimeData(const QModelIndexList &indexes) const override;

private:
    ImportPresenter &m_presenter;
};

} // namespace inchpeg::app
