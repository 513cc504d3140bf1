// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"
#include "store/history.h"
#include "store/raw_files.h"
#include "store/search.h"
#include "store/studies.h"

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

struct ProjectInfo {
    std::string path;
    int schemaVersion = 0;
    std::string createdAt;
    std::size_t studies = 0;
    std::size_t pieces = 0;
    std::size_t rawFiles = 0;
    std::int64_t rawBytes = 0;
};

struct ProjectCheck {
    bool databaseOk = false;
    std::size_t rawFilesChecked = 0;
    std::vector<std::string> findings; ///< empty where all is well
};

/// Raw files that no piece refers to any more.
struct UnusedRawFiles {
    std::size_t files = 0;
    std::int64_t bytes = 0;
};

/// Everything that a project holds but the bytes of its raw files.
struct ProjectContents {
    std::string createdAt;
    std::int64_t nextId = 1;
    std::vector<Study> studies; ///< in the order of the shelf
    std::vector<RawFileInfo> rawFiles;
    std::map<std::string, std::string> settings;
    std::map<std::string, std::string> rememberedMappings; ///< by layout, as mappingText()
    std::vector<KeptChange> history{};
    bool operator==(const ProjectContents &) const = default;
};

/// A study as it was read, and what had to be put right, a sentence each.
struct MendedStudy {
    Study study;
    std::vector<std::string> mended;
};

/// What changes together: a study as it was and as it is to be.
struct StudyChange {
    std::optional<Study> before;         ///< nothing: a new study
    std::optional<Study> after;          ///< nothing: the study goes
    std::vector<LoggedChange> history{}; ///< what the change did to logged values; kept with it
};

/// A project: one file that holds studies, settings and raw data. Each command is one transaction; what has
/// returned ok is on the disk. Commands that write refuse once the file is no longer in its place. Use it
/// from the thread that opened it.
class ProjectFile
{
public:
    /// Errors: Storage, with a sentence, where the file exists already or cannot be written.
    static Result<ProjectFile> create(const std::string &path);
    /// Errors: NotFound; Storage where the file is no project, damaged, cut short, newer, or cannot be
    /// written. A file that is refused is not changed.
    static Result<ProjectFile> open(const std::string &path);
    /// Opens without writing anything, lock or no lock; every command that would write is refused.
    /// Errors: as open(), and Storage for a project of an older format, which opening for writing brings up
    /// to date first.
    static Result<ProjectFile> openForReading(const std::string &path);
    /// Makes a project of these contents; bytesOf yields what a raw file holds. Nothing is left at path where
    /// it fails.
    /// Errors: as create(); those of bytesOf; BadInput where the bytes are not those of their SHA-256.
    static Result<ProjectFile>
    restore(const std::string &path, const ProjectContents &contents,
            const std::function<Result<std::string>(const RawFileInfo &)> &bytesOf);

    /// Closes and removes a project that was made and could not be filled.
    static void discard(ProjectFile project);

    ProjectFile(ProjectFile &&) noexcept;
    ProjectFile &operator=(ProjectFile &&) noexcept;
    ~ProjectFile();

    [[nodiscard]] const std::string &path() const;
    [[nodiscard]] bool isForReading() const;
    std::int64_t takeId(); ///< never yields the same id twice in a project

    Result<std::vector<StudyHeader>> studies();
    /// As loadMended(), where nobody is told.
    Result<Study> loadStudy(StudyId id);
    /// Questions, tests, factors and rails of all studies; no pieces. Errors: Storage, where any is damaged.
    Result<std::vector<Study>> loadStudiesWithoutPieces();
    /// A study whose content fits together: what could be put right was, in memory alone.
    /// Errors: NotFound; Storage where the study is damaged.
    Result<MendedStudy> loadMended(StudyId id);
    Status save(const StudyChange &change);
    /// Several commands as one transaction: all of them, or none. work: calls them; where it fails, nothing
    /// of what they did is kept. Errors: those of work; Storage.
    Status together(const std::function<Status()> &work);

    /// The changes of a piece's logged values, or of the study's own with piece 0; the oldest first.
    Result<std::vector<LoggedChange>> history(StudyId study, PieceId piece);
    Result<std::vector<FoundItem>> search(const std::string &text, std::size_t most);
    /// Errors: NotFound where no study holds the piece.
    Result<StudyId> studyOf(PieceId piece);

    /// Errors: Storage where the file is no longer in its place.
    Status checkInPlace();
    Result<AddedRawFile> addRawFile(const std::string &name, std::string_view bytes);
    Result<std::optional<RawFileInfo>> findRawFile(const std::string &sha256);
    Result<RawFileInfo> rawFileInfo(RawFileId id);
    Result<std::string> rawBytes(RawFileId id);

    Result<std::optional<std::string>> setting(const std::string &name);
    Status setSetting(const std::string &name, const std::string &value);
    Result<ColumnMapping> rememberedMapping(const std::string &layout);
    Status rememberMapping(const std::string &layout, const ColumnMapping &mapping);

    Result<ProjectInfo> info();
    Result<ProjectContents> contents();
    Result<UnusedRawFiles> unusedRawFiles();
    /// Removes the raw files that no piece refers to and gives their room back to the disk.
    Status compact();
    /// The database's own check, every reference and every study as opening looks at them, and the SHA-256 of
    /// every raw file.
    Result<ProjectCheck> verify();

private:
    struct Parts;
    explicit ProjectFile(std::unique_ptr<Parts> parts);
    void readNextId();
    void keepNextId();
    Result<std::string> questionOf(StudyId id);
    void verifyReferences(ProjectCheck &check);
    void verifyStudies(ProjectCheck &check);
    void verifyRawFiles(ProjectCheck &check);
    std::unique_ptr<Parts> m_parts;
};

} // namespace inchpeg
