// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/data_file.h"
#include "core/curve/force_curve.h"
#include "core/import/table.h"
#include "core/import/table_parts.h"

namespace inchpeg::cli
{

namespace
{

Json layoutJson(const Layout &layout)
{
    return {
        {"delimiter", layout.delimiter == kNoDelimiter ? std::string() : std::string(1, layout.delimiter)},
        {"decimal", std::string(1, layout.numbers.decimal)},
        {"header_rows", layout.headerLines},
        {"units_row", layout.unitsLine ? Json(*layout.unitsLine) : Json(nullptr)},
        {"columns", columnsJson(layout)}};
}

Result<Outcome> sniff(const Options &options)
{
    const std::string path = options.required("data");
    const Result<DecodedText> text = readDataText(path);
    if (!text)
        return text.error();
    const Result<std::optional<std::size_t>> number = tableNumberOf(options);
    if (!number)
        return number.error();
    const Result<Layout> layout = findRecordLayout(text->utf8, kForceColumns, *number);
    if (!layout)
        return inFile(path, layout.error());
    const Result<std::vector<Layout>> tables = findTables(text->utf8);
    if (!tables)
        return inFile(path, tables.error());
    if (const Status units = checkColumns(*layout); !units)
        return inFile(path, inSheet(*text, units.error()));
    std::vector<std::size_t> wanted;
    for (std::size_t c = 0; c < layout->columns.size(); ++c) {
        if (layout->columns[c].quantity)
            wanted.push_back(c);
    }
    for (std::size_t c = 0; wanted.empty() && c < layout->columns.size(); ++c) {
        if (layout->columns[c].isNumeric) // of nothing that is known: its rows are counted by any numbers
            wanted.push_back(c);
    }
    const Result<Readings> readings = readReadings(text->utf8, *layout, wanted);
    if (!readings)
        return inFile(path, inSheet(*text, readings.error()));

    Outcome outcome;
    outcome.messages = readings->warnings;
    for (std::size_t c : wanted) {
        if (layout->columns[c].unitAssumed)
            outcome.messages.push_back(unitAssumedMessage(layout->columns[c]));
    }
    if (!layout->doubt.empty())
        outcome.messages.push_back(layout->doubt);
    if (mayHoldSpecimens(*layout, wanted, *readings)) {
        if (const std::vector<Layout> specimens = specimensOf(text->utf8, *layout); specimens.size() > 1)
            outcome.messages.push_back("the table holds " + specimensSentence(specimens));
    }
    outcome.result = layoutJson(*layout);
    outcome.result["encoding"] = encodingName(text->encoding);
    outcome.result["rows"] = readings->rows;
    outcome.result["skipped"] = readings->skippedLines;
    Json list = Json::array();
    for (const Layout &table : *tables)
        list.push_back(layoutJson(table));
    outcome.result["tables"] = list;
    outcome.result["warnings"] = outcome.messages;
    return outcome;
}

} // namespace

std::vector<Command> importCommands()
{
    return {{"import",
             "sniff",
             "",
             "tell how a file of readings is understood",
             {kDataOption, kTableOption},
             0,
             sniff}};
}

} // namespace inchpeg::cli
