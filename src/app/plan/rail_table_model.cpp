// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/rail_table_model.h"

namespace inchpeg::app
{

RailTableModel::RailTableModel(PlanPresenter &presenter, QObject *parent)
    : QAbstractTableModel(parent), m_presenter(presenter)
{
    connect(&presenter.session(), &ProjectSession::studyChanged, this, [this] {
        beginResetModel();
        endResetModel();
    });
}

int RailTableModel::factorCount() const
{
    const Study *study = m_presenter.session().study();
    return study == nullptr ? 1 : static_cast<int>(study->factors.size());
}

RailTableModel::Column RailTableModel::kindOf(int section) const
{
    const int behind = section - factorCount();
    return behind < 0 ? Column::Level : static_cast<Column>(behind + 1);
}

int RailTableModel::rowCount(const QModelIndex &parent) const
{
    const Study *study = m_presenter.session().study();
    return parent.isValid() || study == nullptr ? 0 : static_cast<int>(study->conditions.size());
}

int RailTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : factorCount() + 3;
}

ConditionId RailTableModel::railAt(int row) const
{
    return row >= 0 && row < rowCount()
               ? m_presenter.session().study()->conditions[static_cast<std::size_t>(row)].id
               : ConditionId{};
}

QVariant RailTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid() || (role != Qt::DisplayRole && role != Qt::EditRole))
        return {};
    const Study &study = *m_presenter.session().study();
    const Condition &condition = study.conditions[static_cast<std::size_t>(index.row())];
    switch (kindOf(index.column())) {
    case Column::Level: {
        const auto factor = static_cast<std::size_t>(index.column());
        const std::string &level = condition.levels[factor];
        if (role == Qt::EditRole)
            return QString::fromStdString(level);
        return QString::fromStdString(levelText(study.factors[factor], level)) +
               (index.column() == 0 && condition.id == study.reference ? tr("  · reference") : QString());
    }
    case Column::Orientation:
        return QString::fromUtf8(orientationName(condition.orientation));
    case Column::Material:
        return QString::fromStdString(condition.material);
    case Column::Pieces:
        return static_cast<int>(piecesOf(study, condition.id).size());
    }
    return {};
}

QVariant RailTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    switch (kindOf(section)) {
    case Column::Level: {
        const Study *study = m_presenter.session().study();
        const QString name =
            study != nullptr ? QString::fromStdString(study->factors[static_cast<std::size_t>(section)].name)
                             : QString();
        return name.isEmpty() ? tr("Level") : name;
    }
    case Column::Orientation:
        return tr("Printed");
    case Column::Material:
        return tr("Material, lot");
    case Column::Pieces:
        return tr("Pieces");
    }
    return {};
}

Qt::ItemFlags RailTableModel::flags(const QModelIndex &index) const
{
    const Qt::ItemFlags usual = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return kindOf(index.column()) == Column::Pieces ? usual : usual | Qt::ItemIsEditable;
}

bool RailTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (role != Qt::EditRole || !index.isValid())
        return false;
    Condition changed = m_presenter.session().study()->conditions[static_cast<std::size_t>(index.row())];
    const std::string text = value.toString().simplified().toStdString();
    switch (kindOf(index.column())) {
    case Column::Level:
        changed.levels[static_cast<std::size_t>(index.column())] = text;
        break;
    case Column::Material:
        changed.material = text;
        break;
    case Column::Orientation: {
        const std::optional<Orientation> orientation = orientationFrom(text);
        if (!orientation)
            return false;
        changed.orientation = *orientation;
        break;
    }
    case Column::Pieces:
        return false;
    }
    return m_presenter.changeRail(changed);
}

} // namespace inchpeg::app
