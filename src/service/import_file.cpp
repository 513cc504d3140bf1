// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/import_file.h"

#include "core/import/workbook.h"
#include "core/method/record_rows.h"
#include "disk/file_bytes.h"
#include "service/on_all_cores.h"
#include "store/raw_files.h"

#include <algorithm>

namespace inchpeg
{

namespace
{

void readRows(ImportFile &file)
{
    const Result<RecordRows> rows = readRecordRows(file.text->utf8, file.reduction->parameters);
    if (!rows) {
        file.problem = rows.error();
        return;
    }
    file.rows = rows->rows.size();
    file.warnings = rows->warnings;
    for (const RecordRow &row : rows->rows) {
        if (row.isLabelled)
            file.codes.push_back(row.label);
    }
}

/// The name of the sheet that a line of a workbook's text belongs to; empty in other files.
std::string sheetAt(std::string_view text, std::size_t line)
{
    std::string sheet;
    for (std::size_t at = 1; at <= line && !text.empty(); ++at) {
        const std::size_t end = text.find('\n');
        const std::string_view current = text.substr(0, end);
        text = end == std::string_view::npos ? std::string_view() : text.substr(end + 1);
        if (current.starts_with(kSheetMark))
            sheet = current.substr(1);
    }
    return sheet;
}

std::vector<FileTable> tablesIn(std::string_view text)
{
    std::vector<FileTable> tables;
    const Result<std::vector<Layout>> found = findTables(text);
    if (!found || found->size() < 2)
        return tables;
    for (const Layout &layout : *found) {
        const std::size_t line = layout.headingLine.value_or(layout.headerLines + 1);
        FileTable table{sheetAt(text, line), line, {}};
        for (const Column &column : layout.columns)
            table.headings.push_back(column.name);
        tables.push_back(std::move(table));
    }
    return tables;
}

void readRecord(ImportFile &file, const Layout &layout)
{
    const std::span<const RecordColumn> columns = file.reduction->columns;
    const Result<ImportedRecord> imported = readRecordTable(file.text->utf8, layout, columns, onAllCores);
    if (!imported) {
        file.problem = imported.error();
        return;
    }
    file.rows = imported->table.rows;
    file.warnings = imported->warnings;
    if (imported->hasMoreTables && file.tables.empty())
        file.tables = tablesIn(file.text->utf8);
    const auto needed = std::find_if(columns.begin(), columns.end(),
                                     [](const RecordColumn &column) { return column.isRequired; });
    const std::vector<double> &values =
        imported->table.columns[static_cast<std::size_t>(needed - columns.begin())];
    const auto [least, most] = std::minmax_element(values.begin(), values.end());
    file.largest = std::max(-*least, *most);
    file.largestOf = dimensionOf(needed->quantity);
}

} // namespace

ImportFile loadImportFile(const std::string &path, const Reduction &reduction)
{
    ImportFile file;
    file.reduction = &reduction;
    file.path = path;
    file.name = fileNameOf(path);
    Result<std::string> bytes = readFileBytes(path);
    if (!bytes) {
        file.problem = bytes.error();
        return file;
    }
    file.bytes = std::make_shared<const std::string>(std::move(*bytes));
    file.sha256 = sha256Of(*file.bytes);
    Result<DecodedText> text = decodeText(*file.bytes);
    if (!text) {
        file.problem = text.error();
        return file;
    }
    file.text = std::move(*text);
    const Result<Layout> found = findRecordLayout(file.text->utf8, reduction.columns);
    if (!found) {
        file.problem = found.error();
        return file;
    }
    file.found = *found;
    const Result<std::vector<Layout>> first = findFirstTables(file.text->utf8);
    if (!reduction.columns.empty() && first && first->size() > 1)
        file.tables = tablesIn(file.text->utf8);
    readWithMapping(file, {});
    return file;
}

void readWithMapping(ImportFile &file, ColumnMapping mapping)
{
    require(file.found.has_value(), "a file without a layout has no mapping");
    file.mapping = std::move(mapping);
    file.problem.reset();
    file.rows = 0;
    file.codes.clear();
    file.warnings.clear();
    const Result<Layout> layout =
        file.mapping.table ? findRecordLayout(file.text->utf8, file.reduction->columns, file.mapping)
                           : withMapping(*file.found, file.mapping);
    file.layout = layout ? *layout : *file.found;
    if (!layout)
        file.problem = layout.error();
    else if (file.reduction->columns.empty())
        readRows(file);
    else
        readRecord(file, *layout);
}

} // namespace inchpeg
