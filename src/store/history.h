// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/logbook/change_log.h"
#include "store/database.h"

#include <functional>
#include <vector>

namespace inchpeg
{

/// A change with the study it belongs to, as it is kept.
struct KeptChange {
    std::int64_t id = 0;
    StudyId study;
    LoggedChange change;
    bool operator==(const KeptChange &) const = default;
};

/// Every change of a logged value in a project; never rewritten. All members throw StorageFailure.
class History
{
public:
    explicit History(Database &database) : m_database(database) {}

    void add(StudyId study, const std::vector<LoggedChange> &changes,
             const std::function<std::int64_t()> &takeId);
    void restore(const KeptChange &kept);
    /// Of one piece; with piece 0 those of the study itself. The oldest first.
    [[nodiscard]] std::vector<LoggedChange> of(StudyId study, PieceId piece);
    [[nodiscard]] std::vector<KeptChange> all();

private:
    void put(Query &query, const KeptChange &kept);
    Database &m_database;
};

} // namespace inchpeg
