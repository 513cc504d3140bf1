// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/database.h"

#include "store/sql_dialect.h"

#include <QSqlError>

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <cstdint>
#include <deque>
#include <map>
#include <mutex>
#include <vector>

namespace inchpeg
{

namespace
{

constexpr std::chrono::seconds kPatience{10};

QString uniqueConnectionName()
{
    static std::atomic<int> count{0};
    return QStringLiteral("inchpeg-%1").arg(++count);
}

/// The files that this program has connections to, one entry a connection.
class OpenFiles
{
public:
    static OpenFiles &all()
    {
        static OpenFiles files;
        return files;
    }
    void add(const FileIdentity &file)
    {
        const std::lock_guard lock(m_mutex);
        m_files.push_back(file);
    }
    void remove(const FileIdentity &file)
    {
        const std::lock_guard lock(m_mutex);
        if (const auto found = std::find(m_files.begin(), m_files.end(), file); found != m_files.end())
            m_files.erase(found);
    }
    bool has(const FileIdentity &file)
    {
        const std::lock_guard lock(m_mutex);
        return std::find(m_files.begin(), m_files.end(), file) != m_files.end();
    }

private:
    std::mutex m_mutex;
    std::vector<FileIdentity> m_files;
};

} // namespace

Database::Database(const std::string &path, Access access)
    : m_path(path), m_connectionName(uniqueConnectionName()),
      m_connection(QSqlDatabase::addDatabase(embeddedDriver(), m_connectionName))
{
    m_connection.setDatabaseName(QString::fromStdString(path));
    if (access == Access::ReadOnly)
        setReadOnly(m_connection, path);
    try {
        if (!m_connection.open())
            throw StorageFailure(failureSentence(m_connection.lastError(), path));
        if (access == Access::ReadWrite) {
            for (const QString &statement : openingStatements())
                execute(statement);
        }
        m_file = identityOf(path);
        if (m_file)
            OpenFiles::all().add(*m_file);
    } catch (const StorageFailure &) {
        m_connection = {};
        QSqlDatabase::removeDatabase(m_connectionName);
        throw;
    }
}

Database::~Database()
{
    m_connection.close();
    m_connection = {};
    QSqlDatabase::removeDatabase(m_connectionName);
    if (m_file)
        OpenFiles::all().remove(*m_file);
}

bool Database::isOpenHere(const FileIdentity &file)
{
    return OpenFiles::all().has(file);
}

void Database::execute(const QString &sql)
{
    QSqlQuery query(m_connection);
    if (!query.exec(sql))
        throw StorageFailure(failureSentence(query.lastError(), m_path));
}

bool Database::hasTable(const QString &name) const
{
    return m_connection.tables().contains(name);
}

void requireThere(const std::string &projectPath)
{
    if (!identityOf(projectPath))
        throw StorageFailure(projectPath + ": is no longer in its place; nothing was saved by this");
}

Query::Query(Database &database, const std::string &sql)
    : m_database(database), m_query(database.m_connection)
{
    m_query.setForwardOnly(true);
    if (!m_query.prepare(QString::fromStdString(sql)))
        throw StorageFailure(failureSentence(m_query.lastError(), m_database.path()));
}

Query &Query::bind(const QVariant &value)
{
    m_query.bindValue(m_bound++, value);
    return *this;
}

Query &Query::bind(const std::string &text)
{
    // An empty std::string is an empty text, not the null that a null QString would become.
    return bind(QVariant(text.empty() ? QStringLiteral("") : QString::fromStdString(text)));
}

Query &Query::bind(const std::optional<double> &number)
{
    return bind(number ? QVariant(*number) : QVariant(QMetaType::fromType<double>()));
}

void Query::run()
{
    m_bound = 0;
    if (!m_query.exec())
        throw StorageFailure(failureSentence(m_query.lastError(), m_database.path()));
}

bool Query::next()
{
    const bool found = m_query.next();
    if (!found && m_query.lastError().isValid())
        throw StorageFailure(failureSentence(m_query.lastError(), m_database.path()));
    return found;
}

qint64 Query::integer(int column) const
{
    return m_query.value(column).toLongLong();
}

double Query::number(int column) const
{
    return m_query.value(column).toDouble();
}

std::optional<double> Query::optionalNumber(int column) const
{
    return isNull(column) ? std::nullopt : std::optional(number(column));
}

std::string Query::text(int column) const
{
    return m_query.value(column).toString().toStdString();
}

bool Query::isNull(int column) const
{
    return m_query.isNull(column);
}

QByteArray Query::bytes(int column) const
{
    return m_query.value(column).toByteArray();
}

struct WriteTurn::Queue {
    std::mutex mutex;
    std::condition_variable moved;
    std::deque<std::uint64_t> waiting; ///< the first has the turn
    std::uint64_t nextTicket = 0;

    /// The one of a file; gone when nobody asks for it any more.
    static std::shared_ptr<Queue> of(const std::string &path)
    {
        static std::mutex guard;
        static std::map<std::string, std::weak_ptr<Queue>> queues;
        const std::lock_guard lock(guard);
        std::erase_if(queues, [](const auto &entry) { return entry.second.expired(); });
        std::shared_ptr<Queue> queue = queues[path].lock();
        if (!queue)
            queues[path] = queue = std::make_shared<Queue>();
        return queue;
    }
};

WriteTurn::WriteTurn(const std::string &path) : m_queue(Queue::of(path))
{
    std::unique_lock lock(m_queue->mutex);
    const std::uint64_t ticket = m_queue->nextTicket++;
    m_queue->waiting.push_back(ticket);
    if (m_queue->moved.wait_for(lock, kPatience, [&] { return m_queue->waiting.front() == ticket; }))
        return;
    std::erase(m_queue->waiting, ticket);
    throw StorageFailure(fmt::format("{}: this program is still writing to it; try again in a moment", path));
}

WriteTurn::~WriteTurn()
{
    {
        const std::lock_guard lock(m_queue->mutex);
        m_queue->waiting.pop_front();
    }
    m_queue->moved.notify_all();
}

Transaction::Transaction(Database &database) : m_database(database)
{
    if (database.m_openTransactions == 0)
        m_turn.emplace(database.path());
    m_database.execute(m_turn ? beginStatement() : beginPartStatement());
    ++m_database.m_openTransactions;
}

Transaction::~Transaction()
{
    if (!m_open)
        return;
    --m_database.m_openTransactions;
    if (m_turn) {
        m_database.m_connection.rollback();
        return;
    }
    QSqlQuery(m_database.m_connection).exec(undoPartStatement());
}

void Transaction::commit()
{
    if (!m_turn)
        m_database.execute(endPartStatement());
    else if (!m_database.m_connection.commit())
        throw StorageFailure(failureSentence(m_database.m_connection.lastError(), m_database.path()));
    --m_database.m_openTransactions;
    m_open = false;
}

} // namespace inchpeg
