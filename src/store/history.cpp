// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/history.h"

namespace inchpeg
{

namespace
{

QVariant idVariant(std::int64_t id)
{
    return QVariant(qint64{id});
}

LoggedChange changeFrom(const Query &row)
{
    return {PieceId{row.integer(0)}, row.text(1), row.text(2), row.text(3), row.text(4), row.text(5)};
}

constexpr const char *kColumns =
    "COALESCE(piece_id, 0), what, value_before, value_after, changed_by, changed_at";

constexpr const char *kInsert = "INSERT INTO logged_change (id, study_id, piece_id, what, value_before, "
                                "value_after, changed_by, changed_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)";

} // namespace

void History::put(Query &query, const KeptChange &kept)
{
    const LoggedChange &change = kept.change;
    query.bind(idVariant(kept.id))
        .bind(idVariant(kept.study.value))
        .bind(change.piece.value != 0 ? idVariant(change.piece.value)
                                      : QVariant(QMetaType::fromType<qint64>()))
        .bind(change.what)
        .bind(change.before)
        .bind(change.after)
        .bind(change.who)
        .bind(change.when)
        .run();
}

void History::add(StudyId study, const std::vector<LoggedChange> &changes,
                  const std::function<std::int64_t()> &takeId)
{
    if (changes.empty())
        return;
    Query query(m_database, kInsert);
    for (const LoggedChange &change : changes)
        put(query, {takeId(), study, change});
}

void History::restore(const KeptChange &kept)
{
    Query query(m_database, kInsert);
    put(query, kept);
}

std::vector<LoggedChange> History::of(StudyId study, PieceId piece)
{
    const std::string sql =
        std::string("SELECT ") + kColumns +
        " FROM logged_change WHERE study_id = ? AND COALESCE(piece_id, 0) = ? ORDER BY id";
    Query query(m_database, sql.c_str());
    query.bind(idVariant(study.value)).bind(idVariant(piece.value)).run();
    std::vector<LoggedChange> changes;
    while (query.next())
        changes.push_back(changeFrom(query));
    return changes;
}

std::vector<KeptChange> History::all()
{
    const std::string sql =
        std::string("SELECT ") + kColumns + ", study_id, id FROM logged_change ORDER BY id";
    Query query(m_database, sql.c_str());
    query.run();
    std::vector<KeptChange> changes;
    while (query.next())
        changes.push_back({query.integer(7), StudyId{query.integer(6)}, changeFrom(query)});
    return changes;
}

} // namespace inchpeg
