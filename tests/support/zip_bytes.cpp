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

} // namespace inchpeg::test
