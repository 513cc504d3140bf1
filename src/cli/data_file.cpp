// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/data_file.h"

#include "service/file_bytes.h"

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
