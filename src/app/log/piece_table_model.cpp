// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/log/piece_table_model.h"

#include "app/rack/logged_state.h"
#include "core/planning/lab_code.h"

#include <QFont>
#include <QRegularExpression>

#include <fmt/format.h>

#include <algorithm>
#include <numeric>

namespace inchpeg::app
{

namespace
{

QString fieldTitle(LogField field)
{
    switch (field) {
    case LogField::Width:
        return PieceTableModel::tr("Width");
    case LogField::Thickness:
        return PieceTableModel::tr("Thickness");
    case LogField::Diameter:
        return PieceTableModel::tr("Diameter");
    case LogField::Area:
        return PieceTableModel::tr("Area");
    case LogField::Mass:
        return PieceTableModel::tr("Mass");
    case LogField::Length:
        return PieceTableModel::tr("Length");
    case LogField::Note:
        return PieceTableModel::tr("Note");
    }
    throw ContractViolation("unknown field of the log");
}

Dimension dimensionOf(LogField field)
{
    return field == LogField::Mass   ? Dimension::Mass
           : field == LogField::Area ? Dimension::Area
                                     : Dimension::Length;
}

/// Grams for a mass, else the working unit.
double inLogUnit(LogField field, double working)
{
    return field == LogField::Mass ? 1e3 * working : working;
}

/// The place of each piece in the orders of plates and testing; those that were never laid out come last.
std::map<PieceId, std::pair<int, int>> placesOf(const Study &study, BenchOrder order)
{
    std::map<PieceId, std::pair<int, int>> places;
    for (const PrintedPlate &plate : study.plan.print.printed) {
        for (std::size_t i = 0; i < plate.pieces.size(); ++i) {
            const PlacedPiece &placed = plate.pieces[i];
            places[placed.piece] = order == BenchOrder::Plates
                                       ? std::pair(plate.number, static_cast<int>(i))
                                       : std::pair(placed.testPlace > 0 ? placed.testPlace : 1 << 20, 0);
        }
    }
    return places;
}

} // namespace

QString benchOrderName(BenchOrder order)
{
    switch (order) {
    case BenchOrder::Rails:
        return PieceTableModel::tr("rail by rail");
    case BenchOrder::Plates:
        return PieceTableModel::tr("as on the plates");
    case BenchOrder::Testing:
        return PieceTableModel::tr("as tested");
    }
    throw ContractViolation("unknown order of pieces");
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

std::vector<PieceTableModel::Column> PieceTableModel::wantedColumns() const
{
    const Study *study = m_session.study();
    std::vector<Column> columns{{Shown::Code, {}}, {Shown::Rail, {}}};
    if (study == nullptr)
        return columns;
    for (const LogPlace &place : loggedPlaces(*study)) {
        // The area stands where the sizes end.
        if (place.field == LogField::Mass && study->sectionShape != SectionShape::PlainArea)
            columns.push_back({Shown::Area, {}});
        if (place.field == LogField::Note)
            columns.push_back({Shown::State, {}});
        columns.push_back({Shown::Entry, place});
    }
    return columns;
}

std::vector<PieceId> PieceTableModel::wantedOrder() const
{
    std::vector<PieceId> order;
    const Study *study = m_session.study();
    if (study == nullptr)
        return order;
    std::map<ConditionId, std::vector<PieceId>> byRail;
    for (const Piece &piece : study->pieces)
        byRail[piece.condition].push_back(piece.id);
    for (const Condition &condition : study->conditions)
        order.insert(order.end(), byRail[condition.id].begin(), byRail[condition.id].end());
    if (m_benchOrder == BenchOrder::Rails)
        return order;
    const std::map<PieceId, std::pair<int, int>> places = placesOf(*study, m_benchOrder);
    const auto placeOf = [&](PieceId piece) {
        const auto found = places.find(piece);
        return found == places.end() ? std::pair(1 << 21, 0) : found->second;
    };
    std::stable_sort(order.begin(), order.end(),
                     [&](PieceId a, PieceId b) { return placeOf(a) < placeOf(b); });
    return order;
}

void PieceTableModel::setOrder(BenchOrder order)
{
    if (m_benchOrder == order)
        return;
    m_benchOrder = order;
    rebuild();
}

void PieceTableModel::rebuild()
{
    m_expectations.reset();
    std::vector<PieceId> order = wantedOrder();
    std::vector<Column> columns = wantedColumns();
    std::map<PieceId, std::size_t> places;
    if (const Study *study = m_session.study()) {
        for (std::size_t i = 0; i < study->pieces.size(); ++i)
            places[study->pieces[i].id] = i;
    }
    // The plan's order may still be that of the study before, until it has heard of this one.
    std::erase_if(order, [&](PieceId piece) { return !places.contains(piece); });
    std::vector<std::size_t> found(order.size());
    std::transform(order.begin(), order.end(), found.begin(),
                   [&](PieceId piece) { return places.at(piece); });
    const bool sameShape = order == m_order && columns == m_columns;
    if (sameShape && !order.empty()) {
        // Keeps the cell that is being edited, where a reset would throw it away.
        m_places = std::move(found);
        emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
        return;
    }
    beginResetModel();
    m_order = std::move(order);
    m_places = std::move(found);
    m_columns = std::move(columns);
    endResetModel();
}

int PieceTableModel::rowCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_order.size());
}

