// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// The statistics behind the sentences: one row a rail.
class TestTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    explicit TestTableModel(ProjectSession &session, QObject *parent = nullptr);
    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    void refresh();

private:
    ProjectSession &m_session;
    std::optional<StudyComparison> m_comparison;
};

} // namespace inchpeg::app
