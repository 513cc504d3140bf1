// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/intake/intake_list.h"

#include "core/model/study_edit.h"
#include "core/text/letters.h"
#include "disk/file_bytes.h"
#include "service/on_all_cores.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <iterator>
#include <utility>

namespace inchpeg
{

namespace
{

/// A file that cannot be understood in a way that nobody thought of is one that cannot be read; the others of
/// the list are.
std::vector<ImportFile> loadedRecord(const std::string &path, const Reduction &wanted)
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

} // namespace

std::vector<ImportFile> loadRecords(const std::vector<std::string> &paths, const Reduction &wanted,
                                    const TaskControl &control)
{
    std::vector<std::vector<ImportFile>> found(paths.size());
    std::atomic<int> done = 0;
    onAllCores(paths.size(), [&](std::size_t i) {
        if (control.stop.stop_requested())
            return;
        found[i] = loadedRecord(paths[i], wanted);
        if (control.progress)
            control.progress(++done, static_cast<int>(paths.size()));
    });
    std::vector<ImportFile> files;
    for (std::vector<ImportFile> &some : found)
        std::move(some.begin(), some.end(), std::back_inserter(files));
    return files;
}

bool IntakeList::holds(const std::string &path) const
{
    return std::any_of(m_entries.begin(), m_entries.end(),
                       [&](const Entry &entry) { return entry.file.path == path; });
}

void IntakeList::clear()
{
    m_entries.clear();
    m_pattern.clear();
}

void IntakeList::add(std::vector<ImportFile> files, ProjectFile &project)
{
    for (ImportFile &file : files) {
        Entry entry{std::move(file), {}, {}, How::Nobody, {}, false};
        if (entry.file.found) {
            const Result<ColumnMapping> remembered =
                project.rememberedMapping(layoutSignature(*entry.file.found));
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
    noticeKnown(project);
}

void IntakeList::noticeKnown(ProjectFile &project)
{
    std::map<std::string, const ImportFile *> seen;
    for (Entry &entry : m_entries) {
        entry.known.reset();
        if (entry.file.sha256.empty())
            continue;
        const auto [known, isNew] = seen.emplace(entry.file.sha256, &entry.file);
        if (!isNew && known->second->path != entry.file.path) // not another specimen of the same file
            entry.known = Known{known->second->name, {}};
        const Result<std::optional<RawFileInfo>> stored = project.findRawFile(entry.file.sha256);
        if (stored && stored->has_value())
            entry.known = Known{(*stored)->name, (*stored)->addedAt};
    }
}

/// Names of the files that may be given a peg without a person's word: readable, and not known already.
std::vector<std::string> IntakeList::matchableNames(std::vector<std::size_t> &indices) const
{
    std::vector<std::string> names;
    for (std::size_t i = 0; i < m_entries.size(); ++i) {
        if (m_entries[i].file.problem || m_entries[i].known || !m_entries[i].file.codes.empty())
            continue; // a table with codes is dealt by them
        indices.push_back(i);
        names.push_back(m_entries[i].file.nameForPeg);
    }
    return names;
}

void IntakeList::applyMatches(const Study &study, Method test, const std::vector<std::size_t> &indices,
                              const FileMatches &matches, How how)
{
    for (Entry &entry : m_entries) {
        entry.piece.reset();
        entry.how = How::Nobody;
        dealRows(entry, study, test);
    }
    for (std::size_t k = 0; k < indices.size(); ++k) {
        m_entries[indices[k]].piece = matches[k];
        m_entries[indices[k]].how = matches[k] ? how : How::Nobody;
    }
}

/// The rows of a table go to the pegs that their codes name; those that have a record keep it.
void IntakeList::dealRows(Entry &entry, const Study &study, Method test) const
{
    entry.dealt.clear();
    if (entry.file.problem || entry.known)
        return;
    for (const Piece &piece : study.pieces) {
        const bool named =
            std::any_of(entry.file.codes.begin(), entry.file.codes.end(), [&](const std::string &code) {
                return smallLetters(code) == smallLetters(piece.code);
            });
        if (named && piece.test == test && !piece.recording)
            entry.dealt.push_back(piece.id);
    }
}

void IntakeList::matchByUsualPatterns(const Study &study, Method test)
{
    std::vector<std::size_t> indices;
    const std::vector<std::string> names = matchableNames(indices);
    const auto best = bestNameMatching(study, names, test);
    m_pattern = best ? best->pattern : std::string();
    applyMatches(study, test, indices, best ? best->matches : FileMatches(names.size()), How::Name);
}

Status IntakeList::matchByPattern(const Study &study, Method test, const std::string &pattern)
{
    std::vector<std::size_t> indices;
    const Result<FileMatches> matches = matchByName(study, matchableNames(indices), pattern, test);
    if (!matches)
        return matches.error();
    m_pattern = pattern;
    applyMatches(study, test, indices, *matches, How::Name);
    return ok();
}

void IntakeList::matchInOrder(const Study &study, Method test)
{
    std::vector<std::size_t> indices;
    const std::vector<std::string> names = matchableNames(indices);
    applyMatches(study, test, indices, matchByOrder(study, names, test), How::Order);
}

void IntakeList::unmatchAll(const Study &study, Method test)
{
    applyMatches(study, test, {}, {}, How::Nobody);
}

Status IntakeList::assign(const Study &study, std::size_t index, std::optional<PieceId> piece)
{
    require(index < m_entries.size(), "there is no such file in the list");
    const Piece *wanted = piece ? findPiece(study, *piece) : nullptr;
    if (wanted != nullptr && wanted->recording && !isGiven(*wanted))
        return invalidArgument(
            fmt::format("piece {} has a record already; take it off in the Read lens first", wanted->code));
    for (Entry &entry : m_entries) {
        if (piece && entry.piece == piece) {
            entry.piece.reset();
            entry.how = How::Nobody;
        }
    }
    m_entries[index].piece = piece;
    m_entries[index].how = piece ? How::Hand : How::Nobody;
    return ok();
}

void IntakeList::setMapping(std::size_t index, const ColumnMapping &mapping)
{
    require(index < m_entries.size() && m_entries[index].file.found, "a file without columns has no mapping");
    const std::string signature = layoutSignature(*m_entries[index].file.found);
    for (Entry &entry : m_entries) {
        if (!entry.file.found || layoutSignature(*entry.file.found) != signature)
            continue;
        const bool couldNotBeRead = entry.file.problem.has_value();
        readWithMapping(entry.file, mapping);
        entry.isMended = entry.isMended || (couldNotBeRead && !entry.file.problem);
    }
}

void IntakeList::matchMended(const Study &study, Method test)
{
    std::vector<std::size_t> indices;
    const std::vector<std::string> names = matchableNames(indices);
    const auto best = bestNameMatching(study, names, test);
    for (std::size_t k = 0; best && k < indices.size(); ++k) {
        Entry &entry = m_entries[indices[k]];
        const std::optional<PieceId> piece = best->matches[k];
        const bool isFree = std::none_of(m_entries.begin(), m_entries.end(),
                                         [&](const Entry &other) { return other.piece == piece; });
        if (entry.isMended && piece && isFree && !entry.piece) {
            entry.piece = piece;
            entry.how = How::Name;
        }
    }
    for (Entry &entry : m_entries) {
        if (std::exchange(entry.isMended, false))
            dealRows(entry, study, test);
    }
}

bool IntakeList::canBringIn(const Entry &entry)
{
    return !entry.file.problem && (entry.piece.has_value() || !entry.dealt.empty());
}

std::vector<IntakeList::Ready> IntakeList::ready() const
{
    std::vector<Ready> all;
    for (const Entry &entry : m_entries) {
        if (!canBringIn(entry))
            continue;
        const bool isToRemember =
            entry.file.specimen ? !entry.file.mapping.columns.empty() : !entry.file.mapping.empty();
        all.push_back({entry.file.path, entry.file.specimen,
                       entry.piece ? std::vector<PieceId>{*entry.piece} : entry.dealt, entry.file.mapping,
                       isToRemember ? layoutSignature(*entry.file.found) : std::string()});
    }
    return all;
}

void IntakeList::take(const std::vector<Ready> &done)
{
    std::set<std::pair<std::string, std::optional<std::size_t>>> gone;
    for (const Ready &one : done)
        gone.emplace(one.path, one.specimen);
    std::erase_if(m_entries, [&](const Entry &entry) {
        return gone.contains({entry.file.path, entry.file.specimen});
    });
}

Status rememberMappings(ProjectFile &project, const std::vector<IntakeList::Ready> &ready, std::size_t count)
{
    std::set<std::string> done;
    for (std::size_t i = 0; i < count; ++i) {
        if (ready[i].layout.empty() || !done.insert(ready[i].layout).second)
            continue;
        ColumnMapping mapping = ready[i].mapping;
        if (ready[i].specimen)
            mapping.table.reset(); // which specimen it is holds for this file alone
        if (const Status kept = project.rememberMapping(ready[i].layout, mapping); !kept)
            return kept;
    }
    return ok();
}

std::optional<UsedGauge> rigOnDay(const Study &study, Method test, const Workshop &workshop,
                                  const std::string &day)
{
    const StudyTest *planned = findTest(study, test);
    const RigCard *rig = planned != nullptr ? findRig(workshop, planned->setup.rig) : nullptr;
    if (rig == nullptr)
        return std::nullopt;
    return usedGauge(*rig, day);
}

Status linkRecords(Study &study, const std::map<PieceId, Recording> &recordings, const Workshop &workshop,
                   const std::string &day)
{
    for (const auto &[id, recording] : recordings) {
        Piece *piece = findPiece(study, id);
        if (piece == nullptr)
            return invalidArgument("a piece was taken away while its file came in; give the file to "
                                   "another peg and bring it in again");
        Recording recorded = recording;
        recorded.gauge = rigOnDay(study, piece->test, workshop, day);
        setRecording(*piece, std::move(recorded));
    }
    return ok();
}

} // namespace inchpeg