int PieceTableModel::columnCount(const QModelIndex &parent) const
{
    return parent.isValid() ? 0 : static_cast<int>(m_columns.size());
}

const Piece *PieceTableModel::pieceIn(int row) const
{
    const Study *study = m_session.study();
    if (study == nullptr || row < 0 || row >= rowCount())
        return nullptr;
    const std::size_t place = m_places[static_cast<std::size_t>(row)];
    return place < study->pieces.size() && study->pieces[place].id == pieceAt(row) ? &study->pieces[place]
                                                                                   : nullptr;
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

std::optional<LogPlace> PieceTableModel::placeAt(int column) const
{
    if (column < 0 || column >= columnCount() ||
        m_columns[static_cast<std::size_t>(column)].kind != Shown::Entry)
        return std::nullopt;
    return m_columns[static_cast<std::size_t>(column)].place;
}

bool PieceTableModel::isEntry(int column) const
{
    return placeAt(column).has_value();
}

bool PieceTableModel::isWalked(int column) const
{
    const std::optional<LogPlace> place = placeAt(column);
    if (!place || place->field == LogField::Note)
        return false;
    return m_walk != Walk::Sizes || isSize(place->field) || place->field == LogField::Area;
}

QModelIndex PieceTableModel::nextEntry(const QModelIndex &from) const
{
    int row = from.row();
    int column = from.column();
    while (true) {
        if (m_walk == Walk::Column && isWalked(column)) {
            if (++row >= rowCount()) {
                row = 0;
                ++column;
                while (column < columnCount() && !isWalked(column))
                    ++column;
            }
        } else if (++column >= columnCount()) {
            column = 0;
            ++row;
        }
        if (row >= rowCount() || column >= columnCount())
            return from;
        if (isWalked(column))
            return index(row, column);
    }
}

QModelIndex PieceTableModel::firstOpen(int row) const
{
    QModelIndex first;
    for (int column = 0; column < columnCount(); ++column) {
        const std::optional<LogPlace> place = placeAt(column);
        if (!isWalked(column))
            continue;
        if (!first.isValid())
            first = index(row, column);
        const Piece *piece = pieceIn(row);
        if (piece == nullptr || !loggedValue(*m_session.study(), *piece, *place))
            return index(row, column);
    }
    return first;
}

Unit PieceTableModel::unitOf(const LogPlace &place) const
{
    return place.field == LogField::Mass ? *findUnit("g")
                                         : m_session.notation().unitOf(dimensionOf(place.field));
}

QString PieceTableModel::textOf(const Column &column, const Piece &piece) const
{
    const Study &study = *m_session.study();
    const Notation &notation = m_session.notation();
    switch (column.kind) {
    case Shown::Code:
        return QString::fromStdString(piece.code);
    case Shown::Rail:
        return QString::fromStdString(railTitle(study, *findCondition(study, piece.condition)));
    case Shown::State:
        return pegStateWord(loggedState(study, piece, m_session.readings()));
    case Shown::Area: {
        const Result<Area> area =
            piece.section ? areaOf(*piece.section) : Result<Area>(invalidArgument("not measured"));
        if (!area)
            return {};
        const Unit unit = notation.unitOf(Dimension::Area);
        QString text = QString::fromStdString(
            notation.fixed(unit.fromWorking(in_mm2(*area)), unit == workingUnit(Dimension::Area) ? 2 : 5));
        const GaugeCard *calliper = calliperOf(study, piece, m_session.workshop());
        if (const auto uncertain = areaUncertainty(piece, calliper))
            text += QStringLiteral(" ± %1 %").arg(
                QString::fromStdString(notation.significant(100.0 * uncertain->expandedShare(), 2)));
        return text;
    }
    case Shown::Entry:
        break;
    }
    if (column.place.field == LogField::Note)
        return QString::fromStdString(piece.log.note);
    const std::optional<double> value = loggedValue(study, piece, column.place);
    if (!value)
        return {};
    if (column.place.field == LogField::Mass)
        return QString::fromStdString(notation.fixed(*value, *value < 10.0 ? 3 : 2));
    if (column.place.field == LogField::Area) {
        const Unit unit = unitOf(column.place);
        return QString::fromStdString(
            notation.fixed(unit.fromWorking(*value), unit == workingUnit(Dimension::Area) ? 2 : 5));
    }
    return QString::fromStdString(notation.measuredLength(*value));
}

QString PieceTableModel::headingOf(const Column &column) const
{
    switch (column.kind) {
    case Shown::Code:
        return tr("Piece");
    case Shown::Rail:
        return tr("Rail");
    case Shown::State:
        return tr("State");
    case Shown::Area:
        return tr("Area\n%1").arg(QString::fromUtf8(m_session.notation().unitOf(Dimension::Area).symbol));
    case Shown::Entry:
        break;
    }
    const MeasuringRule &rule = m_session.study()->log.measuring;
    QString title = fieldTitle(column.place.field);
    if (column.place.field == LogField::Note)
        return title;
    if (isSize(column.place.field) && rule.readings > 1)
        title += QStringLiteral(" %1").arg(column.place.reading + 1);
    if (column.place.field == LogField::Length && rule.lengthAxis)
        title += QStringLiteral(" %1").arg(QString::fromUtf8(axisName(*rule.lengthAxis).data()));
    return tr("%1\n%2").arg(title, QString::fromUtf8(unitOf(column.place).symbol));
}

const Expectations &PieceTableModel::expectations() const
{
    if (!m_expectations)
        m_expectations.emplace(*m_session.study(), m_session.workshop());
    return *m_expectations;
}

std::vector<Doubt> PieceTableModel::doubtsAbout(PieceId id) const
{
    const Piece *piece = m_session.study() != nullptr ? findPiece(*m_session.study(), id) : nullptr;
    return piece != nullptr ? doubtsOf(*m_session.study(), *piece, expectations()) : std::vector<Doubt>();
}

QString PieceTableModel::tipOf(const Column &column, const Piece &piece) const
{
    if (column.kind == Shown::Rail || column.place.field == LogField::Note)
        return textOf(column, piece); // a long one is cut in its cell
    if (column.kind == Shown::State)
        return pegStateText(loggedState(*m_session.study(), piece, m_session.readings()));
    if (column.kind != Shown::Entry)
        return {};
    for (const Doubt &doubt : doubtsOf(*m_session.study(), piece, expectations())) {
        if (doubt.place == column.place)
            return QString::fromStdString(m_session.notation().expand(doubt.sentence));
    }
    return {};
}

QVariant PieceTableModel::data(const QModelIndex &index, int role) const
{
    // A view may ask between the moment a study goes and the moment it is told so.
    const Piece *piece = index.isValid() ? pieceIn(index.row()) : nullptr;
    if (piece == nullptr)
        return {};
    const Column &column = m_columns[static_cast<std::size_t>(index.column())];
    if (role == Qt::DisplayRole || role == Qt::EditRole)
        return textOf(column, *piece);
    if (role == Qt::ToolTipRole)
        return tipOf(column, *piece);
    const bool isNumber =
        column.kind == Shown::Area || (column.kind == Shown::Entry && column.place.field != LogField::Note);
    if (role == Qt::TextAlignmentRole)
        return QVariant(isNumber ? Qt::AlignRight | Qt::AlignVCenter : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::FontRole) {
        // A value that is in doubt stands bold and slanted until it is confirmed or changed.
        const bool inDoubt = isNumber && column.kind == Shown::Entry && !tipOf(column, *piece).isEmpty();
        if (index.column() != 0 && !inDoubt)
            return {};
        QFont font;
        font.setBold(true);
        font.setItalic(inDoubt);
        return font;
    }
    return {};
}

QVariant PieceTableModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation != Qt::Horizontal || section < 0 || section >= columnCount())
        return {};
    const Column &column = m_columns[static_cast<std::size_t>(section)];
    const bool isNumber =
        column.kind == Shown::Area || (column.kind == Shown::Entry && column.place.field != LogField::Note);
    if (role == Qt::TextAlignmentRole)
        return QVariant(isNumber ? Qt::AlignRight | Qt::AlignVCenter : Qt::AlignLeft | Qt::AlignVCenter);
    if (role == Qt::DisplayRole)
        return headingOf(column);
    if (role != Qt::ToolTipRole && role != Qt::WhatsThisRole)
        return {};
    switch (column.kind) {
    case Shown::Code:
        return tr("The code that is written on the piece");
    case Shown::Rail:
        return tr("The condition that the piece was printed under");
    case Shown::State:
        return tr("How far the piece has come");
    case Shown::Area:
        return tr("Width times thickness, or π d²/4, of the readings taken together; ± is its expanded "
                  "uncertainty (k = 2) from the callipers and the scatter of the readings");
    case Shown::Entry:
        break;
    }
    return isSize(column.place.field) ? tr("Of the narrow part, measured with callipers on this piece")
           : column.place.field == LogField::Mass
               ? tr("Weighed as it comes off the plate, clean of brim and strings")
               : tr("As measured; the drawn length is set above the table");
}

