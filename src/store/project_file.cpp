// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/project_file.h"

#include "core/model/study_check.h"
#include "disk/disk.h"
#include "store/dangling_references.h"
#include "store/schema.h"
#include "store/sql_dialect.h"

#include <QDateTime>
#include <QFile>
#include <QFileInfo>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr std::string_view kMagic{"SQLite format 3\0", 16};
constexpr std::size_t kHeaderBytes = 100;
// Offsets in the header of an SQLite file (https://sqlite.org/fileformat.html, section 1.3); big endian.
constexpr std::size_t kPageSizeAt = 16;
constexpr std::size_t kPageCountAt = 28;

std::uint32_t bigEndian(const QByteArray &bytes, std::size_t at, std::size_t length)
{
    std::uint32_t value = 0;
    for (std::size_t i = 0; i < length; ++i)
        value = value << 8U | static_cast<unsigned char>(bytes[static_cast<qsizetype>(at + i)]);
    return value;
}

Error refused(const std::string &path, const std::string &why)
{
    return Error{ErrorCode::Storage, path + ": " + why, {}};
}

/// A log that waits beside the file may hold what the file is short of: a program died, or the disk ran full,
/// while the log was folded in, and the first page tells the new size already.
bool hasLog(const std::string &path)
{
    return QFileInfo(QString::fromStdString(path) + QStringLiteral("-wal")).size() > 0;
}

std::string cutShort(std::int64_t size, std::int64_t wanted)
{
    return fmt::format(
        "is cut short: {} of {} bytes are there; it was not changed. Restore a copy from your backup", size,
        wanted);
}

/// Looks at the bytes before any database code touches the file. Yields whether it is shorter than it tells,
/// with a log that may hold the rest.
Result<bool> looksLikeProject(const std::string &path)
{
    if (const auto file = identityOf(path); file && Database::isOpenHere(*file))
        return false; // it was looked at; another look would let go of its locks
    const QFileInfo info(QString::fromStdString(path));
    if (!info.exists())
        return Error{ErrorCode::NotFound,
                     fmt::format("{}: there is no such project; make one with New project", path),
                     {}};
    if (info.isDir())
        return refused(path, "is a folder; a project file is wanted");
    QFile file(info.filePath());
    if (!file.open(QIODevice::ReadOnly))
        return refused(path, "cannot be read: " + file.errorString().toStdString());
    const QByteArray header = file.read(static_cast<qint64>(kHeaderBytes));
    if (header.isEmpty())
        return refused(path, "is empty; it holds no project");
    const QByteArray magic(kMagic.data(), static_cast<qsizetype>(kMagic.size()));
    if (!header.startsWith(magic.first(std::min(magic.size(), header.size()))))
        return refused(path, "is not an Inch Peg project; it was not changed");
    if (header.size() < static_cast<qsizetype>(kHeaderBytes))
        return refused(path, "is cut short: its header is not whole. Restore a copy from your backup");
    const std::uint32_t pageSize =
        bigEndian(header, kPageSizeAt, 2) == 1 ? 65536 : bigEndian(header, kPageSizeAt, 2);
    const std::int64_t wanted = static_cast<std::int64_t>(bigEndian(header, kPageCountAt, 4)) * pageSize;
    const bool isShort = info.size() < wanted;
    if (isShort && !hasLog(path))
        return refused(path, cutShort(info.size(), wanted));
    return isShort;
}

template <typename T>
T orThrow(Result<T> result)
{
    if (!result)
        throw StorageFailure(result.error().message);
    return std::move(*result);
}

std::string notToBeOpened(const std::string &question, const std::string &why)
{
    return fmt::format("the study \"{}\" is damaged: {}. It cannot be opened; the other studies and all raw "
                       "records can. A copy of the project from before has it whole",
                       question, why);
}

std::string metaText(Database &database, const char *name)
{
    Query query(database, "SELECT value FROM meta WHERE name = ?");
    query.bind(QVariant(QString::fromLatin1(name))).run();
    return query.next() ? query.text(0) : std::string();
}

