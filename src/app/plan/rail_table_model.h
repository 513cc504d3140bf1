// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// The rails of the study as an editable list: a level for each factor, orientation, material, pieces.
class RailTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    /// What stands in a column behind those of the factors.
    enum class Column { Level, Orientation, Pieces, Material };

    explicit RailTableModel(PlanPresenter &presenter, QObject *parent = nullptr);

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;
    [[nodiscard]] ConditionId railAt(int row) const;
    [[nodiscard]] Column kindOf(int section) const;

private:
    [[nodiscard]] int factorCount() const;
    PlanPresenter &m_presenter;
};

} // namespace inchpeg::app
