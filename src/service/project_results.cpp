// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_results.h"

#include "service/on_all_cores.h"
#include "service/ordered_reading.h"
#include "service/workshop_setting.h"

#include <algorithm>
#include <filesystem>
#include <functional>

namespace inchpeg
{

std::vector<StudyResults> ProjectResults::results() const
{
    std::vector<StudyResults> all;
    for (std::size_t i = 0; i < studies.size(); ++i)
        all.push_back({&studies[i], &readings[i], false});
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
    return has(ofStudy, Method::ServiceTrial) ||
           std::any_of(tests.begin(), tests.end(), [&](Method test) { return has(ofStudy, test); });
}

namespace
{

/// The pieces whose readings are not there, read on all cores, some at a time: their bytes are large, and
/// come from the thread that opened the project.
void readMissing(ProjectFile &project, const Study &study, const Workshop &workshop, PieceReadings &readings)
{
    constexpr std::size_t kAtATime = 32;
    std::vector<Result<ReadingJob>> jobs;
    std::vector<PieceId> pieces;
    const auto readThese = [&] {
        std::vector<std::shared_ptr<const Result<PieceReading>>> read(jobs.size());
        onAllCores(jobs.size(), [&](std::size_t i) {
            read[i] = std::make_shared<const Result<PieceReading>>(
                jobs[i] ? readPiece(*jobs[i]) : Result<PieceReading>(jobs[i].error()));
        });
        for (std::size_t i = 0; i < read.size(); ++i)
            readings[pieces[i]] = std::move(read[i]);
        jobs.clear();
        pieces.clear();
    };
    for (const Piece &piece : study.pieces) {
        const std::optional<OrderedReading> ordered = orderReading(study, piece, workshop);
        if (!ordered || readings.contains(piece.id))
            continue;
        pieces.push_back(piece.id);
        jobs.push_back(jobFor(*ordered, project.rawBytes(piece.recording->file)));
        if (jobs.size() == kAtATime)
            readThese();
    }
    readThese();
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

/// whole: the study whose curves are wanted too, and whose damage is an error.
Result<ProjectResults> readStudies(ProjectFile &project, std::optional<StudyId> whole,
                                   const std::function<bool(const StudyHeader &)> &isWanted)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    ProjectResults all;
    all.workshop = workshopOrStandIn(project);
    if (const Result<std::optional<std::string>> kept = project.setting(kNeedsSetting);
        kept && *kept && !(*kept)->empty()) {
        if (Result<Needs> needs = needsFromText(**kept))
            all.bought = std::move(needs->bought);
    }
    for (const StudyHeader &header : *headers) {
        const bool isWhole = whole && header.id == *whole;
        if (!isWhole && !isWanted(header))
            continue;
        Result<Study> study = project.loadStudy(header.id);
        if (!study && isWhole)
            return study.error();
        if (!study) {
            all.problems.push_back(study.error().message);
            continue;
        }
        PieceReadings readings = freshReadings(project.path(), *study, all.workshop);
        readMissing(project, *study, all.workshop, readings);
        if (!isWhole)
            dropCurves(readings, *study);
        all.studies.push_back(std::move(*study));
        all.readings.push_back(std::move(readings));
    }
    return all;
}

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
            project ? readStudies(*project, {},
                                  [&](const StudyHeader &study) { return canBearOn(study.tests, tests); })
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
    return readStudies(project, {}, [](const StudyHeader &) { return true; });
}

Result<ProjectResults> readStudyResults(ProjectFile &project, StudyId study)
{
    return readStudies(project, study, [](const StudyHeader &) { return false; });
}

Result<ProjectResults> readResultsAround(ProjectFile &project, StudyId study)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    const auto asked = std::find_if(headers->begin(), headers->end(),
                                    [&](const StudyHeader &header) { return header.id == study; });
    if (asked == headers->end())
        return Error{ErrorCode::NotFound, "that study is not in the project", {}};
    return readStudies(project, study,
                       [&](const StudyHeader &other) { return canBearOn(other.tests, asked->tests); });
}

} // namespace inchpeg
