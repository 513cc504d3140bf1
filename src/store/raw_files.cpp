// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/raw_files.h"

#include <QCryptographicHash>
#include <QDateTime>

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr const char *kIsUnused = "id NOT IN (SELECT raw_file_id FROM piece WHERE raw_file_id IS NOT NULL) "
                                  "AND id NOT IN (SELECT raw_file_id FROM photo)";

RawFileInfo infoFrom(const Query &row)
{
    return {RawFileId{row.integer(0)}, row.text(1), row.text(2), row.integer(3), row.text(4)};
}

} // namespace

std::string sha256Of(std::string_view bytes)
{
    QCryptographicHash hash(QCryptographicHash::Sha256);
    hash.addData(QByteArrayView(bytes.data(), static_cast<qsizetype>(bytes.size())));
    return hash.result().toHex().toStdString();
}

RawFileInfo newRawFile(RawFileId id, const std::string &name, std::string_view bytes)
{
    return {id, name, sha256Of(bytes), static_cast<std::int64_t>(bytes.size()),
            QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString()};
}

void RawFiles::add(const RawFileInfo &info, std::string_view bytes)
{
    Query query(
        m_database,
        "INSERT INTO raw_file (id, name, sha256, size_bytes, added_at, content) VALUES (?, ?, ?, ?, ?, ?)");
    query.bind(QVariant(qint64{info.id.value}))
        .bind(info.name)
        .bind(info.sha256)
        .bind(QVariant(qint64{info.sizeBytes}))
        .bind(info.addedAt)
        .bind(QVariant(QByteArray(bytes.data(), static_cast<qsizetype>(bytes.size()))))
        .run();
}

std::optional<RawFileInfo> RawFiles::findBySha256(const std::string &sha256)
{
    Query query(m_database, "SELECT id, name, sha256, size_bytes, added_at FROM raw_file WHERE sha256 = ?");
    query.bind(sha256).run();
    return query.next() ? std::optional(infoFrom(query)) : std::nullopt;
}

std::optional<RawFileInfo> RawFiles::find(RawFileId id)
{
    Query query(m_database, "SELECT id, name, sha256, size_bytes, added_at FROM raw_file WHERE id = ?");
    query.bind(QVariant(qint64{id.value})).run();
    return query.next() ? std::optional(infoFrom(query)) : std::nullopt;
}

std::string RawFiles::bytes(RawFileId id)
{
    Query query(m_database, "SELECT content, sha256, name FROM raw_file WHERE id = ?");
    query.bind(QVariant(qint64{id.value})).run();
    if (!query.next())
        throw StorageFailure(
            fmt::format("{}: raw file {} is not in the project", m_database.path(), id.value));
    std::string bytes = query.bytes(0).toStdString();
    if (sha256Of(bytes) != query.text(1))
        throw StorageFailure(
            fmt::format("{}: the raw file \"{}\" no longer holds the bytes that it came with (its "
                        "SHA-256 differs): the project was damaged or changed from outside; bring the "
                        "file in again from where it came, or take it from an older copy",
                        m_database.path(), query.text(2)));
    return bytes;
}

RawFileState RawFiles::stateOf(const RawFileInfo &file)
{
    Query query(m_database, "SELECT content FROM raw_file WHERE id = ?");
    query.bind(QVariant(qint64{file.id.value})).run();
    const QByteArray bytes = query.next() ? query.bytes(0) : QByteArray();
    if (sha256Of({bytes.constData(), static_cast<std::size_t>(bytes.size())}) != file.sha256)
        return RawFileState::Changed;
    return bytes.size() == file.sizeBytes ? RawFileState::Whole : RawFileState::OtherSize;
}

std::vector<RawFileInfo> RawFiles::list()
{
    return listed("SELECT id, name, sha256, size_bytes, added_at FROM raw_file ORDER BY id");
}

std::vector<RawFileInfo> RawFiles::unused()
{
    const std::string sql =
        std::string("SELECT id, name, sha256, size_bytes, added_at FROM raw_file WHERE ") + kIsUnused +
        " ORDER BY id";
    return listed(sql.c_str());
}

std::vector<RawFileInfo> RawFiles::listed(const char *sql)
{
    Query query(m_database, sql);
    query.run();
    std::vector<RawFileInfo> files;
    while (query.next())
        files.push_back(infoFrom(query));
    return files;
}

void RawFiles::removeUnused()
{
    // The database looks for what refers to each file that goes: through all pieces, but for an index.
    // Nothing else looks for pieces by their file, so it is there for this alone.
    for (const char *table : {"piece", "photo"})
        m_database.execute(
            QStringLiteral("CREATE INDEX %1_by_file ON %1 (raw_file_id)").arg(QLatin1String(table)));
    m_database.execute(QStringLiteral("DELETE FROM raw_file WHERE ") + QLatin1String(kIsUnused));
    for (const char *table : {"piece", "photo"})
        m_database.execute(QStringLiteral("DROP INDEX %1_by_file").arg(QLatin1String(table)));
}

} // namespace inchpeg
