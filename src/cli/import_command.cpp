// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/data_file.h"
#include "core/import/table.h"

namespace inchpeg::cli
{

namespace
{

Result<Outcome> sniff(const Options &options)
{
    const std::string path = options.required("data");
    const Result<DecodedText> text = readDataText(path);
    if (!text)
        return text.error();
    const Result<Layout> layout = findLayout(text->utf8);
    if (!layout)
        return inFile(path, layout.error());
    if (const Status units = checkUnits(*layout); !units)
        return inFile(path, units.error());
    std::vector<std::size_t> wanted;
    for (std::size_t c = 0; c < layout->columns.size(); ++c) {
        if (layout->columns[c].quantity)
            wanted.push_back(c);
    }
    const Result<Readings> readings = readReadings(text->utf8, *layout, wanted);
    if (!readings)
        return inFile(path, readings.error());

    Outcome outcome;
    outcome.messages = readings->warnings;
    for (std::size_t c : wanted) {
        if (layout->columns[c].unitAssumed)
            outcome.messages.push_back(unitAssumedMessage(layout->columns[c]));
    }
    outcome.result = {
        {"encoding", encodingName(text->encoding)},
        {"delimiter", layout->delimiter == kNoDelimiter ? std::string() : std::string(1, layout->delimiter)},
        {"decimal", std::string(1, layout->numbers.decimal)},
        {"header_rows", layout->headerLines},
        {"units_row", layout->unitsLine ? Json(*layout->unitsLine) : Json(nullptr)},
        {"columns", columnsJson(*layout)},
        {"rows", readings->rows},
        {"skipped", readings->skippedLines},
        {"warnings", outcome.messages},
    };
    return outcome;
}

} // namespace

std::vector<Command> importCommands()
{
    return {{"import", "sniff", "", "tell how a file of readings is understood", {kDataOption}, 0, sniff}};
}

} // namespace inchpeg::cli
