// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_results.h"

#include "service/on_all_cores.h"
#include "service/ordered_reading.h"
#include "service/workshop_setting.h"
#include "store/kept_readings.h"
#include "store/project_lock.h"

#include <QCryptographicHash>

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <map>

namespace inchpeg
{

std::vector<StudyResults> ProjectResults::results() const
{
    std::vector<StudyResults> all;
    for (std::size_t i = 0; i < studies.size(); ++i)
        all.push_back({&studies[i], &readings[i], false, values[i] ? &*values[i] : nullptr});
    return all;
}

Result<StudyResults> ProjectResults::of(StudyId study) const
{
    for (const StudyResults &one : results()) {
        if (one.study->id == study)
            return one;
    }
    return Error{ErrorCode::NotFound, "that study is not in the project", {}};
}

std::vector<StudyResults> LibraryResults::beside(const ProjectResults &own) const
{
    std::vector<StudyResults> all = own.results();
    for (const ProjectResults &project : projects) {
        for (StudyResults one : project.results()) {
            one.isOfLibrary = true;
            all.push_back(one);
        }
    }
    return all;
}

bool canBearOn(const std::vector<Method> &tests, const std::vector<Method> &ofStudy)
{
    const auto has = [](const std::vector<Method> &all, Method test) {
        return std::find(all.begin(), all.end(), test) != all.end();
    };
    return has(ofStudy, Method::ServiceTrial) || has(tests, Method::ServiceTrial) ||
           std::any_of(tests.begin(), tests.end(), [&](Method test) { return has(ofStudy, test); });
}

namespace
{

/// Of what the values of a study are made, beside the study itself: the rules of the workshop, and how this
/// program reads.
std::string valuesMadeFrom(const std::vector<Method> &tests, const std::string &workshopHash)
{
    constexpr int kValuesVersion = 1; // one more where the same readings come to other values
    std::string text = fmt::format("{} workshop {}", kValuesVersion, workshopHash);
    for (const Method test : tests) {
        if (const Reduction *reduction = reductionOf(test))
            text += fmt::format(" {} {}", reduction->command, reduction->version);
    }
    return text;
}

/// But of creep: what a piece comes to at another time follows from all of its readings.
void dropCurves(PieceReadings &readings, const Study &study)
{
    for (auto &[piece, reading] : readings) {
        const Piece *own = findPiece(study, piece);
        if (!*reading || (own != nullptr && own->test == Method::Creep))
            continue;
        PieceReading values = **reading;
        values.outline = {};
        reading = std::make_shared<const Result<PieceReading>>(std::move(values));
    }
}

/// Studies of one project, read one after the other. What had to be made anew is kept at the end.
class ResultsReader
{
public:
    ResultsReader(ProjectFile &project, Keeping keeping, UnreadRecords unread = UnreadRecords::Read)
        : m_project(project), m_keeping(keeping), m_unread(unread)
    {
        m_all.workshop = workshopOrStandIn(project);
        m_workshopHash = QCryptographicHash::hash(QByteArray::fromStdString(workshopText(m_all.workshop)),
                                                  QCryptographicHash::Sha256)
                             .toHex()
                             .toStdString();
        if (const Result<std::optional<std::string>> kept = project.setting(kNeedsSetting);
            kept && *kept && !(*kept)->empty()) {
            if (Result<Needs> needs = needsFromText(**kept))
                m_all.bought = std::move(needs->bought);
        }
    }

    /// With its pieces. Errors: those of the study.
    Status addWhole(StudyId id)
    {
        Result<Study> study = m_project.loadStudy(id);
        if (!study)
            return study.error();
        PieceReadings readings = readingsOf(*study);
        m_all.studies.push_back(std::move(*study));
        m_all.readings.push_back(std::move(readings));
        m_all.values.emplace_back();
        return ok();
    }

