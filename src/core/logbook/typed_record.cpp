// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/typed_record.h"

#include "core/base/utc_time.h"
#include "core/import/text.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr std::string_view kHead = "# Inch Peg, typed readings";
constexpr std::string_view kTakenAt = "taken_at";
constexpr std::string_view kAsTyped = "as_typed";
constexpr std::array<std::string_view, 4> kMeasuredInTheLog = {"width", "thickness", "diameter", "area"};
constexpr char kTypedSeparator = '|';

bool isMeasuredInTheLog(std::string_view name)
{
    return std::find(kMeasuredInTheLog.begin(), kMeasuredInTheLog.end(), name) != kMeasuredInTheLog.end();
}

std::string_view cellOf(const TypedRow &row, std::size_t column)
{
    return column < row.cells.size() ? trimmed(row.cells[column]) : std::string_view();
}

bool isBlank(const TypedRow &row)
{
    return std::all_of(row.cells.begin(), row.cells.end(),
                       [](const std::string &cell) { return trimmed(cell).empty(); });
}

/// A typed value in its working unit; a mass stands for its weight where the column takes one.
Result<double> valueOf(std::string_view cell, const TypedColumn &column, const Unit &unit)
{
    Result<double> value = parseQuantity(cell, unit);
    if (!value && column.acceptsMass) {
        if (const Result<double> weight = parseQuantity(std::string(cell) + "f", unit))
            return *weight;
    }
    return value;
}

/// "force_N", "temperature_°C"; a choice is named alone.
std::string headingOf(const TypedColumn &column)
{
    const std::string_view unit = column.dimension ? workingUnit(*column.dimension).symbol : "";
    return unit.empty() ? std::string(column.name) : fmt::format("{} [{}]", column.name, unit);
}

/// One line of the table; errors name the row and the column.
class RowWriter
{
public:
    RowWriter(std::span<const TypedColumn> columns, std::span<const Unit> units, std::vector<bool> isUsed)
        : m_columns(columns), m_units(units), m_isUsed(std::move(isUsed))
    {
    }

    Result<std::string> line(const TypedRow &row, std::size_t number, double elapsed_s) const
    {
        std::string text;
        std::string typed;
        for (std::size_t c = 0; c < m_columns.size(); ++c) {
            if (m_isUsed[c]) {
                const Result<std::string> cell = written(row, c, number, elapsed_s);
                if (!cell)
                    return cell.error();
                text += *cell + ";";
            }
            typed += (c == 0 ? "" : std::string(1, kTypedSeparator)) + std::string(cellOf(row, c));
        }
        std::replace(typed.begin(), typed.end(), '"', '\'');
        return fmt::format("{}{};\"{}\"\n", text, row.takenAt, typed);
    }

private:
    [[nodiscard]] Result<std::string> written(const TypedRow &row, std::size_t c, std::size_t number,
                                              double elapsed_s) const
    {
        const TypedColumn &column = m_columns[c];
        const std::string_view cell = cellOf(row, c);
        if (cell.empty() && column.isElapsed)
            return fmt::format("{}", elapsed_s);
        if (cell.empty() && column.dimension)
            return badInput(fmt::format("row {}: the {} is missing; it is wanted in every row{}", number,
                                        column.name, column.isRequired ? "" : ", or in none"),
                            TextPosition{number, c + 1});
        if (cell.empty())
            return std::string();
        if (!column.dimension) {
            const std::optional<std::string_view> known = choiceFrom(cell, column.choices);
            if (!known)
                return badInput(fmt::format("row {}: \"{}\" is {}", number, column.name,
                                            fmt::join(column.choices, " or ")),
                                TextPosition{number, c + 1});
            return std::string(*known);
        }
        const Result<double> value = valueOf(cell, column, m_units[c]);
        if (!value)
            return badInput(fmt::format("row {}, {}: {}", number, column.name, value.error().message),
                            TextPosition{number, c + 1});
        return fmt::format("{}", *value);
    }

    std::span<const TypedColumn> m_columns;
    std::span<const Unit> m_units;
    std::vector<bool> m_isUsed; ///< of each column: a record without it has no such column
};

/// Columns that are needed, or that any row fills.
std::vector<bool> usedColumns(const TypedRecord &record, std::span<const TypedColumn> columns)
{
    std::vector<bool> used;
    for (std::size_t c = 0; c < columns.size(); ++c)
        used.push_back(columns[c].isRequired ||
                       std::any_of(record.rows.begin(), record.rows.end(),
                                   [c](const TypedRow &row) { return !cellOf(row, c).empty(); }));
    return used;
}

double secondsBetween(const std::string &from, const std::string &to)
{
    const std::optional<std::int64_t> first = secondsSinceEpoch(from);
    const std::optional<std::int64_t> last = secondsSinceEpoch(to);
    return first && last ? static_cast<double>(*last - *first) : 0.0;
}

std::string_view takeLineOf(std::string_view &rest)
{
    return rest.empty() ? std::string_view() : takeLine(rest);
}

std::vector<std::string> parts(std::string_view text, char separator)
{
    std::vector<std::string> all;
    while (true) {
        const std::size_t end = text.find(separator);
        all.emplace_back(text.substr(0, end));
        if (end == std::string_view::npos)
            return all;
        text.remove_prefix(end + 1);
    }
}

/// The cell of a column as it was written, with the working unit behind it; empty where the record has no
/// such column.
std::string cellWithUnit(const TypedColumn &column, std::span<const std::string> headings,
                         std::span<const std::string> written)
{
    for (std::size_t i = 0; i < std::min(headings.size(), written.size()); ++i) {
        if (headings[i] != headingOf(column))
            continue;
        const std::string_view unit = column.dimension ? workingUnit(*column.dimension).symbol : "";
        return unit.empty() || written[i].empty() ? written[i] : fmt::format("{} {}", written[i], unit);
    }
    return {};
}

