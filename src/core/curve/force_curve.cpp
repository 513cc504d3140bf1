// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/force_curve.h"

#include "core/import/table.h"
#include "core/import/text.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

std::vector<std::size_t> columnsOf(const Layout &layout, ColumnQuantity quantity)
{
    std::vector<std::size_t> found;
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        if (layout.columns[c].quantity == quantity)
            found.push_back(c);
    }
    return found;
}

/// The first candidate; a gauge's extension goes before a crosshead's.
Result<std::optional<std::size_t>> pick(const Layout &layout, ColumnQuantity quantity,
                                        std::vector<std::string> &notes)
{
    const std::vector<std::size_t> candidates = columnsOf(layout, quantity);
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
                                    quantityName(quantity), layout.columns[chosen].name));
    return std::optional(chosen);
}

std::string columnNames(const Layout &layout)
{
    std::string names;
    for (const Column &column : layout.columns)
        names += (names.empty() ? "\"" : ", \"") + column.name + "\"";
    return names;
}

/// The first table that holds a force, and a deformation or a time too where wanted.
const Layout *tableWithForce(const std::vector<Layout> &tables, bool withCourse)
{
    for (const Layout &table : tables) {
        const bool course = !columnsOf(table, ColumnQuantity::Extension).empty() ||
                            !columnsOf(table, ColumnQuantity::Strain).empty() ||
                            !columnsOf(table, ColumnQuantity::Time).empty();
        if (!columnsOf(table, ColumnQuantity::Force).empty() && (course || !withCourse))
            return &table;
    }
    return nullptr;
}

} // namespace

Result<Layout> findRecordLayout(std::string_view text, std::optional<std::size_t> tableNumber)
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
    if (tableWithForce(*tables, true) == nullptr && lineOfNextTable(text, tables->back()))
        tables = findTables(text);
    for (const bool withCourse : {true, false}) {
        if (const Layout *table = tableWithForce(*tables, withCourse))
            return *table;
    }
    return tables->back();
}

Result<ColumnChoiceWithNotes> chooseColumns(const Layout &layout)
{
    ColumnChoiceWithNotes out;
    const auto force = pick(layout, ColumnQuantity::Force, out.notes);
    const auto extension = pick(layout, ColumnQuantity::Extension, out.notes);
    const auto strain = pick(layout, ColumnQuantity::Strain, out.notes);
    const auto time = pick(layout, ColumnQuantity::Time, out.notes);
    for (const auto *picked : {&force, &extension, &strain, &time}) {
        if (!*picked)
            return picked->error();
    }
    if (!force->has_value())
        return badInput(fmt::format("no force column: the columns are {}; name one \"force\" or give it a "
                                    "unit of force such as N",
                                    columnNames(layout)),
                        TextPosition{layout.headingLine.value_or(1), std::nullopt});
    out.choice = {**force, *extension, *strain, *time};
    return out;
}

Result<ImportedCurve> readForceCurve(std::string_view text, const Layout &layout, const TaskRunner &run)
{
    const Status units = checkUnits(layout);
    if (!units)
        return units.error();
    const Result<ColumnChoiceWithNotes> chosen = chooseColumns(layout);
    if (!chosen)
        return chosen.error();
    ImportedCurve imported{{}, layout, chosen->choice, 0, 0, chosen->notes};
    std::vector<std::size_t> wanted{chosen->choice.force};
    for (const std::optional<std::size_t> &column :
         {chosen->choice.extension, chosen->choice.strain, chosen->choice.time}) {
        if (column)
            wanted.push_back(*column);
    }
    Result<Readings> readings = readReadings(text, layout, wanted, run);
    if (!readings)
        return readings.error();
    for (std::size_t c : wanted) {
        if (layout.columns[c].unitAssumed)
            imported.warnings.push_back(fmt::format("column \"{}\" names no unit: {} is taken",
                                                    layout.columns[c].name, layout.columns[c].unit->symbol));
    }
    imported.warnings.insert(imported.warnings.end(), readings->warnings.begin(), readings->warnings.end());
    std::size_t next = 0;
    imported.curve.force_N = std::move(readings->columns[next++]);
    if (chosen->choice.extension) {
        imported.curve.extension_mm = std::move(readings->columns[next++]);
        imported.curve.extensionIsCrosshead = layout.columns[*chosen->choice.extension].isCrosshead;
    }
    if (chosen->choice.strain)
        imported.curve.strain = std::move(readings->columns[next++]);
    if (chosen->choice.time)
        imported.curve.time_s = std::move(readings->columns[next++]);
    imported.rows = readings->rows;
    imported.skippedLines = readings->skippedLines;
    return imported;
}

Result<ImportedCurve> importForceCurve(std::string_view bytes, const TaskRunner &run,
                                       std::optional<std::size_t> tableNumber)
{
    const Result<DecodedText> text = decodeText(bytes, run);
    if (!text)
        return text.error();
    const Result<Layout> layout = findRecordLayout(text->utf8, tableNumber);
    if (!layout)
        return layout.error();
    return readForceCurve(text->utf8, *layout, run);
}

} // namespace inchpeg
