// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/plan/plan_presenter.h"

#include <QAbstractTableModel>

namespace inchpeg::app
{

/// Mass, time and money of each rail and in total; mass and time of a piece are typed over by the slicer's
/// own.
class CostTableModel : public QAbstractTableModel
{
    Q_OBJECT
public:
    enum Column { Rail, Pieces, PieceGrams, PieceMinutes, Grams, Minutes, Money, ColumnCount };

    explicit CostTableModel(PlanPresenter &presenter, QObject *parent = nullptr);
    void refresh();

    [[nodiscard]] int rowCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex &parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex &index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex &index) const override;
    bool setData(const QModelIndex &index, const QVariant &value, int role) override;

private:
    struct Row {
        ConditionId rail;
        QString title;
        int pieces = 0;
        double pieceGrams = 0.0;
        double pieceMinutes = 0.0;
        bool gramsTyped = false;
        bool minutesTyped = false;
        double grams = 0.0;
        double minutes = 0.0;
        double money = 0.0;
    };
    PlanPresenter &m_presenter;
    std::vector<Row> m_rows; ///< the last one is the total
};

} // namespace inchpeg::app
