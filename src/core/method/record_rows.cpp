// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/record_rows.h"

#include "core/import/table.h"
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
    return meaning;
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
    return setTyped(settings, *meaning.parameter, meaning.unit.empty() ? plain : plain + " " + meaning.unit);
}

} // namespace

Result<RecordRows> readRecordRows(std::string_view text, std::span<const Parameter> parameters)
{
    const Result<Layout> layout = findLayout(text);
    if (!layout)
        return layout.error();
    const Result<TextTable> table = readTable(text);
    if (!table)
        return table.error();
    std::vector<Meaning> meanings;
    for (std::size_t c = 0; c < table->names.size(); ++c)
        meanings.push_back(meaningOf(c < layout->columns.size() ? layout->columns[c] : Column{},
                                     table->names[c], parameters));
    if (std::none_of(meanings.begin(), meanings.end(),
                     [](const Meaning &meaning) { return meaning.parameter != nullptr; })) {
        std::string known;
        for (const Parameter &parameter : parameters)
            known += (known.empty() ? "" : ", ") + std::string(parameter.name);
        return badInput(fmt::format("no column is named after what this test is read from: {}", known),
                        TextPosition{layout->headingLine.value_or(1), std::nullopt});
    }
    RecordRows out{{}, *layout, {}};
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
