// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/rail_table_model.h"

namespace inchpeg::app
{

RailTableModel::RailTableModel(ProjectSession &session, PlanPresenter &presenter, QObject *parent)
    : QAbstractTableModel(parent), m_session(session), m_presenter(presenter)
{
    connect(&session, &ProjectSession::studyChanged, this, [this] {
        beginResetModel();
        endResetModel();
    });
}

int RailTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() || m_session.study() == nullptr
               ? 0
               : static_cast<int>(m_session.study()->conditions.size());
}

int RailTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : ColumnCount;
}

ConditionId RailTableModel::railAt(int row) const
{
    return row >= 0 && row < rowCount() ? m_session.study()->conditions[static_cast<std::size_t>(row)].id
                                        : ConditionId{};
}

QVariant RailTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid() || (role != Qt::DisplayRole && role != Qt::EditRole))
        return {};
    const Study &study = *m_session.study();
    const Condition &condition = study.conditions[static_cast<std::size_t>(index.row())];
    switch (index.column()) {
    case Level:
        return QString::fromStdString(role == Qt::EditRole ? condition.level : levelText(study, condition)) +
               (role == Qt::DisplayRole && condition.id == study.reference ? tr("  · reference") : QString());
    case Orientation_:
        return QString::fromUtf8(orientationName(condition.orientation));
    case Material:
        return QString::fromStdString(condition.material);
    case Pieces:
        return static_cast<int>(piecesOf(study, condition.id).size());
    default:
        return {};
    }
}

QVariant RailTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    switch (section) {
    case Level:
        return tr("Level");
    case Orientation_:
        return tr("Printed");
    case Material:
        return tr("Material, lot");
    case Pieces:
        return tr("Pieces");
    default:
        return {};
    }
}

Qt::ItemFlags RailTableModel::flags(const QModelIndex &index) const
{
    const Qt::ItemFlags usual = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return index.column() == Pieces ? usual : usual | Qt::ItemIsEditable;
}

bool RailTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (role != Qt::EditRole || !index.isValid())
        return false;
    Condition changed = m_session.study()->conditions[static_cast<std::size_t>(index.row())];
    const std::string text = value.toString().simplified().toStdString();
    if (index.column() == Level)
        changed.level = text;
    else if (index.column() == Material)
        changed.material = text;
    else if (text == orientationName(Orientation::Flat))
        changed.orientation = Orientation::Flat;
    else if (text == orientationName(Orientation::Standing))
        changed.orientation = Orientation::Standing;
    else
        return false;
    return m_presenter.changeRail(changed);
}

} // namespace inchpeg::app
