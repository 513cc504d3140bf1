// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/record_table.h"

#include "core/import/table.h"
#include "core/import/table_parts.h"
#include "core/import/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

std::vector<std::size_t> columnsFor(const Layout &layout, const RecordColumn &wanted)
{
    std::vector<std::size_t> found;
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        const Column &column = layout.columns[c];
        if (column.quantity == wanted.quantity && column.isTransverse == wanted.isTransverse)
            found.push_back(c);
    }
    return found;
}

/// The first candidate; a gauge's extension goes before a crosshead's.
Result<std::optional<std::size_t>> pick(const Layout &layout, const RecordColumn &wanted,
                                        std::vector<std::string> &notes)
{
    const std::vector<std::size_t> candidates = columnsFor(layout, wanted);
    if (candidates.empty())
        return std::optional<std::size_t>();
    std::size_t chosen = candidates.front();
    for (std::size_t c : candidates) {
        if (layout.columns[chosen].isCrosshead && !layout.columns[c].isCrosshead)
            chosen = c;
    }
    for (std::size_t c : candidates) {
        if (c != chosen && layout.columns[c].name == layout.columns[chosen].name)
            return badInput(
                fmt::format(
                    "two columns are named \"{}\"; rename or unassign one so that it is clear which is meant",
                    layout.columns[c].name),
                TextPosition{layout.headingLine.value_or(1), c + 1});
    }
    if (candidates.size() > 1)
        notes.push_back(fmt::format("{} columns hold a {}: \"{}\" is used", candidates.size(),
                                    quantityName(wanted.quantity), layout.columns[chosen].name));
    return std::optional(chosen);
}

std::string columnNames(const Layout &layout)
{
    std::string names;
    for (const Column &column : layout.columns)
        names += (names.empty() ? "\"" : ", \"") + column.name + "\"";
    return names;
}

bool holds(const Layout &table, const RecordColumn &column)
{
    return !columnsFor(table, column).empty();
}

/// The first table that holds what is required, and something beside it where wanted.
const Layout *tableWith(const std::vector<Layout> &tables, std::span<const RecordColumn> wanted, bool more)
{
    const auto fits = [&](const Layout &table) {
        bool any = false;
        for (const RecordColumn &column : wanted) {
            const bool there = holds(table, column);
            if (column.isRequired && !there)
                return false;
            any = any || (!column.isRequired && there);
        }
        return any || !more;
    };
    const auto found = std::find_if(tables.begin(), tables.end(), fits);
    return found == tables.end() ? nullptr : &*found;
}

/// Masses that hang there, where the test takes them for their weight.
Layout withWeights(Layout layout, std::span<const RecordColumn> wanted, std::vector<std::string> &warnings)
{
    for (Column &column : layout.columns) {
        const bool mayBeMass = std::any_of(wanted.begin(), wanted.end(), [&](const RecordColumn &one) {
            return one.acceptsMass && column.quantity == one.quantity;
        });
        const std::optional<Unit> mass = findUnit(column.unknownUnitText);
        if (!mayBeMass || !mass || mass->dimension != Dimension::Mass)
            continue;
        const std::optional<Unit> weight = findUnit(std::string(mass->symbol) + "f");
        if (!weight)
            continue;
        warnings.push_back(
            fmt::format("column \"{}\" holds masses: their weight is taken as the load", column.name));
        column.unit = weight;
        column.unknownUnitText.clear();
        column.unitAssumed = false;
    }
    return layout;
}

/// Errors: BadInput where the table holds several specimens.
Status holdsOneRecord(std::string_view text, const Layout &layout)
{
    const std::vector<Layout> specimens = specimensOf(text, layout);
    if (specimens.size() < 2)
        return ok();
    return badInput(fmt::format("the table holds {}; choose one of them by its number, as table 1 to {}",
                                specimensSentence(specimens), specimens.size()),
                    TextPosition{layout.headingLine.value_or(1), std::nullopt});
}

} // namespace

Result<Layout> findRecordLayout(std::string_view text, std::span<const RecordColumn> wanted,
                                std::optional<std::size_t> tableNumber)
{
    if (tableNumber) {
        const Result<std::vector<Layout>> all = findTables(text);
        if (!all)
            return all.error();
        if (*tableNumber < 1 || *tableNumber > all->size())
            return invalidArgument(
                fmt::format("there is no table {}: the file holds {}", *tableNumber,
                            all->size() == 1 ? "one table" : fmt::format("{} tables", all->size())));
        return (*all)[*tableNumber - 1];
    }
    Result<std::vector<Layout>> tables = findFirstTables(text);
    if (!tables)
        return tables.error();
    for (Layout &table : *tables)
        table.doubt = resultsSentence(text, table);
    if (tableWith(*tables, wanted, true) == nullptr && lineOfNextTable(text, tables->back()))
        tables = findTables(text);
    for (const bool more : {true, false}) {
        if (const Layout *table = tableWith(*tables, wanted, more))
            return *table;
    }
    return tables->back();
}

