// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/sql_dialect.h"

#include <QFileInfo>
#include <QUrl>

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

// Primary result codes of SQLite (https://sqlite.org/rescode.html); extended codes carry them in the low
// byte.
constexpr int kBusy = 5;
constexpr int kLocked = 6;
constexpr int kReadOnly = 8;
constexpr int kInputOutput = 10;
constexpr int kCorrupt = 11;
constexpr int kFull = 13;
constexpr int kCannotOpen = 14;
constexpr int kNotADatabase = 26;
constexpr int kPrimaryMask = 0xFF;

} // namespace

QString embeddedDriver()
{
    return QStringLiteral("QSQLITE");
}

void setReadOnly(QSqlDatabase &connection, const std::string &path)
{
    const QString name = QString::fromStdString(path);
    // "immutable" leaves no log or lock files beside a file that may not even be ours; with a log waiting to
    // be read the file must be opened in the ordinary way.
    if (!QFileInfo::exists(name + QStringLiteral("-wal"))) {
        QUrl url = QUrl::fromLocalFile(QFileInfo(name).absoluteFilePath());
        url.setQuery(QStringLiteral("immutable=1"));
        connection.setDatabaseName(url.toString(QUrl::FullyEncoded));
        connection.setConnectOptions(QStringLiteral("QSQLITE_OPEN_READONLY;QSQLITE_OPEN_URI"));
        return;
    }
    connection.setConnectOptions(QStringLiteral("QSQLITE_OPEN_READONLY"));
}

QStringList openingStatements()
{
    return {QStringLiteral("PRAGMA busy_timeout = 3000"), QStringLiteral("PRAGMA journal_mode = WAL"),
            QStringLiteral("PRAGMA synchronous = FULL"), QStringLiteral("PRAGMA foreign_keys = ON")};
}

QString beginStatement()
{
    return QStringLiteral("BEGIN IMMEDIATE");
}

QString beginPartStatement()
{
    return QStringLiteral("SAVEPOINT part");
}

QString endPartStatement()
{
    return QStringLiteral("RELEASE part");
}

/// The database itself takes the part that was begun last.
QString undoPartStatement()
{
    return QStringLiteral("ROLLBACK TO part");
}

QString bytesType()
{
    return QStringLiteral("BLOB");
}

QString shrinkStatement()
{
    return QStringLiteral("VACUUM");
}

QString integrityStatement()
{
    return QStringLiteral("PRAGMA integrity_check(1)");
}

std::string failureSentence(const QSqlError &error, const std::string &path)
{
    const int code = error.nativeErrorCode().toInt() & kPrimaryMask;
    switch (code) {
    case kBusy:
    case kLocked:
        return fmt::format("{}: is being written by another program; close it there and try again", path);
    case kReadOnly:
        return fmt::format("{}: may not be written; copy it to a folder of your own and open it there", path);
    case kFull:
        return fmt::format(
            "{}: the disk is full; nothing that was saved is lost. Free some space and do it again", path);
    case kInputOutput:
        return fmt::format(
            "{}: the disk refuses to read or write ({}); nothing that was saved is lost. Is it full, or "
            "was it unplugged?",
            path, error.databaseText().toStdString());
    case kCorrupt:
        return fmt::format("{}: is damaged; restore a copy from your backup", path);
    case kNotADatabase:
        return fmt::format("{}: is not an Inch Peg project", path);
    case kCannotOpen:
        return fmt::format("{}: cannot be opened or created there; choose a folder that you may write to",
                           path);
    default:
        return fmt::format("{}: {}", path, error.text().toStdString());
    }
}

} // namespace inchpeg
