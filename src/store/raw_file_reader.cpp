// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/raw_file_reader.h"

#include "store/raw_files.h"

namespace inchpeg
{

RawFileReader::RawFileReader(std::unique_ptr<Database> database) : m_database(std::move(database)) {}
RawFileReader::RawFileReader(RawFileReader &&) noexcept = default;
RawFileReader &RawFileReader::operator=(RawFileReader &&) noexcept = default;
RawFileReader::~RawFileReader() = default;

Result<RawFileReader> RawFileReader::open(const std::string &projectPath)
{
    return guarded(
        [&] { return RawFileReader(std::make_unique<Database>(projectPath, Database::Access::ReadOnly)); });
}

Result<std::string> RawFileReader::bytes(RawFileId id)
{
    return guarded([&] { return RawFiles(*m_database).bytes(id); });
}

} // namespace inchpeg