void removeWithLogs(const std::string &path)
{
    for (const char *suffix : {"", "-wal", "-shm"})
        [[maybe_unused]] const Status removed = removeFile(path + suffix);
}

std::map<std::string, std::string> textMap(Database &database, const char *sql)
{
    Query query(database, sql);
    query.run();
    std::map<std::string, std::string> map;
    while (query.next())
        map[query.text(0)] = query.text(1);
    return map;
}

/// Of a file that was shorter than it tells: whether its log has the rest. Throws StorageFailure.
void requireWhole(Database &database)
{
    Query query(database, integrityStatement().toUtf8().constData());
    query.run();
    if (!query.next() || query.text(0) != "ok")
        throw StorageFailure(fmt::format("{}: is cut short, and the log beside it does not hold the rest. "
                                         "Restore a copy from your backup",
                                         database.path()));
}

std::int64_t countOf(Database &database, const char *sql)
{
    Query query(database, sql);
    query.run();
    return query.next() ? query.integer(0) : 0;
}

std::int64_t largestId(Database &database)
{
    return countOf(database, "SELECT MAX(id) FROM (SELECT MAX(id) AS id FROM study UNION ALL "
                             "SELECT MAX(id) FROM study_condition UNION ALL SELECT MAX(id) FROM piece "
                             "UNION ALL SELECT MAX(id) FROM raw_file UNION ALL "
                             "SELECT MAX(id) FROM logged_change) AS ids");
}

} // namespace

struct ProjectFile::Parts {
    Parts(const std::string &path, Database::Access wanted)
        : access(wanted), database(path, wanted), file(identityOf(path))
    {
    }

    /// The database would go on writing to a file that was moved, replaced, or whose folder went away, and
    /// all of that would be lost. Throws StorageFailure.
    void requireInPlace() const
    {
        if (!file || identityOf(database.path()) != file)
            throw StorageFailure(
                fmt::format("{}: is no longer in its place; is the drive or the network folder "
                            "still there? Nothing was saved by this. Bring it back, or open the "
                            "project where it is now",
                            database.path()));
    }

    Database::Access access;
    Database database;
    Studies studies{database};
    RawFiles rawFiles{database};
    History history{database};
    std::optional<FileIdentity> file;
    std::int64_t nextId = 1;
};

ProjectFile::ProjectFile(std::unique_ptr<Parts> parts) : m_parts(std::move(parts)) {}
ProjectFile::ProjectFile(ProjectFile &&) noexcept = default;
ProjectFile &ProjectFile::operator=(ProjectFile &&) noexcept = default;
ProjectFile::~ProjectFile() = default;

Result<ProjectFile> ProjectFile::create(const std::string &wanted)
{
    const std::string path = truePath(wanted);
    const QString name = QString::fromStdString(path);
    if (QFileInfo::exists(name))
        return refused(path, "exists already; choose another name or open it");
    return guarded([&] {
        try {
            auto parts = std::make_unique<Parts>(path, Database::Access::ReadWrite);
            migrate(parts->database);
            return ProjectFile(std::move(parts));
        } catch (const StorageFailure &) {
            removeWithLogs(path);
            throw;
        }
    });
}

Result<ProjectFile> ProjectFile::open(const std::string &wanted)
{
    const std::string path = truePath(wanted);
    const Result<bool> isShort = looksLikeProject(path);
    if (!isShort)
        return isShort.error();
    return guarded([&] {
        {
            Database looked(path, Database::Access::ReadOnly);
            if (*isShort)
                requireWhole(looked);
            if (schemaVersion(looked) == 0)
                throw StorageFailure(path +
                                     ": is an empty database, not an Inch Peg project; it was not changed");
        }
        auto parts = std::make_unique<Parts>(path, Database::Access::ReadWrite);
        migrate(parts->database);
        ProjectFile project(std::move(parts));
        project.readNextId();
        return project;
    });
}

