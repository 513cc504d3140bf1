// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/zip_bytes.h"

#include "support/temporary_folder.h"

#include <stdexcept>
#include <zip.h>

namespace inchpeg::test
{

std::string zipBytes(const std::vector<ZipPart> &parts)
{
    const TemporaryFolder folder;
    const std::string path = folder.path("book.zip");
    zip_t *archive = zip_open(path.c_str(), ZIP_CREATE | ZIP_TRUNCATE, nullptr);
    for (const ZipPart &part : parts) {
        zip_source_t *source = zip_source_buffer(archive, part.bytes.data(), part.bytes.size(), 0);
        if (zip_file_add(archive, part.name.c_str(), source, ZIP_FL_ENC_UTF_8) < 0)
            throw std::runtime_error("cannot add " + part.name);
    }
    if (zip_close(archive) != 0)
        throw std::runtime_error("cannot write an archive");
    return bytesOf(path);
}

std::string workbookBytes(const std::vector<std::string> &names, const std::vector<std::string> &rows)
{
    const std::string main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    const std::string office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
    std::string sheets;
    std::string links;
    std::vector<ZipPart> parts;
    for (std::size_t i = 0; i < names.size(); ++i) {
        const std::string number = std::to_string(i + 1);
        sheets += "<sheet name=\"" + names[i] + "\" sheetId=\"" + number + "\" r:id=\"r" + number + "\"/>";
        links += "<Relationship Id=\"r" + number + "\" Type=\"" + office +
                 "/worksheet\" Target=\"worksheets/sheet" + number + ".xml\"/>";
        parts.push_back(
            {"xl/worksheets/sheet" + number + ".xml",
             "<worksheet xmlns=\"" + main + "\"><sheetData>" + rows[i] + "</sheetData></worksheet>"});
    }
    const std::string package = "http://schemas.openxmlformats.org/package/2006/relationships";
    parts.push_back({"xl/workbook.xml", "<workbook xmlns=\"" + main + "\" xmlns:r=\"" + office +
                                            "\"><sheets>" + sheets + "</sheets></workbook>"});
    parts.push_back({"xl/_rels/workbook.xml.rels",
                     "<Relationships xmlns=\"" + package + "\">" + links + "</Relationships>"});
    parts.push_back({"_rels/.rels", "<Relationships xmlns=\"" + package +
                                        "\"><Relationship Id=\"r1\" Type=\"" + office +
                                        "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"});
    return zipBytes(parts);
}

} // namespace inchpeg::test