Qt::ItemFlags PieceTableModel::flags(const QModelIndex &index) const
{
    const Qt::ItemFlags usual = Qt::ItemIsEnabled | Qt::ItemIsSelectable;
    return isEntry(index.column()) ? usual | Qt::ItemIsEditable : usual;
}

Status PieceTableModel::setText(Study &study, PieceId id, const LogPlace &place,
                                const std::string &text) const
{
    Piece &piece = *findPiece(study, id);
    if (place.field == LogField::Note) {
        piece.log.note = text;
        return ok();
    }
    if (text.empty())
        return setLoggedValue(study, piece, place, std::nullopt);
    const Result<double> working = parseQuantity(text, unitOf(place));
    if (!working)
        return working.error();
    const double value = withTheMark(text, inLogUnit(place.field, *working), expectations().at(piece, place));
    return setLoggedValue(study, piece, place, value, m_session.measuringGauges());
}

bool PieceTableModel::setData(const QModelIndex &index, const QVariant &value, int role)
{
    const std::optional<LogPlace> place = placeAt(index.column());
    const Piece *piece = pieceIn(index.row());
    if (role != Qt::EditRole || !place || piece == nullptr)
        return false;
    const std::string text = value.toString().trimmed().toStdString();
    if (const std::optional<PieceId> label = pieceOfLabel(m_session.workshop().labPrefix, text)) {
        emit labelScanned(*label);
        return true;
    }
    const PieceId id = piece->id;
    const bool done = m_session.tryEdit(tr("measure piece %1").arg(QString::fromStdString(piece->code)),
                                        [&](Study &study) { return setText(study, id, *place, text); });
    m_isRefused = !done;
    if (done)
        emit taken(id);
    return done;
}