Result<ProjectFile> ProjectFile::openForReading(const std::string &wanted)
{
    const std::string path = truePath(wanted);
    const Result<bool> isShort = looksLikeProject(path);
    if (!isShort)
        return isShort.error();
    return guarded([&] {
        auto parts = std::make_unique<Parts>(path, Database::Access::ReadOnly);
        if (*isShort)
            requireWhole(parts->database);
        const int version = schemaVersion(parts->database);
        if (version == 0)
            throw StorageFailure(path + ": is an empty database, not an Inch Peg project");
        if (version < kSchemaVersion)
            throw StorageFailure(
                fmt::format("{}: is of an older format ({}), which is brought up to date when it "
                            "is opened for writing; copy it to a folder of your own and open "
                            "it there",
                            path, version));
        ProjectFile project(std::move(parts));
        project.readNextId();
        return project;
    });
}

Result<ProjectFile>
ProjectFile::restore(const std::string &wanted, const ProjectContents &contents,
                     const std::function<Result<std::string>(const RawFileInfo &)> &bytesOf)
{
    const std::string path = truePath(wanted);
    Result<ProjectFile> project = create(path);
    if (!project)
        return project.error();
    const auto fill = [&]() -> Status {
        Parts &parts = *project->m_parts;
        Transaction transaction(parts.database);
        for (const RawFileInfo &info : contents.rawFiles) {
            const Result<std::string> bytes = bytesOf(info);
            if (!bytes)
                return bytes.error();
            if (sha256Of(*bytes) != info.sha256)
                return badInput(fmt::format("raw file \"{}\": its bytes are not those that were exported "
                                            "(their SHA-256 differs); export again or restore a copy",
                                            info.name));
            if (static_cast<std::int64_t>(bytes->size()) != info.sizeBytes)
                return badInput(fmt::format("raw file \"{}\": it is told to hold {} bytes and holds {}; "
                                            "export again or restore a copy",
                                            info.name, info.sizeBytes, bytes->size()));
            parts.rawFiles.add(info, *bytes);
        }
        for (const Study &study : contents.studies)
            parts.studies.save(study, nullptr);
        for (const KeptChange &kept : contents.history)
            parts.history.restore(kept);
        parts.nextId = contents.nextId;
        for (const auto &[name, value] : contents.settings)
            Query(parts.database, "INSERT INTO setting (name, value) VALUES (?, ?)")
                .bind(name)
                .bind(value)
                .run();
        for (const auto &[layout, mapping] : contents.rememberedMappings)
            Query(parts.database, "INSERT INTO remembered_mapping (layout, column_mapping) VALUES (?, ?)")
                .bind(layout)
                .bind(mapping)
                .run();
        Query(parts.database, "UPDATE meta SET value = ? WHERE name = 'created_at'")
            .bind(contents.createdAt)
            .run();
        project->keepNextId();
        transaction.commit();
        return ok();
    };
    const Result<Status> filled = guarded(fill);
    const Status status = filled ? *filled : Status(filled.error());
    if (status)
        return project;
    discard(std::move(*project));
    return status.error();
}

void ProjectFile::discard(ProjectFile project)
{
    const std::string path = project.path();
    project.m_parts.reset(); // closes the file before it is removed
    removeWithLogs(path);
}

const std::string &ProjectFile::path() const
{
    return m_parts->database.path();
}

bool ProjectFile::isForReading() const
{
    return m_parts->access == Database::Access::ReadOnly;
}

void ProjectFile::readNextId()
{
    m_parts->nextId = QString::fromStdString(metaText(m_parts->database, "next_id")).toLongLong();
    if (m_parts->nextId < 1)
        throw StorageFailure(path() +
                             ": is damaged: its id counter is not readable. Restore a copy from your backup");
    // An id that is given twice would make two things one.
    m_parts->nextId = std::max(m_parts->nextId, largestId(m_parts->database) + 1);
}

std::int64_t ProjectFile::takeId()
{
    return m_parts->nextId++;
}

