// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/schema.h"

#include "core/model/former_tests.h"
#include "core/model/plan.h"
#include "store/sql_dialect.h"

#include <QDateTime>

#include <fmt/format.h>

#include <array>

namespace inchpeg
{

namespace
{

/// Lengths, forces and areas are kept in SI base units, so that a number comes back bit for bit.
QStringList createFirstVersion()
{
    return {
        QStringLiteral("CREATE TABLE meta (name TEXT PRIMARY KEY, value TEXT NOT NULL)"),
        QStringLiteral("CREATE TABLE raw_file ("
                       "id BIGINT PRIMARY KEY, name TEXT NOT NULL, sha256 TEXT NOT NULL UNIQUE, "
                       "size_bytes BIGINT NOT NULL, added_at TEXT NOT NULL, content %1 NOT NULL)")
            .arg(bytesType()),
        QStringLiteral(
            "CREATE TABLE study ("
            "id BIGINT PRIMARY KEY, position INTEGER NOT NULL, question TEXT NOT NULL, method TEXT NOT NULL, "
            "factor_name TEXT NOT NULL, factor_unit TEXT NOT NULL, reference_id BIGINT NOT NULL, "
            "smallest_difference DOUBLE PRECISION NOT NULL, pieces_per_condition INTEGER NOT NULL, "
            "section_shape TEXT NOT NULL, gauge_length_m DOUBLE PRECISION, grip_distance_m DOUBLE PRECISION, "
            "capacity_N DOUBLE PRECISION, toe_correction INTEGER NOT NULL)"),
        QStringLiteral("CREATE TABLE study_condition ("
                       "id BIGINT PRIMARY KEY, study_id BIGINT NOT NULL REFERENCES study(id), position "
                       "INTEGER NOT NULL, "
                       "level TEXT NOT NULL, orientation TEXT NOT NULL, material TEXT NOT NULL)"),
        QStringLiteral(
            "CREATE TABLE piece ("
            "id BIGINT PRIMARY KEY, study_id BIGINT NOT NULL REFERENCES study(id), "
            "condition_id BIGINT NOT NULL REFERENCES study_condition(id), position INTEGER NOT NULL, "
            "code TEXT NOT NULL, width_m DOUBLE PRECISION, thickness_m DOUBLE PRECISION, "
            "diameter_m DOUBLE PRECISION, area_m2 DOUBLE PRECISION, "
            "raw_file_id BIGINT REFERENCES raw_file(id), column_mapping TEXT NOT NULL, "
            "left_out_reason TEXT, left_out_by TEXT, left_out_at TEXT, UNIQUE (study_id, code))"),
        QStringLiteral("CREATE INDEX piece_of_study ON piece (study_id)"),
        QStringLiteral("CREATE INDEX condition_of_study ON study_condition (study_id)"),
        QStringLiteral(
            "CREATE TABLE remembered_mapping (layout TEXT PRIMARY KEY, column_mapping TEXT NOT NULL)"),
        QStringLiteral("CREATE TABLE setting (name TEXT PRIMARY KEY, value TEXT NOT NULL)"),
    };
}

/// Rules that a person may change, markers placed by hand, and readings kept so that they need not be made
/// again.
QStringList addMarkersAndReadings()
{
    return {
        QStringLiteral("ALTER TABLE study ADD COLUMN modulus_from DOUBLE PRECISION NOT NULL DEFAULT 0.0005"),
        QStringLiteral("ALTER TABLE study ADD COLUMN modulus_to DOUBLE PRECISION NOT NULL DEFAULT 0.0025"),
        QStringLiteral("ALTER TABLE study ADD COLUMN offset_strain DOUBLE PRECISION NOT NULL DEFAULT 0.002"),
        QStringLiteral("ALTER TABLE study ADD COLUMN break_drop DOUBLE PRECISION NOT NULL DEFAULT 0.5"),
        QStringLiteral("CREATE TABLE hand_marker ("
                       "piece_id BIGINT NOT NULL REFERENCES piece(id), marker TEXT NOT NULL, "
                       "place DOUBLE PRECISION, reason TEXT NOT NULL, placed_by TEXT NOT NULL, "
                       "placed_at TEXT NOT NULL, PRIMARY KEY (piece_id, marker))"),
        QStringLiteral("CREATE TABLE kept_reading ("
                       "piece_id BIGINT PRIMARY KEY REFERENCES piece(id), inputs TEXT NOT NULL, "
                       "reading TEXT NOT NULL, outline %1 NOT NULL)")
            .arg(bytesType()),
    };
}

/// Several factors, plans, and pieces of further tests.
QStringList addPlans()
{
    return {
        QStringLiteral("CREATE TABLE study_factor ("
                       "study_id BIGINT NOT NULL REFERENCES study(id), position INTEGER NOT NULL, "
                       "name TEXT NOT NULL, unit TEXT NOT NULL, changed_per TEXT NOT NULL, "
                       "PRIMARY KEY (study_id, position))"),
        QStringLiteral("INSERT INTO study_factor (study_id, position, name, unit, changed_per) "
                       "SELECT id, 0, factor_name, factor_unit, 'plate' FROM study"),
        QStringLiteral("CREATE TABLE condition_level ("
                       "condition_id BIGINT NOT NULL REFERENCES study_condition(id), "
                       "position INTEGER NOT NULL, level TEXT NOT NULL, "
                       "PRIMARY KEY (condition_id, position))"),
        QStringLiteral("INSERT INTO condition_level (condition_id, position, level) "
                       "SELECT id, 0, level FROM study_condition"),
        QStringLiteral("ALTER TABLE study DROP COLUMN factor_name"),
        QStringLiteral("ALTER TABLE study DROP COLUMN factor_unit"),
        QStringLiteral("ALTER TABLE study_condition DROP COLUMN level"),
        QStringLiteral("ALTER TABLE study ADD COLUMN plan TEXT NOT NULL DEFAULT '{}'"),
        QStringLiteral("ALTER TABLE piece ADD COLUMN test TEXT"),
    };
}

/// What is logged of plates and pieces, what records were made with, photos, and every change of a logged
/// value.
QStringList addLogs()
{
    return {
        QStringLiteral("ALTER TABLE study ADD COLUMN log TEXT NOT NULL DEFAULT '{}'"),
        QStringLiteral("ALTER TABLE piece ADD COLUMN log TEXT NOT NULL DEFAULT '{}'"),
        QStringLiteral("ALTER TABLE piece ADD COLUMN note TEXT NOT NULL DEFAULT ''"),
        QStringLiteral("ALTER TABLE piece ADD COLUMN recorded_with TEXT"),
        QStringLiteral("CREATE TABLE photo ("
                       "piece_id BIGINT NOT NULL REFERENCES piece(id), position INTEGER NOT NULL, "
                       "raw_file_id BIGINT NOT NULL REFERENCES raw_file(id), caption TEXT NOT NULL, "
                       "added_by TEXT NOT NULL, added_at TEXT NOT NULL, PRIMARY KEY (piece_id, position))"),
        QStringLiteral(
            "CREATE TABLE logged_change ("
            "id BIGINT PRIMARY KEY, study_id BIGINT NOT NULL REFERENCES study(id), piece_id BIGINT, "
            "what TEXT NOT NULL, value_before TEXT NOT NULL, value_after TEXT NOT NULL, "
            "changed_by TEXT NOT NULL, changed_at TEXT NOT NULL)"),
        QStringLiteral("CREATE INDEX change_of_study ON logged_change (study_id, piece_id)"),
    };
}

/// One list of tests, each with its setup and its rules of reading; before, the study's own test had columns
/// of the study and others stood in its plan.
QStringList addTests()
{
    return {
        QStringLiteral("CREATE TABLE study_test ("
                       "study_id BIGINT NOT NULL REFERENCES study(id), position INTEGER NOT NULL, "
                       "method TEXT NOT NULL, pieces_per_condition INTEGER NOT NULL, setup TEXT NOT NULL, "
                       "PRIMARY KEY (study_id, position))"),
        QStringLiteral("UPDATE piece SET test = (SELECT method FROM study WHERE study.id = piece.study_id) "
                       "WHERE test IS NULL"),
    };
}

/// Its sizes and forces are optional, as they were.
FormerRules formerRules(const Query &row)
{
    const auto length = [&row](int column) {
        const std::optional<double> length_m = row.optionalNumber(column);
        return length_m ? std::optional(Length::fromSi(*length_m)) : std::nullopt;
    };
    const std::optional<double> capacity_N = row.optionalNumber(6);
    return {length(4),
            length(5),
            capacity_N ? std::optional(Force::fromSi(*capacity_N)) : std::nullopt,
            row.integer(7) != 0,
            row.number(8),
            row.number(9),
            row.number(10),
            row.number(11)};
}

/// Fills study_test, and takes the tests out of the plans. A study whose plan is damaged gets a test without
/// a setup: it is told of when it is opened.
void fillTests(Database &database)
{
    Query rows(database, "SELECT id, method, pieces_per_condition, plan, gauge_length_m, grip_distance_m, "
                         "capacity_N, toe_correction, modulus_from, modulus_to, offset_strain, break_drop "
                         "FROM study ORDER BY id");
    rows.run();
    Query add(database, "INSERT INTO study_test (study_id, position, method, pieces_per_condition, setup) "
                        "VALUES (?, ?, ?, ?, ?)");
    Query replan(database, "UPDATE study SET plan = ? WHERE id = ?");
    while (rows.next()) {
        const std::optional<Method> method = methodFrom(rows.text(1));
        if (!method)
            throw StorageFailure(fmt::format("the test \"{}\" is not known", rows.text(1)));
        const auto pieces = static_cast<int>(rows.integer(2));
        const Result<std::vector<StudyTest>> read =
            testsOfFormerPlan(*method, pieces, rows.text(3), formerRules(rows));
        const std::vector<StudyTest> tests = read ? *read : std::vector{StudyTest{*method, pieces, {}}};
        for (std::size_t i = 0; i < tests.size(); ++i)
            add.bind(QVariant(qint64{rows.integer(0)}))
                .bind(QVariant(static_cast<qint64>(i)))
                .bind(std::string(methodName(tests[i].method)))
                .bind(QVariant(tests[i].piecesPerCondition))
                .bind(testSetupText(tests[i].setup))
                .run();
        if (const Result<Plan> plan = planFromText(rows.text(3)); plan && read)
            replan.bind(planText(*plan)).bind(QVariant(qint64{rows.integer(0)})).run();
    }
}

void moveTests(Database &database)
{
    fillTests(database);
    for (const char *column :
         {"method", "pieces_per_condition", "gauge_length_m", "grip_distance_m", "capacity_N",
          "toe_correction", "modulus_from", "modulus_to", "offset_strain", "break_drop"})
        database.execute(QStringLiteral("ALTER TABLE study DROP COLUMN %1").arg(QLatin1String(column)));
}

struct Step {
    QStringList (*statements)();
    void (*move)(Database &) = nullptr; ///< after them: what is more than a statement
};
/// Rails whose pieces are not here: a JSON list, empty where there is nothing.
QStringList addSummaries()
{
    return {QStringLiteral("ALTER TABLE study_condition ADD COLUMN summaries TEXT NOT NULL DEFAULT ''")};
}

/// What each study came to, for those that it is held beside.
QStringList addKeptValues()
{
    return {
        QStringLiteral("CREATE TABLE kept_values ("
                       "study_id BIGINT PRIMARY KEY REFERENCES study(id), revision BIGINT NOT NULL, "
                       "made_from TEXT NOT NULL, rails TEXT NOT NULL)"),
        QStringLiteral("INSERT INTO kept_values (study_id, revision, made_from, rails) "
                       "SELECT id, 1, '', '' FROM study"),
    };
}

/// steps[v] leads from version v to v + 1.
constexpr std::array<Step, kSchemaVersion> kSteps = {{{createFirstVersion},
                                                      {addMarkersAndReadings},
                                                      {addPlans},
                                                      {addLogs},
                                                      {addTests, moveTests},
                                                      {addSummaries},
                                                      {addKeptValues}}};

void setMeta(Database &database, const char *name, const std::string &value)
{
    Query query(database, "INSERT INTO meta (name, value) VALUES (?, ?) "
                          "ON CONFLICT (name) DO UPDATE SET value = excluded.value");
    query.bind(QVariant(QString::fromLatin1(name))).bind(value).run();
}

std::string metaValue(Database &database, const char *name)
{
    Query query(database, "SELECT value FROM meta WHERE name = ?");
    query.bind(QVariant(QString::fromLatin1(name))).run();
    return query.next() ? query.text(0) : std::string();
}

} // namespace

int schemaVersion(Database &database)
{
    if (!database.hasTable(QStringLiteral("meta"))) {
        if (!database.isEmpty())
            throw StorageFailure(
                fmt::format("{}: belongs to another program; it was not changed", database.path()));
        return 0;
    }
    if (metaValue(database, "format") != kProjectFormat)
        throw StorageFailure(
            fmt::format("{}: belongs to another program; it was not changed", database.path()));
    const int version = QString::fromStdString(metaValue(database, "schema_version")).toInt();
    if (version > kSchemaVersion)
        throw StorageFailure(
            fmt::format("{}: was written by a newer Inch Peg (format {}, this one knows {}); it was not "
                        "changed. Update Inch Peg to open it",
                        database.path(), version, kSchemaVersion));
    if (version < 1)
        throw StorageFailure(fmt::format(
            "{}: its format version is not readable; restore a copy from your backup", database.path()));
    return version;
}

void migrate(Database &database)
{
    for (int version = schemaVersion(database); version < kSchemaVersion; ++version) {
        Transaction transaction(database);
        const Step &step = kSteps.at(static_cast<std::size_t>(version));
        for (const QString &statement : step.statements())
            database.execute(statement);
        if (step.move != nullptr)
            step.move(database);
        if (version == 0) {
            setMeta(database, "format", kProjectFormat);
            setMeta(database, "created_at",
                    QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString());
            setMeta(database, "next_id", "1");
        }
        setMeta(database, "schema_version", std::to_string(version + 1));
        transaction.commit();
    }
}

} // namespace inchpeg
