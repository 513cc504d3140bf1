// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/mapping.h"

#include <fmt/format.h>

#include <charconv>

namespace inchpeg
{

namespace
{

constexpr std::string_view kTableWord = "table ";

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
