// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/search.h"

#include "core/model/rail_summary.h"
#include "core/model/study_log.h"
#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace inchpeg
{

namespace
{

/// For LIKE … ESCAPE '\': what a person types is no pattern.
std::string patternOf(const std::string &text)
{
    std::string pattern = "%";
    for (const char c : smallLetters(text)) {
        if (c == '%' || c == '_' || c == '\\')
            pattern += '\\';
        pattern += c;
    }
    return pattern + "%";
}

class Search
{
public:
    Search(Database &database, const std::string &text, std::size_t most)
        : m_database(database), m_words(smallLetters(text)), m_pattern(patternOf(text)), m_most(most)
    {
    }

    std::vector<FoundItem> find()
    {
        studies();
        rails();
        summaries();
        pieces();
        notes();
        plates();
        return std::move(m_found);
    }

private:
    /// Runs a query with the pattern bound to each mark, and the limit to the last.
    Query matching(const char *sql, int marks)
    {
        Query query(m_database, sql);
        for (int i = 0; i < marks; ++i)
            query.bind(m_pattern);
        query.bind(QVariant(static_cast<qint64>(m_most))).run();
        return query;
    }

    void studies()
    {
        Query query = matching("SELECT id, question FROM study WHERE LOWER(question) LIKE ? ESCAPE '\\' "
                               "ORDER BY position LIMIT ?",
                               1);
        while (query.next())
            m_found.push_back(
                {FoundItem::Kind::Study, StudyId{query.integer(0)}, {}, query.text(1), {}, query.text(1)});
    }

    void rails()
    {
        Query query =
            matching("SELECT s.id, s.question, c.material, MIN(l.level), "
                     "(SELECT MIN(p.id) FROM piece p WHERE p.condition_id = c.id) "
                     "FROM study_condition c JOIN study s ON s.id = c.study_id "
                     "JOIN condition_level l ON l.condition_id = c.id "
                     "WHERE LOWER(c.material) LIKE ? ESCAPE '\\' OR LOWER(l.level) LIKE ? ESCAPE '\\' "
                     "GROUP BY c.id, s.id, s.question, s.position, c.material, c.position ORDER BY "
                     "s.position, c.position LIMIT ?",
                     2);
        while (query.next())
            m_found.push_back({FoundItem::Kind::Rail, StudyId{query.integer(0)}, PieceId{query.integer(4)},
                               query.text(3), query.text(2), query.text(1)});
    }

    /// By where they come from; the keys of their text say nothing.
    void summaries()
    {
        Query query = matching(
            "SELECT s.id, s.question, c.summaries, (SELECT MIN(l.level) FROM condition_level l WHERE "
            "l.condition_id = c.id), (SELECT MIN(p.id) FROM piece p WHERE p.condition_id = c.id) "
            "FROM study_condition c JOIN study s ON s.id = c.study_id "
            "WHERE LOWER(c.summaries) LIKE ? ESCAPE '\\' ORDER BY s.position, c.position LIMIT ?",
            1);
        while (query.next()) {
            const Result<std::vector<RailSummary>> all = summariesFromText(query.text(2));
            if (!all)
                continue; // opening the study says what is wrong with it
            for (const RailSummary &summary : *all) {
                if (smallLetters(summary.source).find(m_words) != std::string::npos)
                    m_found.push_back({FoundItem::Kind::Rail, StudyId{query.integer(0)},
                                       PieceId{query.integer(4)}, query.text(3), summary.source,
                                       query.text(1)});
            }
        }
    }

    void pieces()
    {
        Query query =
            matching("SELECT s.id, p.id, p.code, s.question FROM piece p JOIN study s ON s.id = p.study_id "
                     "WHERE LOWER(p.code) LIKE ? ESCAPE '\\' ORDER BY s.position, p.position LIMIT ?",
                     1);
        while (query.next())
            m_found.push_back({FoundItem::Kind::Piece,
                               StudyId{query.integer(0)},
                               PieceId{query.integer(1)},
                               query.text(2),
                               {},
                               query.text(3)});
    }

    void notes()
    {
        Query query =
            matching("SELECT s.id, p.id, p.code, p.note, p.left_out_reason, s.question FROM piece p "
                     "JOIN study s ON s.id = p.study_id WHERE LOWER(p.note) LIKE ? ESCAPE '\\' "
                     "OR LOWER(p.left_out_reason) LIKE ? ESCAPE '\\' ORDER BY s.position, p.position LIMIT ?",
                     2);
        while (query.next()) {
            const std::string note = query.text(3);
            const bool inNote = smallLetters(note).find(m_words) != std::string::npos;
            m_found.push_back({FoundItem::Kind::Note, StudyId{query.integer(0)}, PieceId{query.integer(1)},
                               query.text(2), inNote ? note : query.text(4), query.text(5)});
        }
    }

    /// Records of plates stand in one text a study; there are few of them.
    void plates()
    {
        Query query = matching("SELECT id, question, log FROM study WHERE LOWER(log) LIKE ? ESCAPE '\\' "
                               "ORDER BY position LIMIT ?",
                               1);
        while (query.next()) {
            const Result<StudyLog> log = studyLogFromText(query.text(2));
            if (!log)
                continue; // opening the study says what is wrong with it
            for (const PlateRecord &record : log->plates)
                plate(record, StudyId{query.integer(0)}, query.text(1));
        }
    }

    void plate(const PlateRecord &record, StudyId study, const std::string &question)
    {
        std::vector<std::string> lines{record.note, record.printer, record.spool};
        for (const RealSetting &setting : record.settings)
            lines.push_back(setting.name + " " + setting.value);
        for (const PrintEvent &event : record.events)
            lines.push_back(fmt::format("{} {} {}", troubleName(event.trouble), event.what, event.done));
        for (const std::string &line : lines) {
            if (smallLetters(line).find(m_words) == std::string::npos)
                continue;
            m_found.push_back(
                {FoundItem::Kind::Plate, study, {}, fmt::format("plate {}", record.plate), line, question});
            return;
        }
    }

    Database &m_database;
    std::string m_words;
    std::string m_pattern;
    std::size_t m_most;
    std::vector<FoundItem> m_found;
};

} // namespace

std::vector<FoundItem> search(Database &database, const std::string &text, std::size_t most)
{
    return text.empty() ? std::vector<FoundItem>() : Search(database, text, most).find();
}

Result<std::vector<FoundItem>> searchProject(const std::string &path, const std::string &text,
                                             std::size_t most)
{
    return guarded([&] {
        Database database(path, Database::Access::ReadOnly);
        return search(database, text, most);
    });
}

StudyId studyOfPiece(Database &database, PieceId piece)
{
    Query query(database, "SELECT study_id FROM piece WHERE id = ?");
    query.bind(QVariant(qint64{piece.value})).run();
    return query.next() ? StudyId{query.integer(0)} : StudyId{};
}

} // namespace inchpeg
