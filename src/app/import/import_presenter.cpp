// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/import/import_presenter.h"

#include "app/session/local_day.h"
#include "core/text/letters.h"
#include "disk/file_bytes.h"
#include "service/on_all_cores.h"

#include <QPointer>

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <iterator>
#include <set>

namespace inchpeg::app
{

namespace
{

/// A file that cannot be understood in a way that nobody thought of is one that cannot be read; the others of
/// the list are.
std::vector<ImportFile> loaded(const std::string &path, const Reduction &wanted)
{
    try {
        enterTask("loading");
        return specimensIn(loadImportFile(path, wanted));
    } catch (...) {
        ImportFile file;
        file.path = path;
        file.name = fileNameOf(path);
        file.nameForPeg = file.name;
        file.reduction = &wanted;
        file.problem = taskFailure(std::current_exception());
        return {file};
    }
}

std::vector<ImportFile> loadedAll(const std::vector<std::string> &paths, const Reduction &wanted,
                                  const TaskControl &control)
{
    std::vector<std::vector<ImportFile>> found(paths.size());
    std::atomic<int> done = 0;
    onAllCores(paths.size(), [&](std::size_t i) {
        if (control.stop.stop_requested())
            return;
        found[i] = loaded(paths[i], wanted);
        control.progress(++done, static_cast<int>(paths.size()));
    });
    std::vector<ImportFile> files;
    for (std::vector<ImportFile> &some : found)
        std::move(some.begin(), some.end(), std::back_inserter(files));
    return files;
}

} // namespace

ImportPresenter::ImportPresenter(ProjectSession &session, QObject *parent)
    : QObject(parent), m_session(session)
{
    connect(&session, &ProjectSession::projectChanged, this, [this] {
        m_bringingIn = false;
        clear();
    });
    connect(&session.rawIntake(), &RawIntake::progressed, this, [this](int done, int all) {
        if (m_bringingIn)
            emit progressed(done, all);
    });
    m_loading.onProgress([this](int done, int all) { emit progressed(done, all); });
}

std::optional<Method> ImportPresenter::test() const
{
    const Study *study = m_session.study();
    if (study == nullptr)
        return std::nullopt;
    return m_test && findTest(*study, *m_test) != nullptr ? *m_test : methodOf(*study);
}

void ImportPresenter::setTest(const std::optional<Method> &test)
{
    if (m_test == test)
        return;
    m_test = test;
    QStringList paths;
    for (const Entry &entry : m_entries)
        paths << QString::fromStdString(entry.file.path);
    clear();
    addPaths(paths);
}

const Reduction *ImportPresenter::reduction() const
{
    const std::optional<Method> wanted = test();
    return wanted ? reductionOf(*wanted) : nullptr;
}

void ImportPresenter::addPaths(const QStringList &paths)
{
    cancelLoading();
    if (paths.isEmpty())
        return;
    const Reduction *wanted = reduction();
    if (wanted == nullptr) {
        if (const std::optional<Method> unread = test())
            m_session.tell(
                invalidArgument(fmt::format("records of {} cannot be read yet", methodName(*unread))));
        return;
    }
    std::vector<std::string> files;
    for (const QString &path : paths) {
        const Result<std::vector<std::string>> found = filesAt(path.toStdString());
        if (!m_session.tell(found ? ok() : Status(found.error())))
            continue;
        for (const std::string &file : *found) {
            const bool listed = std::any_of(m_entries.begin(), m_entries.end(),
                                            [&](const Entry &entry) { return entry.file.path == file; });
            if (!listed)
                files.push_back(file);
        }
        if (found->empty())
            m_session.tell(invalidArgument(fmt::format("{}: the folder holds no file", path.toStdString())));
    }
    if (files.empty())
        return;
    // What a test makes fail is one file: "loading" in loaded().
    m_loading.begin(
        "files", [files, wanted](const TaskControl &control) { return loadedAll(files, *wanted, control); },
        [this](Result<std::vector<ImportFile>> loaded) {
            m_session.tell(loaded ? ok() : Status(loaded.error()));
            takeLoaded(loaded ? std::move(*loaded) : std::vector<ImportFile>());
        });
    emit loadingChanged();
}

void ImportPresenter::takeLoaded(std::vector<ImportFile> files)
{
    for (ImportFile &file : files) {
        Entry entry{std::move(file), {}, {}, How::Nobody, {}};
        if (entry.file.found) {
            const Result<ColumnMapping> remembered =
                m_session.project().rememberedMapping(layoutSignature(*entry.file.found));
            if (remembered && !remembered->empty())
                readWithMapping(entry.file, *remembered);
            if (remembered && remembered->table && entry.file.problem)
                readWithMapping(entry.file, {}); // the table is not there
        }
        m_entries.push_back(std::move(entry));
    }
    std::stable_sort(m_entries.begin(), m_entries.end(), [](const Entry &a, const Entry &b) {
        return naturallyBefore(a.file.name, b.file.name);
    });
    noticeKnownFiles();
    matchByUsualPatterns();
    emit loadingChanged();
    emit changed();
}

void ImportPresenter::cancelLoading()
{
    if (!m_loading.isRunning())
        return;
    m_loading.forget();
    emit loadingChanged();
}

void ImportPresenter::clear()
{
    cancelLoading();
    m_entries.clear();
    m_pattern.clear();
    emit changed();
}

void ImportPresenter::noticeKnownFiles()
{
    std::map<std::string, const ImportFile *> seen;
    for (Entry &entry : m_entries) {
        entry.knownAs.clear();
        if (entry.file.sha256.empty())
            continue;
        const auto [known, isNew] = seen.emplace(entry.file.sha256, &entry.file);
        if (!isNew && known->second->path != entry.file.path) // not another specimen of the same file
            entry.knownAs =
                tr("the same bytes as %1 in this list").arg(QString::fromStdString(known->second->name));
        const Result<std::optional<RawFileInfo>> stored = m_session.project().findRawFile(entry.file.sha256);
        if (stored && stored->has_value())
            entry.knownAs = tr("already in this project as %1, since %2")
                                .arg(QString::fromStdString((*stored)->name), localDay((*stored)->addedAt));
    }
}

/// Names of the files that may be given a peg without a person's word: readable, and not known already.
std::vector<std::string> ImportPresenter::matchableNames(std::vector<std::size_t> &indices) const
{
    std::vector<std::string> names;
    for (std::size_t i = 0; i < m_entries.size(); ++i) {
        if (m_entries[i].file.problem || !m_entries[i].knownAs.isEmpty() || !m_entries[i].file.codes.empty())
            continue; // a table with codes is dealt by them
        indices.push_back(i);
        names.push_back(m_entries[i].file.nameForPeg);
    }
    return names;
}

void ImportPresenter::applyMatches(const std::vector<std::size_t> &indices, const FileMatches &matches,
                                   How how)
{
    for (Entry &entry : m_entries) {
        entry.piece.reset();
        entry.how = How::Nobody;
        dealRows(entry);
    }
    for (std::size_t k = 0; k < indices.size(); ++k) {
        m_entries[indices[k]].piece = matches[k];
        m_entries[indices[k]].how = matches[k] ? how : How::Nobody;
    }
}

/// The rows of a table go to the pegs that their codes name; those that have a record keep it.
void ImportPresenter::dealRows(Entry &entry) const
{
    entry.dealt.clear();
    const Study *study = m_session.study();
    if (study == nullptr || entry.file.problem || !entry.knownAs.isEmpty())
        return;
    for (const Piece &piece : study->pieces) {
        const bool named =
            std::any_of(entry.file.codes.begin(), entry.file.codes.end(), [&](const std::string &code) {
                return smallLetters(code) == smallLetters(piece.code);
            });
        if (named && piece.test == test() && !piece.recording)
            entry.dealt.push_back(piece.id);
    }
}

void ImportPresenter::matchByUsualPatterns()
{
    std::vector<std::size_t> indices;
    const std::vector<std::string> names = matchableNames(indices);
    const auto best =
        m_session.study() != nullptr ? bestNameMatching(*m_session.study(), names, m_test) : std::nullopt;
    m_pattern = best ? QString::fromStdString(best->pattern) : QString();
    applyMatches(indices, best ? best->matches : FileMatches(names.size()), How::Name);
}

void ImportPresenter::matchByPattern(const QString &pattern)
{
    if (m_session.study() == nullptr)
        return;
    std::vector<std::size_t> indices;
    const Result<FileMatches> matches =
        matchByName(*m_session.study(), matchableNames(indices), pattern.toStdString(), m_test);
    if (!m_session.tell(matches ? ok() : Status(matches.error())))
        return;
    m_pattern = pattern;
    applyMatches(indices, *matches, How::Name);
    emit changed();
}

void ImportPresenter::matchInOrder()
{
    if (m_session.study() == nullptr)
        return;
    std::vector<std::size_t> indices;
    const std::vector<std::string> names = matchableNames(indices);
    applyMatches(indices, matchByOrder(*m_session.study(), names, m_test), How::Order);
    emit changed();
}

void ImportPresenter::unmatchAll()
{
    applyMatches({}, {}, How::Nobody);
    emit changed();
}

void ImportPresenter::assign(std::size_t index, std::optional<PieceId> piece)
{
    require(index < m_entries.size(), "there is no such file in the list");
    const Piece *wanted =
        piece && m_session.study() != nullptr ? findPiece(*m_session.study(), *piece) : nullptr;
    if (wanted != nullptr && wanted->recording) {
        m_session.tell(invalidArgument(
            fmt::format("piece {} has a record already; take it off in the Read lens first", wanted->code)));
        return;
    }
    for (Entry &entry : m_entries) {
        if (piece && entry.piece == piece) {
            entry.piece.reset();
            entry.how = How::Nobody;
        }
    }
    m_entries[index].piece = piece;
    m_entries[index].how = piece ? How::Hand : How::Nobody;
    emit changed();
}

void ImportPresenter::setMapping(std::size_t index, const ColumnMapping &mapping)
{
    require(index < m_entries.size() && m_entries[index].file.found, "a file without columns has no mapping");
    const std::string signature = layoutSignature(*m_entries[index].file.found);
    for (Entry &entry : m_entries) {
        if (entry.file.found && layoutSignature(*entry.file.found) == signature)
            readWithMapping(entry.file, mapping);
    }
    emit changed();
}

void ImportPresenter::setTable(std::size_t index, std::optional<std::size_t> table)
{
    setMapping(index, {table, {}});
}

QString ImportPresenter::tableText(const ImportFile &file, std::size_t index)
{
    const FileTable &table = file.tables.at(index);
    QStringList headings;
    for (const std::string &heading : table.headings)
        headings << QString::fromStdString(heading);
    if (!table.specimen.empty())
        return tr("specimen %1, line %2").arg(QString::fromStdString(table.specimen)).arg(table.line);
    const QString where = table.sheet.empty() ? tr("table %1, line %2").arg(index + 1).arg(table.line)
                                              : QString::fromStdString(table.sheet);
    return where + QStringLiteral(": ") + headings.join(QStringLiteral(", "));
}

bool ImportPresenter::canBringIn(const Entry &entry) const
{
    return !entry.file.problem && (entry.piece.has_value() || !entry.dealt.empty());
}

std::size_t ImportPresenter::readyCount() const
{
    return static_cast<std::size_t>(std::count_if(m_entries.begin(), m_entries.end(),
                                                  [this](const Entry &entry) { return canBringIn(entry); }));
}

QString ImportPresenter::stateText(const Entry &entry) const
{
    if (entry.file.problem)
        return QString::fromStdString(errorSentence(*entry.file.problem));
    QString text = entry.file.reduction->columns.empty()
                       ? tr("%1 rows").arg(entry.file.rows)
                       : tr("%1 rows, up to %2")
                             .arg(entry.file.rows)
                             .arg(QString::fromStdString(
                                 m_session.notation().quantity(entry.file.largest, entry.file.largestOf, 4)));
    if (!entry.file.mapping.columns.empty() || (entry.file.mapping.table && !entry.file.specimen))
        text += tr("; columns as you set them");
    if (!entry.knownAs.isEmpty())
        text += QStringLiteral("; ") + entry.knownAs;
    if (!entry.file.warnings.empty())
        text += QStringLiteral("; ") + QString::fromStdString(entry.file.warnings.front());
    return text;
}

bool ImportPresenter::isAsked(const ImportFile &file)
{
    if (!file.problem || !file.layout)
        return false;
    const auto isOpen = [](const Column &column) { return !column.question.empty(); };
    return !file.layout->question.empty() || !file.layout->doubt.empty() ||
           std::any_of(file.layout->columns.begin(), file.layout->columns.end(), isOpen);
}

QString ImportPresenter::placeText(const Entry &entry) const
{
    const Piece *piece =
        entry.piece && m_session.study() != nullptr ? findPiece(*m_session.study(), *entry.piece) : nullptr;
    if (piece == nullptr)
        return entry.dealt.empty() ? QString() : tr("%1 pegs by code").arg(entry.dealt.size());
    const QString code = QString::fromStdString(piece->code);
    switch (entry.how) {
    case How::Name:
        return tr("%1 by name").arg(code);
    case How::Order:
        return tr("%1 by order").arg(code);
    default:
        return tr("%1 by hand").arg(code);
    }
}

QString ImportPresenter::summary() const
{
    if (m_entries.empty())
        return tr("No files yet: choose some, or drop files or a folder anywhere on this window.");
    const auto bad = std::count_if(m_entries.begin(), m_entries.end(),
                                   [](const Entry &entry) { return entry.file.problem.has_value(); });
    const auto open =
        static_cast<std::ptrdiff_t>(m_entries.size()) - bad - static_cast<std::ptrdiff_t>(readyCount());
    QString text = tr("%1 files: %2 ready").arg(m_entries.size()).arg(readyCount());
    if (open > 0)
        text += tr(", %1 without a peg").arg(open);
    if (bad > 0)
        text += tr(", %1 that cannot be read").arg(bad);
    return text;
}

void ImportPresenter::bringIn()
{
    if (isBusy())
        return;
    std::vector<RawFileToKeep> files;
    std::vector<Ready> ready;
    for (const Entry &entry : m_entries) {
        if (!canBringIn(entry))
            continue;
        files.push_back({{}, fileNameOf(entry.file.path), {}, entry.file.bytes});
        const bool isToRemember =
            entry.file.specimen ? !entry.file.mapping.columns.empty() : !entry.file.mapping.empty();
        ready.push_back({entry.file.path, entry.file.specimen,
                         entry.piece ? std::vector<PieceId>{*entry.piece} : entry.dealt, entry.file.mapping,
                         isToRemember ? layoutSignature(*entry.file.found) : std::string()});
    }
    if (files.empty())
        return;
    m_bringingIn = m_session.tell(m_session.keepRawFiles(
        std::move(files), [self = QPointer(this), study = m_session.study()->id, ready](const auto &kept) {
            if (self != nullptr)
                self->linkKept(study, ready, kept);
        }));
    emit loadingChanged();
}

void ImportPresenter::cancelBringingIn()
{
    if (m_bringingIn)
        m_session.rawIntake().cancel();
}

/// Links the files that are kept by now, whatever study the person has gone to meanwhile.
void ImportPresenter::linkKept(StudyId study, const std::vector<Ready> &ready, const KeptRawFiles &kept)
{
    m_bringingIn = false;
    emit loadingChanged();
    m_session.tell(kept.status);
    const std::size_t count = kept.ids.size();
    if (count == 0 || !m_session.tell(rememberMappings(ready, count)))
        return;
    std::map<PieceId, Recording> recordings;
    std::set<std::pair<std::string, std::optional<std::size_t>>> done;
    for (std::size_t i = 0; i < count; ++i) {
        for (PieceId piece : ready[i].pieces)
            recordings[piece] = Recording{kept.ids[i], ready[i].mapping, {}};
        done.emplace(ready[i].path, ready[i].specimen);
    }
    const QString step = tr("bring in %1 records").arg(recordings.size());
    const bool linked = m_session.tell(m_session.editStudy(study, step, [&](Study &changed) -> Status {
        for (const auto &[id, recording] : recordings) {
            Piece *piece = findPiece(changed, id);
            if (piece == nullptr)
                return invalidArgument("a piece was taken away while its file came in; give the file to "
                                       "another peg and bring it in again");
            Recording recorded = recording;
            recorded.gauge = m_session.rigToday(changed, piece->test);
            setRecording(*piece, std::move(recorded));
        }
        return ok();
    }));
    if (!linked)
        return;
    std::erase_if(m_entries, [&](const Entry &entry) {
        return done.contains({entry.file.path, entry.file.specimen});
    });
    emit changed();
    emit broughtIn(recordings.size());
}

Status ImportPresenter::rememberMappings(const std::vector<Ready> &ready, std::size_t count)
{
    std::set<std::string> done;
    for (std::size_t i = 0; i < count; ++i) {
        if (ready[i].layout.empty() || !done.insert(ready[i].layout).second)
            continue;
        ColumnMapping mapping = ready[i].mapping;
        if (ready[i].specimen)
            mapping.table.reset(); // which specimen it is holds for this file alone
        if (const Status kept = m_session.project().rememberMapping(ready[i].layout, mapping); !kept)
            return kept;
    }
    return ok();
}

} // namespace inchpeg::app