bool PieceTableModel::takeReading(const QModelIndex &index, double value, std::optional<Dimension> dimension)
{
    const std::optional<LogPlace> place = placeAt(index.column());
    const Piece *piece = pieceIn(index.row());
    if (!place || place->field == LogField::Note || piece == nullptr)
        return m_session.tell(
            invalidArgument("choose a cell for a number, then press the gauge's button again"));
    if (dimension && *dimension != dimensionOf(place->field))
        return m_session.tell(invalidArgument(
            fmt::format("the gauge sent {} {}, but the cell is for {} {}; nothing was taken",
                        *dimension == Dimension::Area ? "an" : "a", dimensionName(*dimension),
                        place->field == LogField::Area ? "an" : "a", fieldWord(place->field))));
    // Without a unit the number is one of the cell's own unit.
    const double working = dimension ? value : unitOf(*place).toWorking(value);
    const PieceId id = piece->id;
    const bool done =
        m_session.tryEdit(tr("measure piece %1").arg(QString::fromStdString(piece->code)), [&](Study &study) {
            return setLoggedValue(study, *findPiece(study, id), *place, inLogUnit(place->field, working),
                                  m_session.measuringGauges());
        });
    if (done)
        emit taken(id);
    return done;
}

bool PieceTableModel::paste(const QModelIndex &from, const QString &text)
{
    static const QRegularExpression lineEnd(QStringLiteral("\\r\\n|\\n|\\r"));
    QStringList lines = text.split(lineEnd);
    while (!lines.isEmpty() && lines.last().trimmed().isEmpty())
        lines.removeLast();
    int replaced = 0;
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
                const Piece *piece = pieceIn(row);
                if (piece == nullptr)
                    return invalidArgument("the study changed meanwhile; nothing was pasted");
                replaced += textOf(m_columns[static_cast<std::size_t>(column)], *piece).isEmpty() ? 0 : 1;
                const Status status =
                    setText(study, pieceAt(row), *placeAt(column), cell.trimmed().toStdString());
                if (!status)
                    return invalidArgument(
                        fmt::format("piece {}: {}. Nothing was pasted", piece->code, status.error().message));
                ++column;
            }
        }
        return ok();
    };
    if (!m_session.tryEdit(tr("paste measurements"), pasteInto))
        return false;
    if (replaced > 0)
        emit m_session.failed(
            tr("%1 values that were there are replaced; Ctrl+Z brings them back.").arg(replaced));
    for (int line = static_cast<int>(lines.size()) - 1; line >= 0; --line)
        emit taken(pieceAt(from.row() + line));
    return true;
}

bool PieceTableModel::clear(const QModelIndexList &cells)
{
    return m_session.tryEdit(tr("clear measurements"), [&](Study &study) -> Status {
        for (const QModelIndex &cell : cells) {
            const std::optional<LogPlace> place = placeAt(cell.column());
            if (!place)
                continue;
            if (const Status status = setText(study, pieceAt(cell.row()), *place, {}); !status)
                return status;
        }
        return ok();
    });
}

QString PieceTableModel::copied(const QModelIndexList &cells) const
{
    if (cells.isEmpty())
        return {};
    const auto [top, bottom] = std::minmax_element(
        cells.begin(), cells.end(), [](const auto &a, const auto &b) { return a.row() < b.row(); });
    const auto [left, right] = std::minmax_element(
        cells.begin(), cells.end(), [](const auto &a, const auto &b) { return a.column() < b.column(); });
    QStringList lines;
    for (int row = top->row(); row <= bottom->row(); ++row) {
        QStringList line;
        for (int column = left->column(); column <= right->column(); ++column)
            line << index(row, column).data().toString();
        lines << line.join(QLatin1Char('\t'));
    }
    return lines.join(QLatin1Char('\n'));
}

} // namespace inchpeg::app
