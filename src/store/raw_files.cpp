// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/raw_files.h"

#include <QCryptographicHash>
#include <QDateTime>

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

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

bool RawFiles::isUnchanged(RawFileId id)
{
    Query query(m_database, "SELECT content, sha256 FROM raw_file WHERE id = ?");
    query.bind(QVariant(qint64{id.value})).run();
    return query.next() && sha256Of(query.bytes(0).toStdString()) == query.text(1);
}

std::vector<RawFileInfo> RawFiles::list()
{
    return listed("SELECT id, name, sha256, size_bytes, added_at FROM raw_file ORDER BY id");
}

std::vector<RawFileInfo> RawFiles::unused()
{
    return listed("SELECT id, name, sha256, size_bytes, added_at FROM raw_file WHERE id NOT IN "
                  "(SELECT raw_file_id FROM piece WHERE raw_file_id IS NOT NULL) AND id NOT IN "
                  "(SELECT raw_file_id FROM photo) ORDER BY id");
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

void RawFiles::remove(RawFileId id)
{
    Query(m_database, "DELETE FROM raw_file WHERE id = ?").bind(QVariant(qint64{id.value})).run();
}

} // namespace inchpeg
