// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/data_file.h"

#include "disk/file_bytes.h"

#include <cmath>

namespace inchpeg::cli
{

Error inFile(const std::string &path, Error error)
{
    error.message = (path == "-" ? "standard input" : path) + ": " + errorSentence(error);
    error.position.reset();
    return error;
}

Result<DecodedText> readDataText(const std::string &path)
{
    Result<std::string> bytes = readFileBytes(path);
    if (!bytes)
        return bytes.error();
    const auto kept = std::make_shared<const std::string>(std::move(*bytes));
    Result<DecodedText> text = decodeText(*kept);
    if (!text)
        return inFile(path, text.error());
    if (!text->owner)
        text->owner = kept; // the text goes on without this function
    return text;
}

Result<std::optional<std::size_t>> tableNumberOf(const Options &options)
{
    const Result<std::optional<double>> number = options.number("table", 1, 1e6);
    if (!number)
        return number.error();
    if (!*number)
        return std::optional<std::size_t>();
    if (std::floor(**number) != **number)
        return invalidArgument("--table takes a whole number, from 1 for the first table of a file");
    return std::optional(static_cast<std::size_t>(**number));
}

Json columnsJson(const Layout &layout)
{
    Json columns = Json::array();
    for (const Column &column : layout.columns) {
        columns.push_back(
            {{"name", column.name},
             {"quantity", column.quantity ? Json(quantityName(*column.quantity)) : Json(nullptr)},
             {"unit", column.unit ? Json(column.unit->symbol) : Json(nullptr)}});
    }
    return columns;
}

} // namespace inchpeg::cli
