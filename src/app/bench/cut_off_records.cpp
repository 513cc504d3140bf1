// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/cut_off_records.h"

#include "disk/disk.h"
#include "disk/file_bytes.h"
#include "service/record_keeper.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFileInfo>
#include <QStandardPaths>

#include <algorithm>
#include <optional>

namespace inchpeg::app
{

namespace
{

constexpr const char *kFolderEnding = ".bench";

std::optional<PieceId> pieceOf(const QString &name)
{
    const QStringList words = name.split(QLatin1Char(' '));
    bool isNumber = false;
    const qlonglong id =
        words.size() == 3 && words[0] == QStringLiteral("piece") ? words[1].toLongLong(&isNumber) : 0;
    return isNumber ? std::optional(PieceId{id}) : std::nullopt;
}

} // namespace

QString benchFolder(const QString &projectPath)
{
    return projectPath + QLatin1String(kFolderEnding);
}

QString benchFileName(PieceId piece)
{
    return QStringLiteral("piece %1 %2.txt")
        .arg(piece.value)
        .arg(QDateTime::currentDateTimeUtc().toString(QStringLiteral("yyyyMMdd'T'HHmmsszzz")));
}

QString benchSpareFolder()
{
    return QStandardPaths::writableLocation(QStandardPaths::GenericCacheLocation) +
           QStringLiteral("/inchpeg/bench");
}

std::vector<CutOffRecord> cutOffRecords(const QString &folder)
{
    std::vector<CutOffRecord> records;
    const QDir bench(folder);
    for (const QFileInfo &file :
         bench.entryInfoList({QStringLiteral("piece *.txt")}, QDir::Files, QDir::Name)) {
        const std::optional<PieceId> id = pieceOf(file.completeBaseName());
        if (!id)
            continue;
        const QString spare =
            benchSpareFolder() + QLatin1Char('/') + file.fileName() + QLatin1String(kRestEnding);
        CutOffRecord record;
        record.file = file.filePath();
        record.rest = QFileInfo::exists(spare) ? spare : QString();
        record.piece = *id;
        const Result<std::string> bytes = bytesOf(record);
        if (bytes && bytes->empty()) {
            forget(record); // armed, and nothing came
            continue;
        }
        record.words = QCoreApplication::translate("CutOffRecord", "about %1 readings, cut off on %2")
                           .arg(bytes ? std::count(bytes->begin(), bytes->end(), '\n') : 0)
                           .arg(file.lastModified().toString(QStringLiteral("d MMM, HH:mm")));
        records.push_back(std::move(record));
    }
    return records;
}

Result<std::string> bytesOf(const CutOffRecord &record)
{
    std::string all;
    for (const QString &file : {record.file, record.rest}) {
        if (file.isEmpty())
            continue;
        const Result<std::string> bytes = readFileBytes(file.toStdString());
        if (!bytes)
            return bytes;
        all += *bytes;
    }
    return all + record.unsaved;
}

void forget(const CutOffRecord &record)
{
    for (const QString &file : {record.file, record.rest}) {
        // One that cannot be removed is offered again at the next start; its bytes are known then.
        if (!file.isEmpty()) [[maybe_unused]]
            const Status removed = removeFile(file.toStdString());
    }
    removeEmptyFolder(QFileInfo(record.file).path().toStdString());
}

void leaveAside(const CutOffRecord &record)
{
    for (const QString &file : {record.file, record.rest}) {
        if (!file.isEmpty()) [[maybe_unused]]
            const Status moved = renameFile(file.toStdString(), file.toStdString() + ".aside");
    }
}

} // namespace inchpeg::app
