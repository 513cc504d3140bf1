// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_results.h"

#include "service/on_all_cores.h"
#include "service/ordered_reading.h"
#include "service/workshop_setting.h"

#include <filesystem>

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

LibraryResults readLibrary(const Workshop &workshop, const std::string &ownPath)
{
    LibraryResults library;
    for (const std::string &path : workshop.library) {
        std::error_code failure;
        if (std::filesystem::equivalent(path, ownPath, failure))
            continue;
        Result<ProjectFile> project = ProjectFile::openForReading(path);
        Result<ProjectResults> results =
            project ? readProjectResults(*project) : Result<ProjectResults>(project.error());
        if (results)
            library.projects.push_back(std::move(*results));
        else
            library.problems.push_back("Not in the library's averages: " + results.error().message);
    }
    return library;
}

Result<ProjectResults> readProjectResults(ProjectFile &project, std::optional<StudyId> only)
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
        if (only && header.id != *only)
            continue;
        Result<Study> study = project.loadStudy(header.id);
        if (!study && only)
            return study.error();
        if (!study) {
            all.problems.push_back(study.error().message);
            continue;
        }
        PieceReadings readings = freshReadings(project.path(), *study, all.workshop);
        for (const Piece &piece : study->pieces) {
            const std::optional<OrderedReading> ordered = orderReading(*study, piece, all.workshop);
            if (!ordered || readings.contains(piece.id))
                continue;
            Result<ReadingJob> job = jobFor(*ordered, project.rawBytes(piece.recording->file));
            if (job)
                job->run = onAllCores;
            readings[piece.id] = std::make_shared<const Result<PieceReading>>(
                job ? readPiece(*job) : Result<PieceReading>(job.error()));
        }
        all.studies.push_back(std::move(*study));
        all.readings.push_back(std::move(readings));
    }
    return all;
}

} // namespace inchpeg
