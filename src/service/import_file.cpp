// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/import_file.h"

#include "service/file_bytes.h"
#include "service/on_all_cores.h"
#include "store/raw_files.h"

#include <algorithm>

namespace inchpeg
{

ImportFile loadImportFile(const std::string &path)
{
    ImportFile file;
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
    const Result<Layout> found = findRecordLayout(file.text->utf8);
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
    file.warnings.clear();
    const Result<Layout> layout = withMapping(*file.found, file.mapping);
    if (!layout) {
        file.problem = layout.error();
        return;
    }
    const Result<ImportedCurve> imported = readForceCurve(file.text->utf8, *layout, onAllCores);
    if (!imported) {
        file.problem = imported.error();
        return;
    }
    file.rows = imported->rows;
    file.warnings = imported->warnings;
    const auto [least, most] =
        std::minmax_element(imported->curve.force_N.begin(), imported->curve.force_N.end());
    file.largestForce_N = std::max(-*least, *most);
}

std::optional<Layout> layoutOf(const ImportFile &file)
{
    if (!file.found)
        return std::nullopt;
    const Result<Layout> layout = withMapping(*file.found, file.mapping);
    return layout ? std::optional(*layout) : file.found;
}

} // namespace inchpeg
