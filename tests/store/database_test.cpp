// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/database.h"
#include "store/schema.h"
#include "support/temporary_folder.h"

#include <gtest/gtest.h>

#include <atomic>
#include <chrono>
#include <thread>

namespace inchpeg
{

namespace
{

class DatabaseTest : public testing::Test
{
protected:
    test::TemporaryFolder m_folder;
    Database m_database{m_folder.path("d.db"), Database::Access::ReadWrite};

    std::int64_t count(const char *sql)
    {
        Query query(m_database, sql);
        query.run();
        return query.next() ? query.integer(0) : -1;
    }
};

} // namespace

TEST_F(DatabaseTest, EveryKindOfValueComesBack)
{
    m_database.execute(
        QStringLiteral("CREATE TABLE t (a TEXT, b DOUBLE PRECISION, c BIGINT, d DOUBLE PRECISION)"));
    Query(m_database, "INSERT INTO t VALUES (?, ?, ?, ?)")
        .bind(std::string("it's; -- \"ü\""))
        .bind(std::optional(0.1))
        .bind(QVariant(qint64{9007199254740993}))
        .bind(std::optional<double>())
        .run();
    Query query(m_database, "SELECT a, b, c, d FROM t");
    query.run();
    ASSERT_TRUE(query.next());
    EXPECT_EQ(query.text(0), "it's; -- \"ü\"");
    EXPECT_EQ(query.number(1), 0.1);
    EXPECT_EQ(query.integer(2), 9007199254740993);
    EXPECT_TRUE(query.isNull(3));
    EXPECT_FALSE(query.optionalNumber(3));
    EXPECT_FALSE(query.next());
}

TEST_F(DatabaseTest, AnEmptyTextIsNoNull)
{
    m_database.execute(QStringLiteral("CREATE TABLE t (a TEXT NOT NULL)"));
    Query(m_database, "INSERT INTO t VALUES (?)").bind(std::string()).run();
    EXPECT_EQ(count("SELECT COUNT(*) FROM t WHERE a = ''"), 1);
}

TEST_F(DatabaseTest, ATransactionIsTakenBackUnlessItIsCommitted)
{
    m_database.execute(QStringLiteral("CREATE TABLE t (a BIGINT)"));
    {
        Transaction transaction(m_database);
        m_database.execute(QStringLiteral("INSERT INTO t VALUES (1)"));
    }
    EXPECT_EQ(count("SELECT COUNT(*) FROM t"), 0);
    {
        Transaction transaction(m_database);
        m_database.execute(QStringLiteral("INSERT INTO t VALUES (1)"));
        transaction.commit();
    }
    EXPECT_EQ(count("SELECT COUNT(*) FROM t"), 1);
}

TEST_F(DatabaseTest, AFailureIsAnErrorWithTheFileNamed)
{
    const auto result = guarded([&] {
        m_database.execute(QStringLiteral("SELECT nonsense FROM nowhere"));
        return 1;
    });
    ASSERT_FALSE(result);
    EXPECT_EQ(result.error().code, ErrorCode::Storage);
    EXPECT_NE(result.error().message.find("d.db"), std::string::npos);
}

TEST_F(DatabaseTest, ForeignKeysAreWatched)
{
    migrate(m_database);
    EXPECT_THROW(
        m_database.execute(QStringLiteral("INSERT INTO study_condition VALUES (1, 99, 0, 'x', 'flat', '')")),
        StorageFailure);
}

TEST_F(DatabaseTest, MigratingAgainChangesNothing)
{
    EXPECT_EQ(schemaVersion(m_database), 0);
    migrate(m_database);
    EXPECT_EQ(schemaVersion(m_database), kSchemaVersion);
    const std::int64_t tables = count("SELECT COUNT(*) FROM sqlite_master");
    migrate(m_database);
    EXPECT_EQ(count("SELECT COUNT(*) FROM sqlite_master"), tables);
}

TEST_F(DatabaseTest, AReadingConnectionCannotWrite)
{
    migrate(m_database);
    Database reading(m_folder.path("d.db"), Database::Access::ReadOnly);
    EXPECT_EQ(schemaVersion(reading), kSchemaVersion) << "sees what stands in the log";
    EXPECT_THROW(reading.execute(QStringLiteral("DELETE FROM meta")), StorageFailure);
}

// Files that are brought in write beside a person who edits without a pause; left to the database alone, the
// second connection tries every tenth of a second and gives up.
TEST_F(DatabaseTest, AWriterWithoutAPauseLetsAnotherOneIn)
{
    m_database.execute(QStringLiteral("CREATE TABLE t (who BIGINT)"));
    const auto write = [](Database &database, const char *sql, std::chrono::milliseconds length) {
        Transaction transaction(database);
        Query(database, sql).run();
        std::this_thread::sleep_for(length);
        transaction.commit();
    };
    std::atomic<int> written = 0;
    std::jthread other([&] {
        Database second(m_folder.path("d.db"), Database::Access::ReadWrite);
        for (; written < 10; ++written)
            write(second, "INSERT INTO t VALUES (2)", {});
    });
    int own = 0;
    // By turns it takes some twenty; a second one that is kept out gives up and throws.
    for (; written < 10 && own < 100000; ++own)
        write(m_database, "INSERT INTO t VALUES (1)", std::chrono::milliseconds(20));
    EXPECT_EQ(written, 10);
    other.join();
    EXPECT_EQ(count("SELECT COUNT(*) FROM t WHERE who = 2"), 10);
}

} // namespace inchpeg
