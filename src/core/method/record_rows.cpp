// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/record_rows.h"

#include "core/import/cell_forms.h"
#include "core/import/cells.h"
#include "core/import/table.h"
#include "core/import/text.h"
#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array<std::string_view, 5> kCodeHeadings = {"code", "piece", "specimen", "id", "label"};

/// "Remaining width (mm)" and "remaining_width_mm" are both "remaining_width".
std::string parameterName(std::string_view heading)
{
    std::string name = smallLetters(heading);
    for (char &c : name) {
        if (c == ' ' || c == '-')
            c = '_';
    }
    return name;
}

/// What a column of the table is.
struct Meaning {
    const Parameter *parameter = nullptr;
    bool isCode = false;
    std::string unit; ///< of its heading, or its row of units
};

/// "mass_g", "Mass (g)", "mass / kg": of no quantity that a record's columns have, so its unit stands in the
/// name.
void takeUnitOff(Meaning &meaning, std::string_view heading, std::span<const Parameter> parameters)
{
    const std::string name = parameterName(heading);
    for (const Parameter &parameter : parameters) {
        if (!name.starts_with(parameter.name) || heading.size() == parameter.name.size())
            continue;
        std::string_view rest = heading.substr(parameter.name.size());
        rest.remove_prefix(std::min(rest.find_first_not_of("_ /,(["), rest.size()));
        rest = rest.substr(0, rest.find_last_not_of(" )]") + 1);
        if (const std::optional<Unit> unit = findUnit(rest)) {
            meaning.parameter = &parameter;
            meaning.unit = unit->symbol;
            return;
        }
    }
}

Meaning meaningOf(const Column &column, std::string_view heading, std::span<const Parameter> parameters)
{
    Meaning meaning;
    const std::string name = parameterName(column.name);
    meaning.isCode = std::find(kCodeHeadings.begin(), kCodeHeadings.end(), name) != kCodeHeadings.end();
    meaning.parameter = findParameter(parameters, name);
    if (meaning.parameter == nullptr)
        meaning.parameter = findParameter(parameters, parameterName(heading));
    if (column.unit && !column.unitAssumed)
        meaning.unit = column.unit->symbol;
    if (meaning.parameter == nullptr)
        takeUnitOff(meaning, heading, parameters);
    return meaning;
}

/// A text with its heading in the first line that is no comment: what findLayout() cannot know for a table
/// where it is one, because no column of it is a quantity or holds numbers.
struct PlainTable {
    Layout layout;
    TextTable table;
};

PlainTable plainTable(std::string_view text)
{
    PlainTable plain;
    std::vector<std::string_view> cells;
    bool hasHeading = false;
    for (std::size_t line = 1; !text.empty(); ++line) {
        const char delimiter =
            hasHeading ? plain.layout.delimiter : delimiterOf(text.substr(0, text.find('\n')));
        const std::string_view record = takeRecord(text, delimiter);
        if (trimmed(record).empty() || record.starts_with('#'))
            continue;
        splitCells(record, delimiter, cells);
        if (!hasHeading) {
            hasHeading = true;
            plain.layout.delimiter = delimiter;
            plain.layout.numbers.decimal = delimiter == ',' ? '.' : ',';
            plain.layout.headerLines = line;
            plain.layout.headingLine = line;
            for (const std::string_view cell : cells) {
                plain.table.names.push_back(cellText(cell));
                plain.layout.columns.push_back(understandColumn(plain.table.names.back(), {}));
            }
            continue;
        }
        if ((plain.table.rows.size() + 1) * plain.table.names.size() > kMostTableCells) {
            plain.table.rows.clear();
            return plain;
        }
        std::vector<std::string> row;
        for (const std::string_view cell : cells)
            row.push_back(cellText(cell));
        row.resize(plain.table.names.size());
        plain.table.rows.push_back(std::move(row));
        plain.table.lines.push_back(line);
    }
    plain.table.numbers = plain.layout.numbers;
    return plain;
}

std::vector<Meaning> meaningsOf(const Layout &layout, const TextTable &table,
                                std::span<const Parameter> parameters)
{
    std::vector<Meaning> meanings;
    for (std::size_t c = 0; c < table.names.size(); ++c)
        meanings.push_back(
            meaningOf(c < layout.columns.size() ? layout.columns[c] : Column{}, table.names[c], parameters));
    return meanings;
}

bool namesAny(const std::vector<Meaning> &meanings)
{
    return std::any_of(meanings.begin(), meanings.end(),
                       [](const Meaning &meaning) { return meaning.parameter != nullptr; });
}

Status take(MethodSettings &settings, const Meaning &meaning, const std::string &cell,
            const NumberFormat &numbers)
{
    if (!meaning.parameter->choices.empty()) {
        // The letter of a break may be small.
        for (std::string_view choice : meaning.parameter->choices) {
            if (smallLetters(choice) == smallLetters(cell))
                return setTyped(settings, *meaning.parameter, choice);
        }
        return setTyped(settings, *meaning.parameter, cell);
    }
    std::string plain = cell;
    if (numbers.decimal == ',')
        std::replace(plain.begin(), plain.end(), ',', '.');
    const bool namesUnit = meaning.unit.empty() || numberWithUnit(plain, {}).has_value();
    return setTyped(settings, *meaning.parameter, namesUnit ? plain : plain + " " + meaning.unit);
}

} // namespace

Result<RecordRows> readRecordRows(std::string_view text, std::span<const Parameter> parameters)
{
    Result<Layout> layout = findLayout(text);
    Result<TextTable> table = layout ? readTable(text) : Result<TextTable>(layout.error());
    std::vector<Meaning> meanings;
    if (table)
        meanings = meaningsOf(*layout, *table, parameters);
    if (!namesAny(meanings)) {
        PlainTable plain = plainTable(text);
        std::vector<Meaning> plainMeanings = meaningsOf(plain.layout, plain.table, parameters);
        if (namesAny(plainMeanings) && !plain.table.rows.empty()) {
            layout = std::move(plain.layout);
            table = std::move(plain.table);
            meanings = std::move(plainMeanings);
        }
    }
    if (!table)
        return table.error();
    if (!namesAny(meanings)) {
        std::string known;
        for (const Parameter &parameter : parameters)
            known += (known.empty() ? "" : ", ") + std::string(parameter.name);
        return badInput(fmt::format("no column is named after what this test is read from: {}", known),
                        TextPosition{layout->headingLine.value_or(1), std::nullopt});
    }
    RecordRows out{{}, *layout, table->warnings};
    for (std::size_t r = 0; r < table->rows.size(); ++r) {
        RecordRow row{fmt::format("row {}", r + 1), {}, table->lines[r], false};
        for (std::size_t c = 0; c < meanings.size(); ++c) {
            const std::string &cell = table->rows[r][c];
            if (cell.empty())
                continue;
            if (meanings[c].isCode) {
                row.label = cell;
                row.isLabelled = true;
            }
            if (meanings[c].parameter == nullptr)
                continue;
            if (const Status taken = take(row.settings, meanings[c], cell, table->numbers); !taken)
                return badInput(taken.error().message, TextPosition{row.line, c + 1});
        }
        out.rows.push_back(std::move(row));
    }
    return out;
}

} // namespace inchpeg
