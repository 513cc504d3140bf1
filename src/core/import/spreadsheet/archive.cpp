// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/spreadsheet/archive.h"

#include <fmt/format.h>

#include <zip.h>

namespace inchpeg
{

namespace
{

constexpr zip_uint64_t kMostUnpacked = zip_uint64_t{512} << 20U;

Error damaged(std::string_view how)
{
    return badInput(
        fmt::format("the file looks like a workbook but is damaged: {}; take it again from where it "
                    "came, or save it anew in a spreadsheet",
                    how));
}

} // namespace

void Archive::Discard::operator()(zip *archive) const
{
    zip_discard(archive);
}

Result<Archive> Archive::open(std::string_view bytes)
{
    zip_error_t problem;
    zip_error_init(&problem);
    const auto saysProblem = [&] {
        std::string says = zip_error_strerror(&problem);
        zip_error_fini(&problem);
        return damaged(says);
    };
    zip_source_t *source = zip_source_buffer_create(bytes.data(), bytes.size(), 0, &problem);
    if (source == nullptr)
        return saysProblem();
    zip_t *opened = zip_open_from_source(source, ZIP_RDONLY, &problem);
    if (opened == nullptr) {
        zip_source_free(source);
        return saysProblem();
    }
    Archive archive(opened);
    zip_uint64_t unpacked = 0;
    const zip_int64_t parts = zip_get_num_entries(opened, 0);
    for (zip_int64_t i = 0; i < parts; ++i) {
        zip_stat_t part;
        if (zip_stat_index(opened, static_cast<zip_uint64_t>(i), 0, &part) == 0 &&
            (part.valid & ZIP_STAT_SIZE) != 0)
            unpacked += part.size;
    }
    if (unpacked > kMostUnpacked)
        return badInput(
            "the workbook would unpack to more than 512 MB; save the sheet with the record as text");
    return archive;
}

bool Archive::has(const std::string &name) const
{
    return zip_name_locate(m_archive.get(), name.c_str(), ZIP_FL_NOCASE) >= 0;
}

Result<std::string> Archive::read(const std::string &name) const
{
    const zip_int64_t index = zip_name_locate(m_archive.get(), name.c_str(), ZIP_FL_NOCASE);
    zip_stat_t part;
    if (index < 0 || zip_stat_index(m_archive.get(), static_cast<zip_uint64_t>(index), 0, &part) != 0)
        return damaged(fmt::format("its part {} is missing", name));
    std::string bytes(part.size, '\0');
    zip_file_t *file = zip_fopen_index(m_archive.get(), static_cast<zip_uint64_t>(index), 0);
    if (file == nullptr)
        return damaged(fmt::format("its part {} cannot be read", name));
    const zip_int64_t got = zip_fread(file, bytes.data(), bytes.size());
    char beyond = 0; // the checksum is looked at where the part ends
    const bool isWhole = got == static_cast<zip_int64_t>(bytes.size()) && zip_fread(file, &beyond, 1) == 0;
    zip_fclose(file);
    if (!isWhole)
        return damaged(fmt::format("its part {} is not what was packed", name));
    return bytes;
}

} // namespace inchpeg