/// cellsOf: from the heading, the values and what was typed of a row.
template <typename CellsOf>
std::optional<TypedRecord> recordFrom(std::string_view bytes, const Reduction &reduction, CellsOf cellsOf)
{
    std::string_view rest = bytes;
    if (takeLineOf(rest) != fmt::format("{}: {}", kHead, reduction.command))
        return std::nullopt;
    TypedRecord record;
    std::string_view heading = takeLineOf(rest);
    for (; heading.starts_with("# "); heading = takeLineOf(rest)) {
        const auto after = [heading](std::string_view key) {
            return heading.starts_with(key) ? std::optional(std::string(heading.substr(key.size())))
                                            : std::nullopt;
        };
        record.code = after("# piece: ").value_or(record.code);
        record.who = after("# by: ").value_or(record.who);
        record.gauge = after("# read from: ").value_or(record.gauge);
    }
    while (!rest.empty()) {
        const std::string_view row = takeLineOf(rest);
        const std::size_t quote = row.find('"');
        if (quote == std::string_view::npos || quote < 2 || row.back() != '"')
            return std::nullopt;
        const std::string_view before = row.substr(0, quote - 1);
        const std::size_t last = before.rfind(';');
        TypedRow typed;
        typed.takenAt = before.substr(last + 1);
        typed.cells = cellsOf(heading, before.substr(0, last == std::string_view::npos ? 0 : last),
                              row.substr(quote + 1, row.size() - quote - 2));
        record.rows.push_back(std::move(typed));
    }
    return record;
}

} // namespace

std::vector<Unit> shownUnits(const std::vector<TypedColumn> &columns, const Notation &notation)
{
    std::vector<Unit> units;
    for (const TypedColumn &column : columns)
        units.push_back(column.isInHours ? *findUnit("h")
                                         : notation.unitOf(column.dimension.value_or(Dimension::Number)));
    return units;
}

std::string typedCell(const TypedColumn &column, std::string text)
{
    if (!column.dimension) {
        if (const std::optional<std::string_view> choice = choiceFrom(text, column.choices))
            return std::string(*choice);
    }
    return text;
}

std::vector<TypedColumn> typedColumns(const Reduction &reduction)
{
    std::vector<TypedColumn> columns;
    for (const RecordColumn &column : reduction.columns) {
        const bool isTime = column.quantity == ColumnQuantity::Time;
        columns.push_back({column.name,
                           column.label,
                           isTime ? "empty: from when the rows were typed" : std::string_view(),
                           dimensionOf(column.quantity),
                           {},
                           column.isRequired,
                           column.acceptsMass,
                           isTime,
                           isTime && column.isRequired && column.unit == "h"});
    }
    if (!columns.empty())
        return columns;
    for (const Parameter &parameter : reduction.parameters) {
        if (parameter.source != ParameterSource::Piece || isMeasuredInTheLog(parameter.name))
            continue;
        const std::optional<Unit> unit = findUnit(parameter.unit);
        columns.push_back({parameter.name, parameter.label, parameter.meaning,
                           parameter.choices.empty() ? std::optional(unit->dimension) : std::nullopt,
                           parameter.choices, parameter.isRequired, false, false, parameter.unit == "h"});
    }
    return columns;
}

Result<std::string> typedRecordText(const TypedRecord &record, const Reduction &reduction,
                                    std::span<const Unit> units)
{
    const std::vector<TypedColumn> columns = typedColumns(reduction);
    require(units.size() == columns.size(), "typedRecordText(): a unit a column is wanted");
    std::string text =
        fmt::format("{}: {}\n# piece: {}\n# by: {}\n", kHead, reduction.command, record.code, record.who);
    if (!record.gauge.empty())
        text += fmt::format("# read from: {}\n", record.gauge);
    const std::vector<bool> used = usedColumns(record, columns);
    for (std::size_t c = 0; c < columns.size(); ++c) {
        if (used[c])
            text += headingOf(columns[c]) + ";";
    }
    text += fmt::format("{};{}\n", kTakenAt, kAsTyped);
    const RowWriter writer(columns, units, used);
    std::string first;
    std::size_t number = 0;
    for (const TypedRow &row : record.rows) {
        ++number;
        if (isBlank(row))
            continue;
        if (first.empty())
            first = row.takenAt;
        const Result<std::string> line = writer.line(row, number, secondsBetween(first, row.takenAt));
        if (!line)
            return line.error();
        text += *line;
    }
    if (first.empty())
        return badInput("nothing is typed yet");
    return text;
}

std::optional<TypedRecord> typedRecordFrom(std::string_view bytes, const Reduction &reduction)
{
    return recordFrom(bytes, reduction, [](std::string_view, std::string_view, std::string_view asTyped) {
        return parts(asTyped, kTypedSeparator);
    });
}

std::optional<TypedRecord> typedRecordWithUnits(std::string_view bytes, const Reduction &reduction)
{
    const std::vector<TypedColumn> columns = typedColumns(reduction);
    return recordFrom(bytes, reduction,
                      [&](std::string_view heading, std::string_view values, std::string_view) {
                          const std::vector<std::string> names = parts(heading, ';');
                          const std::vector<std::string> written = parts(values, ';');
                          std::vector<std::string> cells;
                          for (const TypedColumn &column : columns)
                              cells.push_back(cellWithUnit(column, names, written));
                          return cells;
                      });
}

} // namespace inchpeg
