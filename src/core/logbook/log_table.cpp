// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/log_table.h"

#include "core/import/cells.h"
#include "core/import/text.h"
#include "core/planning/lab_code.h"
#include "core/text/letters.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <map>
#include <set>

namespace inchpeg
{

namespace
{

/// A heading taken apart: "Width 2 (mm)" is width, 2, mm.
struct Heading {
    std::string word;
    int number = 1;
    std::string unit;
};

bool isUnit(std::string_view text)
{
    const std::optional<Unit> unit = findUnit(text);
    return unit && (unit->dimension == Dimension::Length || unit->dimension == Dimension::Area ||
                    unit->dimension == Dimension::Mass);
}

Heading takeApart(std::string_view text)
{
    Heading heading;
    std::string rest(trimmed(text));
    if (const auto open = rest.find_first_of("[("); open != std::string::npos) {
        const auto close = rest.find_first_of("])", open);
        heading.unit = rest.substr(open + 1, close == std::string::npos ? close : close - open - 1);
        rest = rest.substr(0, open);
    } else if (const auto cut = rest.find_last_of(",_ ");
               cut != std::string::npos && isUnit(trimmed(rest.substr(cut + 1)))) {
        heading.unit = trimmed(rest.substr(cut + 1));
        rest = rest.substr(0, cut);
    }
    std::replace(rest.begin(), rest.end(), '_', ' ');
    while (!rest.empty() && (rest.back() == ' ' || rest.back() == ',' || rest.back() == '.'))
        rest.pop_back();
    if (!rest.empty() && std::isdigit(static_cast<unsigned char>(rest.back())) != 0) {
        heading.number = rest.back() - '0';
        rest.pop_back();
    }
    heading.word = smallLetters(trimmed(rest));
    return heading;
}

constexpr std::array<std::string_view, 8> kCodeWords = {"piece", "specimen", "code",       "sample",
                                                        "label", "id",       "test piece", "no"};
struct FieldWords {
    LogField field = LogField::Note;
    std::array<std::string_view, 4> words;
};
constexpr FieldWords kFieldWords[] = {
    {LogField::Width, {"width", "w", "b", "breadth"}},
    {LogField::Thickness, {"thickness", "t", "h", "height"}},
    {LogField::Diameter, {"diameter", "d", "dia", "ø"}},
    {LogField::Area, {"area", "cross-section", "section", "a"}},
    {LogField::Mass, {"mass", "weight", "m", "grams"}},
    {LogField::Length, {"length", "l", "known length", "measured length"}},
    {LogField::Note, {"note", "notes", "remark", "comment"}},
};

Unit usualUnit(LogField field)
{
    if (field == LogField::Mass)
        return *findUnit("g");
    return workingUnit(field == LogField::Area ? Dimension::Area : Dimension::Length);
}

/// The value in mm, mm² or g.
double inLogUnit(LogField field, const Unit &unit, double value)
{
    return field == LogField::Mass ? 1e3 * unit.toWorking(value) : unit.toWorking(value);
}

TakenColumn understand(const Study &study, std::string_view text)
{
    const Heading heading = takeApart(text);
    TakenColumn column;
    column.heading = std::string(trimmed(text));
    if (std::find(kCodeWords.begin(), kCodeWords.end(), heading.word) != kCodeWords.end()) {
        column.isCode = true;
        column.meaning = "which piece";
        return column;
    }
    const auto known =
        std::find_if(std::begin(kFieldWords), std::end(kFieldWords), [&](const FieldWords &one) {
            return std::find(one.words.begin(), one.words.end(), heading.word) != one.words.end();
        });
    if (known == std::end(kFieldWords)) {
        column.meaning = "not taken: its heading is no field of the log";
        return column;
    }
    const LogPlace place{known->field, isSize(known->field) ? heading.number - 1 : 0};
    const std::vector<LogPlace> places = loggedPlaces(study);
    if (std::find(places.begin(), places.end(), place) == places.end()) {
        column.meaning =
            fmt::format("not taken: the pieces of this study have no {}{}", fieldWord(place.field),
                        isSize(place.field) && heading.number > 1
                            ? fmt::format(" {} (more readings of a size can be set)", heading.number)
                            : "");
        return column;
    }
    const Unit usual = usualUnit(place.field);
    const std::optional<Unit> unit = heading.unit.empty() ? std::optional(usual) : findUnit(heading.unit);
    if (place.field != LogField::Note && (!unit || unit->dimension != usual.dimension)) {
        column.meaning = fmt::format("not taken: \"{}\" is no unit of {} {}", heading.unit,
                                     place.field == LogField::Area ? "an" : "a", fieldWord(place.field));
        return column;
    }
    column.place = place;
    column.meaning = placeName(study.log.measuring, place);
    if (place.field != LogField::Note) {
        column.unit = unit;
        column.meaning += fmt::format(" in {}", unit->symbol);
    }
    return column;
}

std::string shownValue(const Study &study, const Piece &piece, const LogPlace &place)
{
    if (place.field == LogField::Note)
        return piece.log.note;
    const auto value = loggedValue(study, piece, place);
    return value ? fmt::format("{:g}", *value) : std::string();
}

constexpr const char *kNoTable = "there is no table: a line of headings and at least one row are wanted";

class TableReader
{
public:
    TableReader(const Study &study, std::string_view labPrefix) : m_study(study), m_prefix(labPrefix)
    {
        for (const Condition &condition : study.conditions) {
            for (const Piece *piece : piecesOf(study, condition.id)) {
                m_order.push_back(piece);
                m_byCode[smallLetters(piece->code)] = piece;
            }
        }
    }