    /// With its pieces, without their curves; one that is damaged is told among the problems.
    void addWithoutCurves(const StudyHeader &header)
    {
        if (const Status added = addWhole(header.id); !added)
            m_all.problems.push_back(added.error().message);
        else
            dropCurves(m_all.readings.back(), m_all.studies.back());
    }

    /// What its rails came to; one that is damaged is told among the problems.
    void addValues(const StudyHeader &header)
    {
        if (!m_kept)
            loadKept();
        const std::string madeFrom = valuesMadeFrom(header.tests, m_workshopHash);
        KeptValues kept{header.id};
        if (const auto found = m_kept->find(header.id); found != m_kept->end())
            kept = found->second;
        Result<StudyValues> values = kept.madeFrom == madeFrom
                                         ? studyValuesFromText(kept.rails)
                                         : Error{ErrorCode::NotFound, "nothing is kept", {}};
        const auto head = m_heads.find(header.id);
        if (values && head != m_heads.end()) {
            pushValues(std::move(head->second), std::move(*values));
            return;
        }
        Result<Study> study = m_project.loadStudy(header.id);
        if (!study) {
            m_all.problems.push_back(study.error().message);
            return;
        }
        values = studyValuesOf(*study, readingsOf(*study));
        if (!m_isAnyUnread)
            m_freshValues.push_back({header.id, kept.revision, madeFrom, studyValuesText(*values)});
        study->pieces.clear();
        pushValues(std::move(*study), std::move(*values));
    }

    ProjectResults finish()
    {
        keep();
        return std::move(m_all);
    }

private:
    void pushValues(Study study, StudyValues values)
    {
        m_all.studies.push_back(std::move(study));
        m_all.readings.emplace_back();
        m_all.values.emplace_back(std::move(values));
    }

    /// Those that are kept and still good, the others made anew.
    PieceReadings readingsOf(const Study &study)
    {
        PieceReadings readings = freshReadings(m_project.path(), study, m_all.workshop);
        readMissing(study, readings);
        return readings;
    }

    /// The pieces whose readings are not there, read on all cores, some at a time: their bytes are large, and
    /// come from the thread that opened the project.
    void readMissing(const Study &study, PieceReadings &readings)
    {
        constexpr std::size_t kAtATime = 32;
        m_isAnyUnread = false;
        std::vector<OrderedReading> ordered;
        for (const Piece &piece : study.pieces) {
            std::optional<OrderedReading> one = orderReading(study, piece, m_all.workshop);
            if (!one || readings.contains(piece.id))
                continue;
            if (m_unread == UnreadRecords::PassOver) {
                m_isAnyUnread = true;
                continue;
            }
            ordered.push_back(std::move(*one));
            if (ordered.size() == kAtATime)
                readThese(ordered, readings);
        }
        readThese(ordered, readings);
    }

    void readThese(std::vector<OrderedReading> &ordered, PieceReadings &readings)
    {
        std::vector<Result<ReadingJob>> jobs;
        for (const OrderedReading &one : ordered)
            jobs.push_back(jobFor(one, m_project.rawBytes(one.recording.file)));
        std::vector<std::shared_ptr<const Result<PieceReading>>> read(jobs.size());
        onAllCores(jobs.size(), [&](std::size_t i) {
            read[i] = std::make_shared<const Result<PieceReading>>(
                jobs[i] ? readPiece(*jobs[i]) : Result<PieceReading>(jobs[i].error()));
        });
        for (std::size_t i = 0; i < read.size(); ++i) {
            if (m_keeping != Keeping::No && *read[i])
                m_freshReadings.push_back({ordered[i].piece, ordered[i].inputs, **read[i]});
            readings[ordered[i].piece] = std::move(read[i]);
        }
        ordered.clear();
    }

