// SPDX-License-Identifier: GPL-3.0-or-later
#include "support/wrong_content.h"

#include "store/database.h"

#include <fmt/format.h>

#include <random>
#include <vector>

namespace inchpeg::test
{

namespace
{

struct Place {
    const char *table;
    const char *column;
};

constexpr Place kPlaces[] = {{"study", "reference_id"},
                             {"study", "smallest_difference"},
                             {"study", "section_shape"},
                             {"study", "plan"},
                             {"study", "log"},
                             {"study", "question"},
                             {"study", "position"},
                             {"study_test", "method"},
                             {"study_test", "pieces_per_condition"},
                             {"study_test", "setup"},
                             {"study_factor", "name"},
                             {"study_factor", "unit"},
                             {"study_factor", "changed_per"},
                             {"study_condition", "study_id"},
                             {"study_condition", "orientation"},
                             {"study_condition", "material"},
                             {"condition_level", "level"},
                             {"piece", "condition_id"},
                             {"piece", "study_id"},
                             {"piece", "code"},
                             {"piece", "width_m"},
                             {"piece", "thickness_m"},
                             {"piece", "raw_file_id"},
                             {"piece", "column_mapping"},
                             {"piece", "test"},
                             {"piece", "log"},
                             {"piece", "recorded_with"},
                             {"piece", "left_out_reason"},
                             {"raw_file", "content"},
                             {"raw_file", "size_bytes"},
                             {"raw_file", "sha256"},
                             {"kept_reading", "reading"},
                             {"kept_reading", "outline"},
                             {"kept_reading", "inputs"},
                             {"setting", "value"},
                             {"meta", "value"},
                             {"logged_change", "study_id"},
                             {"logged_change", "piece_id"}};

constexpr const char *kValues[] = {
    "-1",     "0",       "1",    "999999", "9223372036854775807", "-0.5",   "1e308",   "9e999",
    "''",     "'x'",     "'{}'", "'[]'",   "'{\"tests\":7}'",     "'null'", "'creep'", "'tension'",
    "'flat'", "x'00ff'", "NULL"};

} // namespace

std::string damageContent(const std::string &projectPath, std::uint64_t seed)
{
    std::mt19937_64 random(seed);
    const auto upTo = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Database database(projectPath, Database::Access::ReadWrite);
    database.execute(QStringLiteral("PRAGMA foreign_keys = OFF"));
    std::string done;
    for (std::size_t i = 0, times = 1 + upTo(3); i < times; ++i) {
        const Place &place = kPlaces[upTo(std::size(kPlaces))];
        std::string value = kValues[upTo(std::size(kValues))];
        const std::string column = place.column;
        switch (upTo(5)) {
        case 0: // what stands there, cut short
            value = fmt::format("substr({0}, 1, length({0}) / 2)", column);
            break;
        case 1: // that of another row
            value = fmt::format("(SELECT {} FROM {} ORDER BY random() LIMIT 1)", column, place.table);
            break;
        case 2: // with other digits in it
            value = fmt::format("replace({}, '{}', '{}')", column, upTo(10), upTo(100));
            break;
        default:
            break;
        }
        const std::string sql =
            fmt::format("UPDATE OR IGNORE {0} SET {1} = {2} WHERE rowid IN (SELECT rowid FROM {0} LIMIT {3} "
                        "OFFSET {4})",
                        place.table, column, value, 1 + upTo(3), upTo(6));
        try {
            database.execute(QString::fromStdString(sql));
            done += sql + "; ";
        } catch (const StorageFailure &) { // a column that may not be null: nothing was done
        }
    }
    return done;
}

} // namespace inchpeg::test
