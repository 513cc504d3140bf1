// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/piece_table_model.h"

#include "app/rack/rack_model.h"

#include <QFont>
#include <QRegularExpression>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::app
{

namespace
{

QString measuredText(const Notation &notation, Length length)
{
    return length.si() > 0.0 ? QString::fromStdString(notation.measuredLength(in_mm(length))) : QString();
}

/// Turns a typed text into one dimension of a section; empty takes it away.
template <typename Shape>
Status setDimension(Piece &piece, Length Shape::*dimension, const std::string &text, const Notation &notation)
{
    Shape shape;
    if (piece.section && std::holds_alternative<Shape>(*piece.section))
        shape = std::get<Shape>(*piece.section);
    shape.*dimension = Length{};
    if (!text.empty()) {
        const Result<double> value_mm = parseQuantity(text, notation.unitOf(Dimension::Length));
        if (!value_mm)
            return value_mm.error();
        if (!(*value_mm > 0.0))
            return invalidArgument(fmt::format("\"{}\": a measured size above zero is wanted", text));
        shape.*dimension = millimetres(*value_mm);
    }
    if (shape == Shape{})
        piece.section.reset();
    else
        piece.section = shape;
    return ok();
}

Status setArea(Piece &piece, const std::string &text, const Notation &notation)
{
    if (text.empty()) {
        piece.section.reset();
        return ok();
    }
    const Result<double> area_mm2 = parseQuantity(text, notation.unitOf(Dimension::Area));
    if (!area_mm2)
        return area_mm2.error();
    if (!(*area_mm2 > 0.0))
        return invalidArgument(fmt::format("\"{}\": a measured area above zero is wanted", text));
    piece.section = PlainArea{squareMillimetres(*area_mm2)};
    return ok();
}

template <typename Shape>
QString dimensionText(const Notation &notation, const Piece &piece, Length Shape::*dimension)
{
    if (!piece.section || !std::holds_alternative<Shape>(*piece.section))
        return {};
    return measuredText(notation, std::get<Shape>(*piece.section).*dimension);
}

QString areaText(const Notation &notation, const Piece &piece)
{
    if (!piece.section)
        return {};
    const Result<Area> area = areaOf(*piece.section);
    if (!area)
        return {};
    const Unit unit = notation.unitOf(Dimension::Area);
    return QString::fromStdString(
        notation.fixed(unit.fromWorking(in_mm2(*area)), unit == workingUnit(Dimension::Area) ? 2 : 5));
}

} // namespace

struct PieceTableModel::ColumnDescriptor {
    const char *heading;
    const char *meaning;
    QString (*text)(const ProjectSession &session, const Piece &piece);
    /// nullptr: only shown
    Status (*set)(Piece &piece, const std::string &text, const Notation &notation);
    std::optional<Dimension> dimension = {}; ///< of a number; its unit stands in the heading
};

const std::vector<PieceTableModel::ColumnDescriptor> &PieceTableModel::columns() const
{
    using Session = const ProjectSession &;
    static const ColumnDescriptor code{
        QT_TR_NOOP("Piece"), QT_TR_NOOP("The code that is written on the piece"),
        [](Session, const Piece &piece) { return QString::fromStdString(piece.code); }, nullptr};
    static const ColumnDescriptor rail{
        QT_TR_NOOP("Rail"), QT_TR_NOOP("The condition that the piece was printed under"),
        [](Session session, const Piece &piece) {
            return QString::fromStdString(
                railTitle(*session.study(), *findCondition(*session.study(), piece.condition)));
        },
        nullptr};
    static const ColumnDescriptor width{
        QT_TR_NOOP("Width"), QT_TR_NOOP("Of the narrow part, measured with callipers on this piece"),
        [](Session session, const Piece &piece) {
            return dimensionText(session.notation(), piece, &RectangularSection::width);
        },
        [](Piece &piece, const std::string &text, const Notation &notation) {
            return setDimension(piece, &RectangularSection::width, text, notation);
        },
        Dimension::Length};
    static const ColumnDescriptor thickness{
        QT_TR_NOOP("Thickness"), QT_TR_NOOP("Of the narrow part, measured with callipers on this piece"),
        [](Session session, const Piece &piece) {
            return dimensionText(session.notation(), piece, &RectangularSection::thickness);
        },
        [](Piece &piece, const std::string &text, const Notation &notation) {
            return setDimension(piece, &RectangularSection::thickness, text, notation);
        },
        Dimension::Length};
    static const ColumnDescriptor diameter{
        QT_TR_NOOP("Diameter"), QT_TR_NOOP("Of the narrow part, measured with callipers on this piece"),
        [](Session session, const Piece &piece) {
            return dimensionText(session.notation(), piece, &RoundSection::diameter);
        },
        [](Piece &piece, const std::string &text, const Notation &notation) {
            return setDimension(piece, &RoundSection::diameter, text, notation);
        },
        Dimension::Length};
    static const auto showArea = [](Session session, const Piece &piece) {
        return areaText(session.notation(), piece);
    };
    static const ColumnDescriptor areaTyped{QT_TR_NOOP("Area"),
                                            QT_TR_NOOP("Of the cross-section that breaks"), showArea, setArea,
                                            Dimension::Area};
    static const ColumnDescriptor area{
        QT_TR_NOOP("Area"), QT_TR_NOOP("Width times thickness, or π d²/4; force over it is stress"), showArea,
        nullptr, Dimension::Area};
    static const ColumnDescriptor state{
        QT_TR_NOOP("State"), QT_TR_NOOP("How far the piece has come"),
        [](Session session, const Piece &piece) { return pegStateText(pegState(piece, session.readings())); },
        nullptr};
    static const std::vector<ColumnDescriptor> rectangular{code, rail, width, thickness, area, state};
    static const std::vector<ColumnDescriptor> round{code, rail, diameter, area, state};
    static const std::vector<ColumnDescriptor> plain{code, rail, areaTyped, state};
    const Study *study = m_session.study();
    if (study == nullptr || study->sectionShape == SectionShape::Rectangular)
        return rectangular;
    return study->sectionShape == SectionShape::Round ? round : plain;
}

PieceTableModel::PieceTableModel(ProjectSession &session, QObject *parent)
    : QAbstractTableModel(parent), m_session(session)
{
    connect(&session, &ProjectSession::studyChanged, this, &PieceTableModel::rebuild);
    connect(&session, &ProjectSession::readingsChanged, this, [this] {
        if (rowCount() > 0)
            emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
    });
    connect(&session, &ProjectSession::notationChanged, this, [this] {
        beginResetModel();
        endResetModel();
    });
    rebuild();
}

void PieceTableModel::rebuild()
{
    std::vector<PieceId> order;
    if (const Study *study = m_session.study()) {
        for (const Condition &condition : study->conditions) {
            for (const Piece *piece : piecesOf(*study, condition.id))
                order.push_back(piece->id);
        }
    }
    const bool sameShape = order == m_order && m_shownColumns == columns().data();
    if (sameShape && !order.empty()) {
        // Keeps the cell that is being edited, where a reset would throw it away.
        emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    m_order = std::move(order);
    m_shownColumns = columns().data();
    endResetModel();
}

int PieceTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_order.size());
}

int PieceTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(columns().size());
}

const Piece &PieceTableModel::pieceIn(int row) const
{
    const Piece *piece = findPiece(*m_session.study(), pieceAt(row));
    require(piece != nullptr, "a row without a piece");
    return *piece;
}

PieceId PieceTableModel::pieceAt(int row) const
{
    return row >= 0 && row < rowCount() ? m_order[static_cast<std::size_t>(row)] : PieceId{};
}

int PieceTableModel::rowOf(PieceId piece) const
{
    const auto found = std::find(m_order.begin(), m_order.end(), piece);
    return found == m_order.end() ? -1 : static_cast<int>(found - m_order.begin());
}

bool PieceTableModel::isEntry(int column) const
{
    return column >= 0 && column < columnCount() &&
           columns()[static_cast<std::size_t>(column)].set != nullptr;
}

QModelIndex PieceTableModel::nextEntry(const QModelIndex &index) const
{
    int row = index.row();
    int column = index.column();
    while (true) {
        if (++column >= columnCount()) {
            column = 0;
            ++row;
        }
        if (row >= rowCount())
            return index;
        if (isEntry(column))
            return this->index(row, column);
    }
}

QVariant PieceTableModel::data(const QModelIndex &index, int role) const
{
    if (!index.isValid())
        return {};
    const ColumnDescriptor &column = columns()[static_cast<std::size_t>(index.column())];
    if (role == Qt::DisplayRole || role == Qt::EditRole)
        return column.text(m_session, pieceIn(index.row()));
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.dimension ? Qt::AlignRight | Qt::AlignVCenter
                                         : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::FontRole && index.column() == 0) {
        QFont font;
        font.setBold(true);
        return font;
    }
    return {};
}

