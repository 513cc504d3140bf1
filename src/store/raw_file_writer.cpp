// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/raw_file_writer.h"

namespace inchpeg
{

namespace
{

/// The project's own connection may write down a higher count meanwhile; a lower one never stands after this.
void keepIdAsTaken(Database &database, RawFileId id)
{
    Query query(database, "UPDATE meta SET value = ? WHERE name = 'next_id' AND CAST(value AS BIGINT) <= ?");
    query.bind(std::to_string(id.value + 1)).bind(QVariant(qint64{id.value})).run();
}

} // namespace

RawFileWriter::RawFileWriter(std::unique_ptr<Database> database) : m_database(std::move(database)) {}
RawFileWriter::RawFileWriter(RawFileWriter &&) noexcept = default;
RawFileWriter &RawFileWriter::operator=(RawFileWriter &&) noexcept = default;
RawFileWriter::~RawFileWriter() = default;

Result<RawFileWriter> RawFileWriter::open(const std::string &projectPath)
{
    return guarded([&] {
        requireThere(projectPath);
        return RawFileWriter(std::make_unique<Database>(projectPath, Database::Access::ReadWrite));
    });
}

Result<AddedRawFile> RawFileWriter::add(RawFileId id, const std::string &name, std::string_view bytes)
{
    const RawFileInfo info = newRawFile(id, name, bytes);
    return guarded([&] {
        Transaction transaction(*m_database);
        RawFiles files(*m_database);
        if (const auto known = files.findBySha256(info.sha256))
            return AddedRawFile{known->id, true};
        files.add(info, bytes);
        keepIdAsTaken(*m_database, id);
        transaction.commit();
        return AddedRawFile{id, false};
    });
}

} // namespace inchpeg
