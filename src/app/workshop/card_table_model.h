// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QAbstractTableModel>

#include <memory>

namespace inchpeg::app
{

/// One kind of card of the workshop as an editable list. What differs between the kinds are the columns.
class CardTableModel : public QAbstractTableModel
{
public:
    struct Column {
        QString heading;
        QString tip;
        std::function<QString(const Workshop &, std::size_t row)> text;
        std::function<Status(Workshop &, std::size_t row, const std::string &text)> set;
    };

    CardTableModel(ProjectSession &session, std::vector<Column> columns,
                   std::function<std::size_t(const Workshop &)> count, QObject *parent = nullptr);
    /// The session's workshop is another one now.
    void refresh();

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;

private:
    ProjectSession &m_session;
    std::vector<Column> m_columns;
    std::function<std::size_t(const Workshop &)> m_count;
};

std::unique_ptr<CardTableModel> rigTable(ProjectSession &session);
std::unique_ptr<CardTableModel> printerTable(ProjectSession &session);
std::unique_ptr<CardTableModel> spoolTable(ProjectSession &session);

} // namespace inchpeg::app