/// Inside a transaction: ids that were taken so far are never given again.
void ProjectFile::keepNextId()
{
    Query query(m_parts->database, "UPDATE meta SET value = ? WHERE name = 'next_id'");
    query.bind(std::to_string(m_parts->nextId)).run();
}

Result<std::vector<StudyHeader>> ProjectFile::studies()
{
    return guarded([&] { return m_parts->studies.list(); });
}

Result<Study> ProjectFile::loadStudy(StudyId id)
{
    Result<MendedStudy> loaded = loadMended(id);
    return loaded ? Result<Study>(std::move(loaded->study)) : loaded.error();
}

Result<std::vector<Study>> ProjectFile::loadStudiesWithoutPieces()
{
    return guarded([&] { return m_parts->studies.loadWithoutPieces(); });
}

Result<MendedStudy> ProjectFile::loadMended(StudyId id)
{
    Result<std::optional<Study>> study = guarded([&] { return m_parts->studies.load(id); });
    if (!study) {
        const Result<std::string> question = questionOf(id);
        const bool isNamed = question && study.error().message.find(*question) != std::string::npos;
        return isNamed || !question
                   ? study.error()
                   : Error{ErrorCode::Storage, notToBeOpened(*question, study.error().message), {}};
    }
    if (!study->has_value())
        return Error{
            ErrorCode::NotFound, fmt::format("{}: study {} is not in the project", path(), id.value), {}};
    MendedStudy mended{std::move(**study), {}};
    mended.mended = mendStudy(mended.study);
    if (const StudyFindings findings = checkStudy(mended.study); !findings.broken.empty())
        return Error{ErrorCode::Storage, notToBeOpened(mended.study.question, findings.broken.front()), {}};
    return mended;
}

Result<std::string> ProjectFile::questionOf(StudyId id)
{
    return guarded([&] {
        Query query(m_parts->database, "SELECT question FROM study WHERE id = ?");
        query.bind(QVariant(qint64{id.value})).run();
        return query.next() ? query.text(0) : std::string();
    });
}

Status ProjectFile::save(const StudyChange &change)
{
    require(change.before.has_value() || change.after.has_value(), "a change of nothing");
    return guarded([&] {
        m_parts->requireInPlace();
        Transaction transaction(m_parts->database);
        if (change.after)
            m_parts->studies.save(*change.after, change.before ? &*change.before : nullptr);
        else
            m_parts->studies.remove(change.before->id);
        if (change.after)
            m_parts->history.add(change.after->id, change.history, [this] { return takeId(); });
        keepNextId();
        transaction.commit();
        return std::monostate{};
    });
}

Status ProjectFile::together(const std::function<Status()> &work)
{
    const Result<Status> done = guarded([&]() -> Status {
        m_parts->requireInPlace();
        Transaction transaction(m_parts->database);
        if (const Status status = work(); !status)
            return status;
        transaction.commit();
        return ok();
    });
    return done ? *done : Status(done.error());
}

Result<std::vector<LoggedChange>> ProjectFile::history(StudyId study, PieceId piece)
{
    return guarded([&] { return m_parts->history.of(study, piece); });
}

Result<std::vector<FoundItem>> ProjectFile::search(const std::string &text, std::size_t most)
{
    return guarded([&] { return inchpeg::search(m_parts->database, text, most); });
}

Result<StudyId> ProjectFile::studyOf(PieceId piece)
{
    Result<StudyId> study = guarded([&] { return studyOfPiece(m_parts->database, piece); });
    if (study && study->value == 0)
        return Error{
            ErrorCode::NotFound, fmt::format("{}: piece {} is not in the project", path(), piece.value), {}};
    return study;
}

Status ProjectFile::checkInPlace()
{
    return guarded([&] {
        m_parts->requireInPlace();
        return std::monostate{};
    });
}