Result<Layout> findRecordLayout(std::string_view text, std::span<const RecordColumn> wanted,
                                const ColumnMapping &mapping)
{
    Result<Layout> layout = findRecordLayout(text, wanted, mapping.table);
    return layout ? withMapping(std::move(*layout), mapping) : layout;
}

Result<RecordChoice> chooseColumns(const Layout &layout, std::span<const RecordColumn> wanted)
{
    RecordChoice out;
    for (const RecordColumn &column : wanted) {
        const Result<std::optional<std::size_t>> picked = pick(layout, column, out.notes);
        if (!picked)
            return picked.error();
        if (column.isRequired && !*picked)
            return badInput(fmt::format("no {0} column: the columns are {1}; name one \"{0}\" or give it a "
                                        "unit of {2} such as {3}",
                                        column.name, columnNames(layout),
                                        dimensionName(dimensionOf(column.quantity)), column.unit),
                            TextPosition{layout.headingLine.value_or(1), std::nullopt});
        out.columns.push_back(*picked);
    }
    return out;
}

Result<ImportedRecord> readRecordTable(std::string_view text, const Layout &found,
                                       std::span<const RecordColumn> wanted, const TaskRunner &run)
{
    std::vector<std::string> warnings;
    if (!found.doubt.empty())
        return badInput(found.doubt, TextPosition{found.headingLine.value_or(1), std::nullopt});
    if (standSideBySide(found)) {
        if (const Status one = holdsOneRecord(text, found); !one)
            return one.error();
    }
    const Layout layout = withWeights(found, wanted, warnings);
    if (const Status units = checkColumns(layout); !units)
        return units.error();
    const Result<RecordChoice> chosen = chooseColumns(layout, wanted);
    if (!chosen)
        return chosen.error();
    std::vector<std::size_t> indices;
    for (const std::optional<std::size_t> &column : chosen->columns) {
        if (column)
            indices.push_back(*column);
    }
    Result<Readings> readings = readReadings(text, layout, indices, run);
    if (!readings)
        return readings.error();
    if (mayHoldSpecimens(layout, indices, *readings)) {
        if (const Status one = holdsOneRecord(text, layout); !one)
            return one.error();
    }
    ImportedRecord record{
        {}, layout, readings->skippedLines, readings->nextTableLine.has_value(), chosen->notes};
    record.warnings.insert(record.warnings.end(), warnings.begin(), warnings.end());
    for (std::size_t c : indices) {
        if (layout.columns[c].unitAssumed)
            record.warnings.push_back(unitAssumedMessage(layout.columns[c]));
    }
    record.warnings.insert(record.warnings.end(), readings->warnings.begin(), readings->warnings.end());
    std::size_t next = 0;
    for (const std::optional<std::size_t> &column : chosen->columns) {
        record.table.columns.push_back(column ? std::move(readings->columns[next++]) : std::vector<double>());
        record.table.isCrosshead.push_back(column && layout.columns[*column].isCrosshead);
    }
    record.table.rows = readings->rows;
    return record;
}

Result<ImportedRecord> importRecord(std::string_view bytes, std::span<const RecordColumn> wanted,
                                    const TaskRunner &run, std::optional<std::size_t> tableNumber)
{
    const Result<DecodedText> text = decodeText(bytes, run);
    if (!text)
        return text.error();
    const Result<Layout> layout = findRecordLayout(text->utf8, wanted, tableNumber);
    if (!layout)
        return inSheet(*text, layout.error());
    Result<ImportedRecord> record = readRecordTable(text->utf8, *layout, wanted, run);
    if (!record)
        return inSheet(*text, record.error());
    const SheetLines *sheet = sheetOf(*text, layout->headerLines + 1);
    const bool namesLines =
        std::any_of(record->warnings.begin(), record->warnings.end(),
                    [](const std::string &warning) { return warning.find("line") != std::string::npos; });
    if (sheet != nullptr && sheet->firstLine > 1 && namesLines)
        record->warnings.insert(
            record->warnings.begin(),
            fmt::format("lines count through all sheets: row 1 of sheet \"{}\" is line {}", sheet->name,
                        sheet->firstLine));
    return record;
}

} // namespace inchpeg
