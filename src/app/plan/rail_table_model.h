// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// The rails of the study as an editable list: level, orientation, material.
class RailTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    enum Column { Level, Orientation_, Material, Pieces, ColumnCount };

    RailTableModel(ProjectSession &session, PlanPresenter &presenter, QObject *parent = nullptr);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;
    [[nodiscard]] ConditionId railAt(int row) const;

private:
    ProjectSession &m_session;
    PlanPresenter &m_presenter;
};

} // namespace inchpeg::app
