// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "store/database.h"

#include <map>
#include <optional>
#include <vector>

namespace inchpeg
{

struct StudyHeader {
    StudyId id;
    std::string question;
    Method method = Method::Tension;
    std::size_t pieces = 0;
    std::size_t recorded = 0; ///< pieces with a record
    std::vector<Method> tests{};
    bool isDated = false; ///< its plan may have a day on which it starts
};

/// What is listed of a study that is in memory.
StudyHeader headerOf(const Study &study);

/// The studies of a project. All members throw StorageFailure.
class Studies
{
public:
    explicit Studies(Database &database) : m_database(database) {}

    [[nodiscard]] std::vector<StudyHeader> list();
    /// Nothing where there is no such study.
    [[nodiscard]] std::optional<Study> load(StudyId id);
    /// Questions, tests, factors and rails of all studies, in the order of list(); no pieces.
    [[nodiscard]] std::vector<Study> loadWithoutPieces();
    /// Writes what differs from before; nullptr: the study is new.
    void save(const Study &study, const Study *before);
    void remove(StudyId id);

private:
    void saveTests(const Study &study);
    void saveFactors(const Study &study);
    void saveConditions(const Study &study, const Study *before);
    void savePieces(const Study &study, const Study *studyBefore);
    void saveMarkers(const Piece &piece);
    void savePhotos(const Piece &piece);
    using ById = std::map<std::int64_t, Study *>;
    [[nodiscard]] std::vector<Study> loadHeads(std::optional<StudyId> only);
    void loadTests(const ById &studies, std::optional<StudyId> only);
    void loadFactors(const ById &studies, std::optional<StudyId> only);
    void loadConditions(const ById &studies, std::optional<StudyId> only);
    void loadMarkers(Study &study);
    void loadPhotos(Study &study);
    Database &m_database;
};

} // namespace inchpeg
