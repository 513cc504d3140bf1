// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The one place for what differs between databases. All other SQL in src/store is common to SQLite and
// PostgreSQL.

#include <QSqlDatabase>
#include <QSqlError>
#include <QString>
#include <QStringList>

#include <string>

namespace inchpeg
{

/// The Qt driver of an embedded project file.
QString embeddedDriver();

/// Connection options that open the file for reading only, without creating anything beside it where
/// possible.
void setReadOnly(QSqlDatabase &connection, const std::string &path);

/// Statements run once after opening for writing: write-ahead log, full synchronisation (a finished action
/// survives a power cut), foreign keys.
QStringList openingStatements();

/// Begins a transaction that will write. It waits for its turn at once: one that reads first and writes then
/// could not go on where another connection has written meanwhile.
QString beginStatement();

/// Begins a part of a transaction, which can be taken back by itself; goes on in the whole; takes it back.
QString beginPartStatement();
QString endPartStatement();
QString undoPartStatement();

/// The column type for raw bytes.
QString bytesType();

/// Gives the room of what was removed back to the disk.
QString shrinkStatement();

/// One row of text: "ok" where the database's own check finds nothing.
QString integrityStatement();

/// What a failed statement means for a person.
std::string failureSentence(const QSqlError &error, const std::string &path);

} // namespace inchpeg