    void loadKept()
    {
        m_kept.emplace();
        Result<KeptReadings> file = KeptReadings::openForReading(m_project.path());
        if (!file)
            return;
        Result<std::vector<KeptValues>> values = file->values();
        for (KeptValues &one : values ? *values : std::vector<KeptValues>())
            m_kept->insert_or_assign(one.study, one);
        // Where one of them is damaged, each is loaded by itself.
        Result<std::vector<Study>> heads = m_project.loadStudiesWithoutPieces();
        for (Study &head : heads ? *heads : std::vector<Study>()) {
            const StudyId id = head.id;
            m_heads.emplace(id, std::move(head));
        }
    }

    /// What cannot be kept is made again another time.
    void keep()
    {
        if (m_keeping == Keeping::No || (m_freshReadings.empty() && m_freshValues.empty()))
            return;
        const std::optional<Result<ProjectLock>> lock =
            m_keeping == Keeping::IfFree ? std::optional(ProjectLock::take(m_project.path())) : std::nullopt;
        if (lock && !*lock)
            return;
        if (Result<KeptReadings> file = KeptReadings::open(m_project.path())) {
            [[maybe_unused]] const Status readings = file->keep(m_freshReadings);
            [[maybe_unused]] const Status values = file->keepValues(m_freshValues);
        }
    }

    ProjectFile &m_project;
    Keeping m_keeping;
    UnreadRecords m_unread;
    bool m_isAnyUnread = false; ///< of the study that was read last
    std::string m_workshopHash;
    ProjectResults m_all;
    std::optional<std::map<StudyId, KeptValues>> m_kept;
    std::map<StudyId, Study> m_heads; ///< without their pieces
    std::vector<KeptReading> m_freshReadings;
    std::vector<KeptValues> m_freshValues;
};

} // namespace

LibraryResults readLibrary(const Workshop &workshop, const std::string &ownPath,
                           const std::vector<Method> &tests)
{
    LibraryResults library;
    for (const std::string &path : workshop.library) {
        std::error_code failure;
        if (std::filesystem::equivalent(path, ownPath, failure))
            continue;
        Result<ProjectFile> project = ProjectFile::openForReading(path);
        Result<ProjectResults> results =
            project ? readValues(
                          *project, [&](const StudyHeader &study) { return canBearOn(study.tests, tests); },
                          UnreadRecords::Read, Keeping::No)
                    : Result<ProjectResults>(project.error());
        if (results)
            library.projects.push_back(std::move(*results));
        else
            library.problems.push_back("Not in the library's averages: " + results.error().message);
    }
    return library;
}

Result<ProjectResults> readProjectResults(ProjectFile &project)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    ResultsReader reader(project, Keeping::No);
    for (const StudyHeader &header : *headers)
        reader.addWithoutCurves(header);
    return reader.finish();
}

Result<ProjectResults> readStudyResults(ProjectFile &project, StudyId study, Keeping keeping)
{
    ResultsReader reader(project, keeping);
    if (const Status added = reader.addWhole(study); !added)
        return added.error();
    return reader.finish();
}

Result<ProjectResults> readResultsAround(ProjectFile &project, StudyId study, Keeping keeping)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    const auto asked = std::find_if(headers->begin(), headers->end(),
                                    [&](const StudyHeader &header) { return header.id == study; });
    if (asked == headers->end())
        return Error{ErrorCode::NotFound, "that study is not in the project", {}};
    ResultsReader reader(project, keeping);
    for (const StudyHeader &header : *headers) {
        if (header.id == study) {
            if (const Status added = reader.addWhole(study); !added)
                return added.error();
        } else if (canBearOn(header.tests, asked->tests)) {
            reader.addValues(header);
        }
    }
    return reader.finish();
}

Result<ProjectResults> readValues(ProjectFile &project,
                                  const std::function<bool(const StudyHeader &)> &isWanted,
                                  UnreadRecords unread, Keeping keeping)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    ResultsReader reader(project, keeping, unread);
    for (const StudyHeader &header : *headers) {
        if (isWanted(header))
            reader.addValues(header);
    }
    return reader.finish();
}

} // namespace inchpeg