Result<AddedRawFile> ProjectFile::addRawFile(const std::string &name, std::string_view bytes)
{
    return guarded([&] {
        m_parts->requireInPlace();
        RawFileInfo info = newRawFile({}, name, bytes);
        if (const auto known = m_parts->rawFiles.findBySha256(info.sha256))
            return AddedRawFile{known->id, true};
        Transaction transaction(m_parts->database);
        info.id = RawFileId{takeId()};
        m_parts->rawFiles.add(info, bytes);
        keepNextId();
        transaction.commit();
        return AddedRawFile{info.id, false};
    });
}

Result<std::optional<RawFileInfo>> ProjectFile::findRawFile(const std::string &sha256)
{
    return guarded([&] { return m_parts->rawFiles.findBySha256(sha256); });
}

Result<RawFileInfo> ProjectFile::rawFileInfo(RawFileId id)
{
    const auto found = guarded([&] { return m_parts->rawFiles.find(id); });
    if (!found)
        return found.error();
    if (!found->has_value())
        return Error{
            ErrorCode::NotFound, fmt::format("{}: raw file {} is not in the project", path(), id.value), {}};
    return **found;
}

Result<std::string> ProjectFile::rawBytes(RawFileId id)
{
    return guarded([&] { return m_parts->rawFiles.bytes(id); });
}

Result<std::optional<std::string>> ProjectFile::setting(const std::string &name)
{
    return guarded([&] {
        Query query(m_parts->database, "SELECT value FROM setting WHERE name = ?");
        query.bind(name).run();
        return query.next() ? std::optional(query.text(0)) : std::nullopt;
    });
}

Status ProjectFile::setSetting(const std::string &name, const std::string &value)
{
    return guarded([&] {
        m_parts->requireInPlace();
        Transaction transaction(m_parts->database);
        Query query(m_parts->database, "INSERT INTO setting (name, value) VALUES (?, ?) "
                                       "ON CONFLICT (name) DO UPDATE SET value = excluded.value");
        query.bind(name).bind(value).run();
        transaction.commit();
        return std::monostate{};
    });
}

Result<ColumnMapping> ProjectFile::rememberedMapping(const std::string &layout)
{
    const Result<std::string> text = guarded([&] {
        Query query(m_parts->database, "SELECT column_mapping FROM remembered_mapping WHERE layout = ?");
        query.bind(layout).run();
        return query.next() ? query.text(0) : std::string();
    });
    if (!text)
        return text.error();
    return mappingFromText(*text);
}

Status ProjectFile::rememberMapping(const std::string &layout, const ColumnMapping &mapping)
{
    return guarded([&] {
        m_parts->requireInPlace();
        Transaction transaction(m_parts->database);
        Query query(m_parts->database,
                    "INSERT INTO remembered_mapping (layout, column_mapping) VALUES (?, ?) "
                    "ON CONFLICT (layout) DO UPDATE SET column_mapping = excluded.column_mapping");
        query.bind(layout).bind(mappingText(mapping)).run();
        transaction.commit();
        return std::monostate{};
    });
}

Result<ProjectInfo> ProjectFile::info()
{
    return guarded([&] {
        Database &database = m_parts->database;
        ProjectInfo info;
        info.path = path();
        info.schemaVersion = schemaVersion(database);
        info.createdAt = metaText(database, "created_at");
        info.studies = static_cast<std::size_t>(countOf(database, "SELECT COUNT(*) FROM study"));
        info.pieces = static_cast<std::size_t>(countOf(database, "SELECT COUNT(*) FROM piece"));
        info.rawFiles = static_cast<std::size_t>(countOf(database, "SELECT COUNT(*) FROM raw_file"));
        info.rawBytes = countOf(database, "SELECT COALESCE(SUM(size_bytes), 0) FROM raw_file");
        return info;
    });
}

Result<ProjectContents> ProjectFile::contents()
{
    return guarded([&] {
        Database &database = m_parts->database;
        ProjectContents contents;
        contents.createdAt = metaText(database, "created_at");
        contents.nextId = QString::fromStdString(metaText(database, "next_id")).toLongLong();
        for (const StudyHeader &header : m_parts->studies.list())
            contents.studies.push_back(orThrow(loadStudy(header.id)));
        contents.rawFiles = m_parts->rawFiles.list();
        contents.settings = textMap(database, "SELECT name, value FROM setting");
        contents.rememberedMappings =
            textMap(database, "SELECT layout, column_mapping FROM remembered_mapping");
        contents.history = m_parts->history.all();
        return contents;
    });
}