QVariant PieceTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal)
        return {};
    const ColumnDescriptor &column = columns()[static_cast<std::size_t>(section)];
    if (role == Qt::TextAlignmentRole)
        return QVariant(column.dimension ? Qt::AlignRight | Qt::AlignVCenter
                                         : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::ToolTipRole || role == Qt::WhatsThisRole)
        return tr(column.meaning);
    if (role != Qt::DisplayRole)
        return {};
    if (!column.dimension)
        return tr(column.heading);
    return tr("%1, %2").arg(tr(column.heading),
                            QString::fromUtf8(m_session.notation().unitOf(*column.dimension).symbol));
}

Qt::ItemFlags PieceTableModel::flags(const QModelIndex &index) const
{
    const Qt::ItemFlags usual = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return isEntry(index.column()) ? usual | Qt::ItemIsEditable : usual;
}

bool PieceTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    if (role != Qt::EditRole || !isEntry(index.column()))
        return false;
    const PieceId id = pieceAt(index.row());
    const auto set = columns()[static_cast<std::size_t>(index.column())].set;
    return m_session.tryEdit(
        tr("measure piece %1").arg(QString::fromStdString(pieceIn(index.row()).code)), [&](Study &study) {
            return set(*findPiece(study, id), value.toString().trimmed().toStdString(), m_session.notation());
        });
}

bool PieceTableModel::paste(const QModelIndex &from, const QString &text)
{
    static const QRegularExpression lineEnd(QStringLiteral("\\r\\n|\\n|\\r"));
    QStringList lines = text.split(lineEnd);
    while (!lines.isEmpty() && lines.last().trimmed().isEmpty())
        lines.removeLast();
    const auto pasteInto = [&](Study &study) -> Status {
        if (!from.isValid() || lines.isEmpty())
            return invalidArgument(
                "nothing to paste here: copy cells of a spreadsheet, choose the first cell, and paste");
        for (int line = 0; line < lines.size(); ++line) {
            const QChar separator =
                lines[line].contains(QLatin1Char('\t')) ? QLatin1Char('\t') : QLatin1Char(';');
            const QStringList cells = lines[line].split(separator);
            const int row = from.row() + line;
            if (row >= rowCount())
                return invalidArgument(
                    fmt::format("{} rows are pasted but only {} pieces are left from there", lines.size(),
                                rowCount() - from.row()));
            int column = from.column();
            for (const QString &cell : cells) {
                while (column < columnCount() && !isEntry(column))
                    ++column;
                if (column >= columnCount())
                    return invalidArgument(
                        fmt::format("row {} of what is pasted has {} cells; there is no column for the last",
                                    line + 1, cells.size()));
                Piece &piece = *findPiece(study, pieceAt(row));
                const Status status = columns()[static_cast<std::size_t>(column)].set(
                    piece, cell.trimmed().toStdString(), m_session.notation());
                if (!status)
                    return invalidArgument(
                        fmt::format("piece {}: {}. Nothing was pasted", piece.code, status.error().message));
                ++column;
            }
        }
        return ok();
    };
    return m_session.tryEdit(tr("paste measurements"), pasteInto);
}

bool PieceTableModel::clear(const QModelIndexList &cells)
{
    return m_session.tryEdit(tr("clear measurements"), [&](Study &study) -> Status {
        for (const QModelIndex &cell : cells) {
            if (!isEntry(cell.column()))
                continue;
            const Status status = columns()[static_cast<std::size_t>(cell.column())].set(
                *findPiece(study, pieceAt(cell.row())), {}, m_session.notation());
            if (!status)
                return status;
        }
        return ok();
    });
}

QString PieceTableModel::copied(const QModelIndexList &cells) const
{
    if (cells.isEmpty())
        return {};
    int top = cells.front().row();
    int bottom = top;
    int left = cells.front().column();
    int right = left;
    for (const QModelIndex &cell : cells) {
        top = std::min(top, cell.row());
        bottom = std::max(bottom, cell.row());
        left = std::min(left, cell.column());
        right = std::max(right, cell.column());
    }
    QStringList lines;
    for (int row = top; row <= bottom; ++row) {
        QStringList line;
        for (int column = left; column <= right; ++column)
            line << index(row, column).data().toString();
        lines << line.join(QLatin1Char('\t'));
    }
    return lines.join(QLatin1Char('\n'));
}

} // namespace inchpeg::app
