// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "store/file_identity.h"

#include <QSqlDatabase>
#include <QSqlQuery>
#include <QString>
#include <QVariant>

#include <memory>
#include <optional>
#include <stdexcept>
#include <string>

namespace inchpeg
{

/// Thrown inside src/store; guarded() turns it into an Error before it leaves.
class StorageFailure : public std::runtime_error
{
public:
    using std::runtime_error::runtime_error;
};

/// One connection to a project's database. Use it from the thread that made it.
class Database
{
public:
    enum class Access { ReadWrite, ReadOnly };

    /// Opens (and for ReadWrite creates) the file. Throws StorageFailure.
    Database(const std::string &path, Access access);
    ~Database();
    Database(const Database &) = delete;
    Database &operator=(const Database &) = delete;

    /// Runs a statement without parameters. Throws StorageFailure.
    void execute(const QString &sql);
    [[nodiscard]] bool hasTable(const QString &name) const;
    [[nodiscard]] bool isEmpty() const { return m_connection.tables().isEmpty(); }
    [[nodiscard]] const std::string &path() const { return m_path; }
    /// Whether this program has a connection to the file. Nobody may open and close it by other means then:
    /// the system lets go of all locks of a program on a file with the first descriptor that it closes
    /// (https://sqlite.org/howtocorrupt.html, section 2.2).
    static bool isOpenHere(const FileIdentity &file);

private:
    friend class Query;
    friend class Transaction;
    std::string m_path;
    std::optional<FileIdentity> m_file;
    QString m_connectionName;
    QSqlDatabase m_connection;
    int m_openTransactions = 0; ///< one inside the other
};

/// Throws StorageFailure where a project has gone: opening it for writing would make an empty file there.
void requireThere(const std::string &projectPath);

/// A prepared statement. All members throw StorageFailure.
class Query
{
public:
    Query(Database &database, const std::string &sql);
    Query &bind(const QVariant &value);
    Query &bind(const std::string &text);
    Query &bind(const std::optional<double> &number);
    void run();
    bool next();
    [[nodiscard]] qint64 integer(int column) const;
    [[nodiscard]] double number(int column) const;
    [[nodiscard]] std::optional<double> optionalNumber(int column) const;
    [[nodiscard]] std::string text(int column) const;
    [[nodiscard]] bool isNull(int column) const;
    [[nodiscard]] QByteArray bytes(int column) const;

private:
    Database &m_database;
    QSqlQuery m_query;
    int m_bound = 0;
};

/// The turn to write to one project among the connections of this program, in the order in which they asked.
///
/// The database alone lets them try again and again, and one that writes without a pause keeps the others out
/// until they give up: files brought in beside a person who edits were refused on a slow disk.
class WriteTurn
{
public:
    /// Waits for the turn. Throws StorageFailure when it does not come within kPatience.
    explicit WriteTurn(const std::string &path);
    ~WriteTurn();
    WriteTurn(const WriteTurn &) = delete;
    WriteTurn &operator=(const WriteTurn &) = delete;

private:
    struct Queue;
    std::shared_ptr<Queue> m_queue;
};

/// Takes everything back at the end of its scope unless commit() was called. One inside another of the same
/// connection is a part of it: what it did is taken back with it, or goes with it.
class Transaction
{
public:
    /// Waits until no other connection writes. Throws StorageFailure.
    explicit Transaction(Database &database);
    ~Transaction();
    Transaction(const Transaction &) = delete;
    Transaction &operator=(const Transaction &) = delete;
    void commit();

private:
    Database &m_database;
    std::optional<WriteTurn> m_turn; ///< of the outermost
    bool m_open = true;
};

/// Runs a function of the store and turns what it throws into an Error, but for broken promises of the
/// caller.
template <typename F>
auto guarded(F function) -> Result<decltype(function())>
{
    try {
        return function();
    } catch (const StorageFailure &failure) {
        return Error{ErrorCode::Storage, failure.what(), {}};
    } catch (const ContractViolation &) {
        throw;
    } catch (const std::exception &failure) { // a text that is no UTF-8, no memory: nothing leaves half done
        return Error{ErrorCode::Storage, std::string("nothing was saved by this: ") + failure.what(), {}};
    }
}

} // namespace inchpeg
