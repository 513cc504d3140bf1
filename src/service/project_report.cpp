// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_report.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <filesystem>

namespace inchpeg
{

Result<StudyId> studyNamed(ProjectFile &project, std::string_view name)
{
    const Result<std::vector<StudyHeader>> studies = project.studies();
    if (!studies)
        return studies.error();
    const std::string wanted = smallLetters(name);
    std::vector<StudyId> beginning;
    std::string known;
    for (const StudyHeader &study : *studies) {
        const std::string question = smallLetters(study.question);
        if (question == wanted || std::to_string(study.id.value) == name)
            return study.id;
        if (!wanted.empty() && question.starts_with(wanted))
            beginning.push_back(study.id);
        known += fmt::format("{}\"{}\"", known.empty() ? "" : ", ", study.question);
    }
    if (beginning.size() == 1)
        return beginning.front();
    if (beginning.size() > 1)
        return invalidArgument(
            fmt::format("{} studies begin with \"{}\"; say more of the question", beginning.size(), name));
    return Error{ErrorCode::NotFound,
                 fmt::format("there is no study \"{}\"; {}", name,
                             known.empty() ? std::string("the project has none") : "there are " + known),
                 {}};
}

ReportOrigin reportOrigin(const ProjectFile &project, std::string version, std::string day)
{
    return {std::filesystem::path(project.path()).filename().string(), std::move(version), std::move(day)};
}

Result<Report> reportOf(ProjectFile &project, const ProjectResults &all, StudyId study, ReportOrigin origin,
                        const Notation &notation)
{
    const Result<StudyResults> found = all.of(study);
    if (!found)
        return found.error();
    std::vector<ReportedFile> files;
    for (const Piece &piece : found->study->pieces) {
        if (!piece.recording)
            continue;
        const Result<RawFileInfo> info = project.rawFileInfo(piece.recording->file);
        if (!info)
            return info.error();
        files.push_back({piece.id, info->name, info->sha256});
    }
    // As Compare has it, so that both say the same.
    const LibraryResults library = readLibrary(all.workshop, project.path(), headerOf(*found->study).tests);
    std::vector<std::string> remarks = all.problems;
    remarks.insert(remarks.end(), library.problems.begin(), library.problems.end());
    const std::vector<StudyResults> results = library.beside(all);
    return studyReport({.study = found->study,
                        .readings = found->readings,
                        .workshop = &all.workshop,
                        .all = results,
                        .bought = all.bought,
                        .files = files,
                        .remarks = remarks,
                        .origin = std::move(origin)},
                       notation);
}

} // namespace inchpeg
