// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_results.h"

#include "service/on_all_cores.h"
#include "service/ordered_reading.h"
#include "service/workshop_setting.h"

namespace inchpeg
{

std::vector<StudyResults> ProjectResults::results() const
{
    std::vector<StudyResults> all;
    for (std::size_t i = 0; i < studies.size(); ++i)
        all.push_back({&studies[i], &readings[i]});
    return all;
}

Result<ProjectResults> readProjectResults(ProjectFile &project)
{
    const Result<std::vector<StudyHeader>> headers = project.studies();
    if (!headers)
        return headers.error();
    ProjectResults all;
    all.workshop = workshopOrStandIn(project);
    for (const StudyHeader &header : *headers) {
        Result<Study> study = project.loadStudy(header.id);
        if (!study)
            return study.error();
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
