// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/cost_table_model.h"

#include "core/planning/print_estimate.h"
#include "core/units/number.h"

#include <QFont>

namespace inchpeg::app
{

namespace
{

QString hours(double minutes)
{
    const auto whole = static_cast<int>(minutes + 0.5);
    return QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'));
}

} // namespace

CostTableModel::CostTableModel(PlanPresenter &presenter, QObject *parent)
    : QAbstractTableModel(parent), m_presenter(presenter)
{
}

void CostTableModel::refresh()
{
    beginResetModel();
    m_rows.clear();
    PlanState &state = m_presenter.state();
    const Study &study = state.study();
    const Workshop &workshop = m_presenter.session().workshop();
    for (const Condition &condition : study.conditions) {
        const PrintCost cost = costOf(study, condition, workshop);
        const PieceEstimate each = estimatePiece(study, state.tests().front(), condition, workshop);
        m_rows.push_back({condition.id, QString::fromStdString(railTitle(study, condition)), cost.pieces,
                          each.grams, each.minutes, each.gramsFromSlicer, each.minutesFromSlicer, cost.grams,
                          cost.minutes, cost.money});
    }
    if (!m_rows.empty()) {
        const PrintCost all = costOf(study, workshop);
        m_rows.push_back(
            {{}, tr("all"), all.pieces, 0.0, 0.0, false, false, all.grams, all.minutes, all.money});
    }
    endResetModel();
}

int CostTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_rows.size());
}

int CostTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : ColumnCount;
}

QVariant CostTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const Row &row = m_rows[static_cast<std::size_t>(index.row())];
    const bool total = row.rail == ConditionId{};
    if (role == Qt::TextAlignmentRole && index.column() != Rail)
        return QVariant(Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::FontRole) {
        QFont font;
        font.setBold(total || (index.column() == PieceGrams && row.gramsTyped) ||
                     (index.column() == PieceMinutes && row.minutesTyped));
        return font;
    }
    if (role == Qt::ToolTipRole && (index.column() == PieceGrams || index.column() == PieceMinutes) && !total)
        return tr("From shape and settings; type the slicer's own figure over it, or clear it to go back");
    if (role != Qt::DisplayRole && role != Qt::EditRole)
        return {};
    const Notation &notation = m_presenter.session().notation();
    const auto number = [&](double value, int decimals) {
        return QString::fromStdString(notation.fixed(value, decimals));
    };
    switch (index.column()) {
    case Rail:
        return row.title;
    case Pieces:
        return row.pieces;
    case PieceGrams:
        return total ? QString() : number(row.pieceGrams, 2);
    case PieceMinutes:
        return total ? QString() : number(row.pieceMinutes, 1);
    case Grams:
        return number(row.grams, 1);
    case Minutes:
        return hours(row.minutes);
    case Money:
        return number(row.money, 2);
    default:
        return {};
    }
}

QVariant CostTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole)
        return {};
    switch (section) {
    case Rail:
        return tr("Rail");
    case Pieces:
        return tr("Pieces");
    case PieceGrams:
        return tr("g a piece");
    case PieceMinutes:
        return tr("min a piece");
    case Grams:
        return tr("g");
    case Minutes:
        return tr("h:min");
    case Money:
        return QString::fromStdString(m_presenter.session().workshop().moneyUnit);
    default:
        return {};
    }
}

Qt::ItemFlags CostTableModel::flags(const QModelIndex &index) const
{
    const Qt::ItemFlags usual = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    const bool typed = index.column() == PieceGrams || index.column() == PieceMinutes;
    return typed && index.row() + 1 < rowCount() ? usual | Qt::ItemIsEditable : usual;
}

bool CostTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (role != Qt::EditRole || !index.isValid())
        return false;
    const Row row = m_rows[static_cast<std::size_t>(index.row())];
    const std::string text = value.toString().trimmed().toStdString();
    const std::optional<double> number = parseTypedNumber(text);
    if (!text.empty() && !number)
        return m_presenter.session().tell(invalidArgument("\"" + text + "\" is no number"));
    std::optional<double> grams = row.gramsTyped ? std::optional(row.pieceGrams) : std::nullopt;
    std::optional<double> minutes = row.minutesTyped ? std::optional(row.pieceMinutes) : std::nullopt;
    (index.column() == PieceGrams ? grams : minutes) = number;
    return m_presenter.setSlicer(row.rail, grams, minutes);
}

} // namespace inchpeg::app
