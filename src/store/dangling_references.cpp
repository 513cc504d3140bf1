// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/dangling_references.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

struct Reference {
    const char *table;
    const char *column;
    const char *to; ///< table, by its id
    const char *what;
};

constexpr Reference kReferences[] = {
    {"study_test", "study_id", "study", "a test"},
    {"study_factor", "study_id", "study", "a factor"},
    {"study_condition", "study_id", "study", "a rail"},
    {"condition_level", "condition_id", "study_condition", "a level"},
    {"piece", "study_id", "study", "a piece"},
    {"piece", "condition_id", "study_condition", "a piece"},
    {"piece", "raw_file_id", "raw_file", "a piece"},
    {"hand_marker", "piece_id", "piece", "a marker"},
    {"kept_reading", "piece_id", "piece", "a kept reading"},
    {"photo", "piece_id", "piece", "a photo"},
    {"photo", "raw_file_id", "raw_file", "a photo"},
    {"logged_change", "study_id", "study", "a change in the history"},
};

std::string nameOf(std::string_view table)
{
    return std::string(table == "study_condition" ? "rail" : table == "raw_file" ? "raw file" : table);
}

} // namespace

std::vector<std::string> danglingReferences(Database &database)
{
    std::vector<std::string> found;
    for (const Reference &reference : kReferences) {
        const std::string sql = fmt::format(
            "SELECT {1}, COUNT(*) FROM {0} WHERE {1} IS NOT NULL AND {1} NOT IN (SELECT id FROM {2}) "
            "GROUP BY {1} ORDER BY {1}",
            reference.table, reference.column, reference.to);
        Query query(database, sql.c_str());
        query.run();
        while (query.next())
            found.push_back(fmt::format("{} refers to the {} {}, which is not there ({} of them)",
                                        reference.what, nameOf(reference.to), query.integer(0),
                                        query.integer(1)));
    }
    return found;
}

} // namespace inchpeg