Result<UnusedRawFiles> ProjectFile::unusedRawFiles()
{
    return guarded([&] {
        UnusedRawFiles unused;
        for (const RawFileInfo &info : m_parts->rawFiles.unused()) {
            ++unused.files;
            unused.bytes += info.sizeBytes;
        }
        return unused;
    });
}

Status ProjectFile::compact()
{
    return guarded([&] {
        m_parts->requireInPlace();
        {
            Transaction transaction(m_parts->database);
            m_parts->rawFiles.removeUnused();
            transaction.commit();
        }
        m_parts->database.execute(shrinkStatement());
        return std::monostate{};
    });
}

Result<ProjectCheck> ProjectFile::verify()
{
    return guarded([&] {
        ProjectCheck check;
        Query integrity(m_parts->database, integrityStatement().toUtf8().constData());
        integrity.run();
        const std::string told = integrity.next() ? integrity.text(0) : std::string("no answer");
        check.databaseOk = told == "ok";
        if (!check.databaseOk)
            check.findings.push_back("the database is damaged: " + told);
        verifyReferences(check);
        verifyStudies(check);
        verifyRawFiles(check);
        return check;
    });
}

void ProjectFile::verifyReferences(ProjectCheck &check)
{
    for (const std::string &dangling : danglingReferences(m_parts->database))
        check.findings.push_back(dangling);
    const std::int64_t next = QString::fromStdString(metaText(m_parts->database, "next_id")).toLongLong();
    const std::int64_t largest = largestId(m_parts->database);
    if (next <= largest)
        check.findings.push_back(
            fmt::format("the next id is told as {}, although {} is taken: it counts on from there when the "
                        "project is opened",
                        next, largest));
    for (const auto &[layout, mapping] :
         textMap(m_parts->database, "SELECT layout, column_mapping FROM remembered_mapping")) {
        if (const Result<ColumnMapping> read = mappingFromText(mapping); !read)
            check.findings.push_back(fmt::format("the columns remembered for files like \"{}\" cannot be "
                                                 "read: {}",
                                                 layout, read.error().message));
    }
}

void ProjectFile::verifyStudies(ProjectCheck &check)
{
    Query ids(m_parts->database, "SELECT id, question FROM study ORDER BY position, id");
    ids.run();
    std::vector<std::pair<StudyId, std::string>> studies;
    while (ids.next())
        studies.emplace_back(StudyId{ids.integer(0)}, ids.text(1));
    for (const auto &[id, question] : studies) {
        const auto tell = [&, number = id.value, &name = question](const std::string &what) {
            check.findings.push_back(fmt::format("study {} (\"{}\"): {}", number, name, what));
        };
        const Result<std::optional<Study>> study =
            guarded([&, wanted = id] { return m_parts->studies.load(wanted); });
        if (!study) {
            tell(study.error().message);
            continue;
        }
        const StudyFindings findings = checkStudy(**study);
        for (const std::string &what : findings.broken)
            tell(what);
        for (const std::string &what : findings.mendable)
            tell(what + " when it is opened");
    }
}

void ProjectFile::verifyRawFiles(ProjectCheck &check)
{
    for (const RawFileInfo &file : m_parts->rawFiles.list()) {
        ++check.rawFilesChecked;
        const auto tell = [&](std::string_view what) {
            check.findings.push_back(fmt::format("raw file {} (\"{}\"): {}", file.id.value, file.name, what));
        };
        switch (m_parts->rawFiles.stateOf(file)) {
        case RawFileState::Whole:
            break;
        case RawFileState::Changed:
            tell("its bytes are not those that were brought in");
            break;
        case RawFileState::OtherSize:
            tell("its size is told wrongly");
            break;
        }
    }
}

} // namespace inchpeg
