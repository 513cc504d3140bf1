// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/import_file.h"

#include "core/method/record_rows.h"
#include "service/file_bytes.h"
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
    const Result<Layout> layout = withMapping(*file.found, file.mapping);
    if (!layout) {
        file.problem = layout.error();
        return;
    }
    if (file.reduction->columns.empty())
        readRows(file);
    else
        readRecord(file, *layout);
}

std::optional<Layout> layoutOf(const ImportFile &file)
{
    if (!file.found)
        return std::nullopt;
    const Result<Layout> layout = withMapping(*file.found, file.mapping);
    return layout ? std::optional(*layout) : file.found;
}

} // namespace inchpeg
