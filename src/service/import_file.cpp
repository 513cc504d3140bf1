// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/import_file.h"

#include "core/import/workbook.h"
#include "core/method/record_rows.h"
#include "disk/file_bytes.h"
#include "service/on_all_cores.h"
#include "store/raw_files.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

namespace inchpeg
{

namespace
{

void readRows(ImportFile &file)
{
    const Result<RecordRows> rows = readRecordRows(file.text->utf8, file.reduction->parameters);
    if (!rows) {
        file.problem = inSheet(*file.text, rows.error());
        return;
    }
    file.rows = rows->rows.size();
    file.warnings = rows->warnings;
    for (const RecordRow &row : rows->rows) {
        if (row.isLabelled)
            file.codes.push_back(row.label);
    }
}

std::vector<FileTable> tablesIn(const DecodedText &text)
{
    std::vector<FileTable> tables;
    const Result<std::vector<Layout>> found = findTables(text.utf8);
    if (!found || found->size() < 2)
        return tables;
    for (const Layout &layout : *found) {
        const std::size_t line =
            layout.specimen ? layout.headerLines + 1 : layout.headingLine.value_or(layout.headerLines + 1);
        const SheetLines *sheet = sheetOf(text, line);
        FileTable table{sheet != nullptr ? sheet->name : "",
                        sheet != nullptr ? line - sheet->firstLine + 1 : line,
                        line,
                        layout.specimen ? layout.specimen->name : "",
                        {}};
        for (const Column &column : layout.columns)
            table.headings.push_back(column.name);
        tables.push_back(std::move(table));
    }
    return tables;
}

/// Tables with the same columns, a sheet each or below each other, are a specimen each: named by their
/// sheets, else by number. Others are for a person to choose from.
void nameTablesThatAreAlike(std::vector<FileTable> &tables)
{
    const auto isAlike = [&](const FileTable &table) {
        return table.specimen.empty() && table.headings == tables.front().headings;
    };
    if (tables.size() < 2 || tables.front().headings.empty() ||
        !std::all_of(tables.begin(), tables.end(), isAlike))
        return;
    std::set<std::string> sheets;
    for (const FileTable &table : tables)
        sheets.insert(table.sheet);
    const bool areSheets = sheets.size() == tables.size() && !sheets.contains(std::string());
    for (std::size_t i = 0; i < tables.size(); ++i)
        tables[i].specimen = areSheets ? tables[i].sheet : std::to_string(i + 1);
}

void readRecord(ImportFile &file, const Layout &layout)
{
    const std::span<const RecordColumn> columns = file.reduction->columns;
    const Result<ImportedRecord> imported = readRecordTable(file.text->utf8, layout, columns, onAllCores);
    if (!imported) {
        file.problem = inSheet(*file.text, imported.error());
        if (file.tables.empty())
            file.tables = tablesIn(*file.text); // it may hold several specimens
        return;
    }
    file.rows = imported->table.rows;
    file.warnings = imported->warnings;
    if (imported->hasMoreTables && file.tables.empty())
        file.tables = tablesIn(*file.text);
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
    file.nameForPeg = file.name;
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
        file.tables = tablesIn(*file.text);
    readWithMapping(file, {});
    return file;
}

std::vector<ImportFile> specimensIn(ImportFile file)
{
    std::vector<ImportFile> specimens;
    nameTablesThatAreAlike(file.tables);
    for (std::size_t i = 0; i < file.tables.size(); ++i) {
        if (file.tables[i].specimen.empty())
            continue;
        ImportFile one = file;
        one.specimen = i + 1;
        const std::filesystem::path whole(file.name);
        one.nameForPeg = fmt::format("{}_{}{}", whole.stem().string(), file.tables[i].specimen,
                                     whole.extension().string());
        one.name = fmt::format("{}: {}", file.name, file.tables[i].specimen);
        readWithMapping(one, {});
        specimens.push_back(std::move(one));
    }
    if (specimens.empty())
        specimens.push_back(std::move(file));
    return specimens;
}

void readWithMapping(ImportFile &file, ColumnMapping mapping)
{
    require(file.found.has_value(), "a file without a layout has no mapping");
    file.mapping = std::move(mapping);
    if (file.specimen)
        file.mapping.table = file.specimen;
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
