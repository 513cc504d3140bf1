// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/mapping.h"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::string_view kTableWord = "table ";
constexpr std::string_view kGivenWord = "given ";
constexpr std::string_view kMappingMarks = "%;@=>";

std::string withoutMarks(std::string_view text)
{
    std::string out;
    for (const char c : text) {
        const bool isMark =
            kMappingMarks.find(c) != std::string_view::npos || static_cast<unsigned char>(c) < ' ';
        out += isMark ? fmt::format("%{:02X}", static_cast<unsigned char>(c)) : std::string(1, c);
    }
    return out;
}

std::optional<std::string> withMarks(std::string_view text)
{
    std::string out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text[i] != '%') {
            out += text[i];
            continue;
        }
        unsigned byte = 0;
        const char *first = text.data() + i + 1;
        const char *last = text.data() + text.size();
        if (last - first < 2 || std::from_chars(first, first + 2, byte, 16).ptr != first + 2)
            return std::nullopt;
        out += static_cast<char>(byte);
        i += 2;
    }
    return out;
}

std::string givenText(const GivenRow &row)
{
    std::string text = fmt::format("{}{}", kGivenWord, row.line);
    for (const GivenValue &value : row.values)
        text += fmt::format(";{}{}{}@{}", withoutMarks(value.property), value.isAtLeast ? ">=" : "=",
                            value.number, withoutMarks(value.column));
    return text;
}

template <typename Number>
bool readWhole(std::string_view text, Number &number)
{
    const auto read = std::from_chars(text.data(), text.data() + text.size(), number);
    return read.ec == std::errc() && read.ptr == text.data() + text.size();
}

Result<GivenValue> givenValueFromText(std::string_view part)
{
    const std::size_t equals = part.find('=');
    const std::size_t at = part.find('@');
    if (equals == std::string_view::npos || at == std::string_view::npos || at < equals)
        return badInput(
            fmt::format("\"{}\" is not a given value such as tensile_strength=45.2@Strength", part));
    GivenValue value;
    value.isAtLeast = equals > 0 && part[equals - 1] == '>';
    const std::optional<std::string> property = withMarks(part.substr(0, equals - (value.isAtLeast ? 1 : 0)));
    const std::optional<std::string> column = withMarks(part.substr(at + 1));
    if (!property || property->empty() || !column ||
        !readWhole(part.substr(equals + 1, at - equals - 1), value.number) || !std::isfinite(value.number))
        return badInput(
            fmt::format("\"{}\" is not a given value such as tensile_strength=45.2@Strength", part));
    value.property = *property;
    value.column = *column;
    return value;
}

Result<GivenRow> givenFromText(std::string_view text)
{
    GivenRow row;
    const std::size_t end = text.find(';');
    if (!readWhole(
            text.substr(kGivenWord.size(), end == std::string_view::npos ? end : end - kGivenWord.size()),
            row.line) ||
        row.line == 0)
        return badInput(fmt::format("\"{}\" does not number a line from 1", text.substr(0, end)));
    while (text.find(';') != std::string_view::npos) {
        text.remove_prefix(text.find(';') + 1);
        Result<GivenValue> value = givenValueFromText(text.substr(0, text.find(';')));
        if (!value)
            return value.error();
        row.values.push_back(std::move(*value));
    }
    return row;
}

} // namespace

ColumnMapping mappingOf(const Layout &layout)
{
    ColumnMapping mapping;
    for (const Column &column : layout.columns)
        mapping.columns.push_back({column.quantity,
                                   column.unit ? std::string(column.unit->symbol) : std::string(),
                                   column.isCrosshead, column.isTransverse});
    return mapping;
}

Result<Layout> withMapping(Layout layout, const ColumnMapping &mapping)
{
    if (mapping.columns.empty())
        return layout;
    if (mapping.columns.size() != layout.columns.size())
        return invalidArgument(
            fmt::format("the mapping is for {} columns but the file has {}; choose its columns again",
                        mapping.columns.size(), layout.columns.size()));
    layout.doubt.clear();
    layout.question.clear();
    for (std::size_t c = 0; c < mapping.columns.size(); ++c) {
        Column &column = layout.columns[c];
        const ColumnAssignment &wanted = mapping.columns[c];
        column.quantity = wanted.quantity;
        column.isCrosshead = wanted.isCrosshead;
        column.isTransverse = wanted.isTransverse;
        column.unknownUnitText.clear();
        column.question.clear();
        if (!wanted.quantity) {
            column.unit.reset();
            column.unitAssumed = false;
            continue;
        }
        const std::optional<Unit> unit = findUnit(wanted.unitSymbol);
        if (!unit || unit->dimension != dimensionOf(*wanted.quantity))
            return invalidArgument(
                fmt::format("\"{}\" is not a unit of {}", wanted.unitSymbol, quantityName(*wanted.quantity)));
        column.unitAssumed = column.unitAssumed && column.unit == unit;
        column.unit = unit;
    }
    return layout;
}

std::string mappingText(const ColumnMapping &mapping)
{
    if (mapping.given)
        return givenText(*mapping.given);
    std::string text = mapping.table ? fmt::format("{}{}", kTableWord, *mapping.table) : std::string();
    for (const ColumnAssignment &column : mapping.columns) {
        if (!text.empty())
            text += ';';
        text += column.quantity ? fmt::format("{}[{}]{}", quantityName(*column.quantity), column.unitSymbol,
                                              column.isCrosshead    ? "!"
                                              : column.isTransverse ? "~"
                                                                    : "")
                                : "-";
    }
    return text;
}

Result<ColumnMapping> mappingFromText(std::string_view text)
{
    ColumnMapping mapping;
    if (text.starts_with(kGivenWord)) {
        Result<GivenRow> given = givenFromText(text);
        if (!given)
            return given.error();
        mapping.given = std::move(*given);
        return mapping;
    }
    while (!text.empty()) {
        const std::size_t end = text.find(';');
        std::string_view part = text.substr(0, end);
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
        if (part == "-") {
            mapping.columns.emplace_back();
            continue;
        }
        if (part.starts_with(kTableWord) && !mapping.table && mapping.columns.empty()) {
            std::size_t number = 0;
            const char *last = part.data() + part.size();
            const auto read = std::from_chars(part.data() + kTableWord.size(), last, number);
            if (read.ec != std::errc() || read.ptr != last || number == 0)
                return badInput(fmt::format("\"{}\" does not number a table from 1", part));
            mapping.table = number;
            continue;
        }
        const bool crosshead = part.ends_with('!');
        const bool transverse = part.ends_with('~');
        if (crosshead || transverse)
            part.remove_suffix(1);
        const std::size_t open = part.find('[');
        const auto quantity = quantityFromName(part.substr(0, open));
        if (open == std::string_view::npos || !part.ends_with(']') || !quantity)
            return badInput(fmt::format("\"{}\" is not a column assignment such as force[N]", part));
        mapping.columns.push_back(
            {quantity, std::string(part.substr(open + 1, part.size() - open - 2)), crosshead, transverse});
    }
    return mapping;
}

} // namespace inchpeg