    Result<TakenTable> read(std::string_view text)
    {
        if (trimmedIsEmpty(text))
            return badInput(kNoTable);
        const std::string_view heading = takeLine(text);
        if (trimmedIsEmpty(text))
            return badInput(kNoTable);
        m_delimiter = delimiterOf(heading);
        if (const Status status = readHeading(heading); !status)
            return status.error();
        for (std::size_t number = 2; !text.empty();) {
            const std::string_view record = takeRecord(text, m_delimiter);
            if (!trimmed(record).empty())
                readRow(number, record);
            number += 1 + static_cast<std::size_t>(std::count(record.begin(), record.end(), '\n'));
        }
        if (!m_code && m_table.rows > m_order.size())
            return badInput(
                fmt::format("the table has {} rows without codes, but the study has {} pieces; add a "
                            "column \"piece\" with their codes",
                            m_table.rows, m_order.size()));
        return std::move(m_table);
    }

private:
    Status readHeading(std::string_view line)
    {
        splitCells(line, m_delimiter, m_cells);
        std::set<LogPlace> taken;
        for (const std::string_view cell : m_cells) {
            TakenColumn column = understand(m_study, unquoted(cell));
            if (column.place && !taken.insert(*column.place).second) {
                column.place.reset();
                column.meaning = "not taken: an earlier column says the same";
            }
            if (column.isCode && !m_code)
                m_code = m_table.columns.size();
            m_table.columns.push_back(std::move(column));
        }
        if (taken.empty())
            return badInput(
                "no column is one of the log's: headings like \"piece\", \"width (mm)\", \"thickness "
                "(mm)\", \"mass (g)\" or \"note\" are wanted in the first line");
        return ok();
    }

    const Piece *pieceOf(std::size_t lineNumber)
    {
        if (!m_code) {
            const std::size_t row = m_table.rows - 1;
            return row < m_order.size() ? m_order[row] : nullptr;
        }
        const std::string code = *m_code < m_cells.size() ? cellText(m_cells[*m_code]) : std::string();
        const auto known = m_byCode.find(smallLetters(code));
        if (known != m_byCode.end())
            return known->second;
        if (const std::optional<PieceId> label = pieceOfLabel(m_prefix, code)) {
            if (const Piece *piece = findPiece(m_study, *label))
                return piece;
        }
        m_table.problems.push_back(badInput(fmt::format("there is no piece \"{}\" in this study", code),
                                            TextPosition{lineNumber, *m_code + 1}));
        return nullptr;
    }

    void readRow(std::size_t lineNumber, std::string_view line)
    {
        splitCells(line, m_delimiter, m_cells);
        ++m_table.rows;
        std::size_t filled = m_cells.size();
        while (filled > 0 && trimmed(m_cells[filled - 1]).empty())
            --filled;
        if (filled > m_table.columns.size()) {
            m_table.problems.push_back(badInput(
                fmt::format(
                    "{} cells under {} headings{}; the row is not taken", filled, m_table.columns.size(),
                    m_delimiter == ',' ? ": with a decimal comma, part the cells by semicolons or tabs" : ""),
                TextPosition{lineNumber, std::nullopt}));
            return;
        }
        const Piece *piece = pieceOf(lineNumber);
        if (piece == nullptr)
            return;
        for (std::size_t c = 0; c < m_cells.size() && c < m_table.columns.size(); ++c) {
            const TakenColumn &column = m_table.columns[c];
            const std::string cell = cellText(m_cells[c]);
            if (column.place && !cell.empty())
                readCell({lineNumber, c + 1}, *piece, column, cell);
        }
    }

    void readCell(const TextPosition &place, const Piece &piece, const TakenColumn &column,
                  const std::string &cell)
    {
        TakenValue value{piece.id, *column.place, {}, {}, shownValue(m_study, piece, *column.place),
                         {},       place};
        if (column.unit) {
            const std::optional<double> number = parseTypedNumber(cell);
            if (!number || !(*number > 0.0)) {
                m_table.problems.push_back(
                    badInput(fmt::format("\"{}\" is no {} of piece {}; a number above zero is wanted", cell,
                                         fieldWord(column.place->field), piece.code),
                             place));
                return;
            }
            value.number = inLogUnit(column.place->field, *column.unit, *number);
            value.after = fmt::format("{:g}", *value.number);
        } else {
            value.note = cell;
            value.after = cell;
        }
        if (value.after == value.before)
            ++m_table.unchanged;
        else
            m_table.values.push_back(std::move(value));
    }

    const Study &m_study;
    std::string_view m_prefix;
    std::vector<const Piece *> m_order;
    std::map<std::string, const Piece *> m_byCode;
    char m_delimiter = '\t';
    std::optional<std::size_t> m_code;
    std::vector<std::string_view> m_cells;
    TakenTable m_table;
};

} // namespace

std::string_view logUnit(LogField field)
{
    return field == LogField::Note ? std::string_view() : usualUnit(field).symbol;
}

Result<TakenTable> readLogTable(const Study &study, std::string_view text, std::string_view labPrefix)
{
    return TableReader(study, labPrefix).read(text);
}

Status takeLogTable(Study &study, const TakenTable &table, bool replace, const MeasuringGauges &gauges)
{
    for (const TakenValue &value : table.values) {
        if (value.overwrites() && !replace)
            continue;
        Piece *piece = findPiece(study, value.piece);
        require(piece != nullptr, "a table that was read for another study");
        if (!value.number) {
            piece->log.note = value.note;
        } else if (const Status status = setLoggedValue(study, *piece, value.place, value.number, gauges);
                   !status) {
            return status;
        }
    }
    return ok();
}

} // namespace inchpeg
