// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/cut_off_records.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QFileInfo>

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

std::vector<CutOffRecord> cutOffRecords(const QString &folder)
{
    std::vector<CutOffRecord> records;
    const QDir bench(folder);
    for (const QFileInfo &file :
         bench.entryInfoList({QStringLiteral("piece *.txt")}, QDir::Files, QDir::Name)) {
        const std::optional<PieceId> id = pieceOf(file.completeBaseName());
        if (!id)
            continue;
        if (file.size() == 0) {
            QFile::remove(file.filePath()); // armed, and nothing came
            continue;
        }
        QFile bytes(file.filePath());
        const auto lines = bytes.open(QIODevice::ReadOnly) ? bytes.readAll().count('\n') : 0;
        records.push_back({file.filePath(), *id,
                           QCoreApplication::translate("CutOffRecord", "about %1 readings, cut off on %2")
                               .arg(lines)
                               .arg(file.lastModified().toString(QStringLiteral("d MMM, HH:mm")))});
    }
    return records;
}

void leaveAside(const CutOffRecord &record)
{
    QFile::rename(record.file, record.file + QStringLiteral(".aside"));
}

} // namespace inchpeg::app
