// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/tell_command.h"

#include "cli/open_project.h"
#include "core/report/decision_report.h"
#include "core/report/result_card.h"
#include "report/write_report.h"
#include "service/open_data.h"
#include "service/project_report.h"

#include <QDate>

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

std::string today()
{
    return QDate::currentDate().toString(Qt::ISODate).toStdString();
}

Result<Paper> paperOf(const Options &options)
{
    const std::string name = options.value("paper").value_or("A4");
    if (const std::optional<Paper> paper = paperFrom(name))
        return *paper;
    return invalidArgument(fmt::format("--paper is \"{}\"; A4 or Letter is wanted", name));
}

} // namespace

Result<Outcome> tellReport(const Options &options)
{
    const Result<Paper> paper = paperOf(options);
    if (!paper)
        return paper.error();
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<StudyId> study = studyNamed(*project, options.required("study"));
    if (!study)
        return study.error();
    const Result<ProjectResults> all = readProjectResults(*project);
    if (!all)
        return all.error();
    const Result<Report> made =
        reportOf(*project, *all, *study, reportOrigin(*project, INCHPEG_VERSION, today()), {});
    if (!made)
        return made.error();
    const std::string path = options.required("to");
    if (const Status written = writeReport(*made, path, *paper); !written)
        return written.error();
    return Outcome{{{"file", path}, {"study", made->title}, {"sections", made->sections.size()}}, {}, false};
}

Result<Outcome> tellCard(const Options &options)
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<StudyId> id = studyNamed(*project, options.required("study"));
    if (!id)
        return id.error();
    const Result<ProjectResults> all = readProjectResults(*project);
    if (!all)
        return all.error();
    const auto study = std::find_if(all->studies.begin(), all->studies.end(),
                                    [&](const Study &one) { return one.id == *id; });
    const std::vector<Response> responses = responsesOf(*study);
    const std::string wanted =
        options.value("property")
            .value_or(responses.empty() ? "" : std::string(responses.front().property.name));
    const auto response = std::find_if(responses.begin(), responses.end(),
                                       [&](const Response &one) { return one.property.name == wanted; });
    if (response == responses.end()) {
        std::string known;
        for (const Response &one : responses)
            known += (known.empty() ? "" : ", ") + std::string(one.property.name);
        return invalidArgument(fmt::format("the study has no response \"{}\"; known are {}", wanted,
                                           known.empty() ? "none" : known));
    }
    const PieceReadings &readings = all->readings[static_cast<std::size_t>(study - all->studies.begin())];
    const StudyComparison comparison =
        compareStudy(*study, readings, response->property,
                     {.test = response->test, .detail = ComparisonDetail::Sentences});
    const std::string path = options.required("to");
    const Drawing drawing =
        resultCard(*study, comparison, reportOrigin(*project, INCHPEG_VERSION, today()), {});
    if (const Status written = writeDrawing(drawing, study->question, path); !written)
        return written.error();
    return Outcome{{{"file", path}, {"study", study->question}, {"property", wanted}}, {}, false};
}

Result<Outcome> tellOpenData(const Options &options)
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<StudyId> study = studyNamed(*project, options.required("study"));
    if (!study)
        return study.error();
    const std::string path = options.required("to");
    const Result<OpenDataWritten> written =
        writeOpenData(*project, *study, path, reportOrigin(*project, INCHPEG_VERSION, today()));
    if (!written)
        return written.error();
    return Outcome{{{"to", path}, {"files", written->files}, {"rows", written->values}}, {}, false};
}

Status tellDecision(const Options &options, const Decision &decision, const ProjectFile &project,
                    const std::string &money)
{
    const Result<Paper> paper = paperOf(options);
    if (!paper)
        return paper.error();
    return writeReport(decisionReport(decision, reportOrigin(project, INCHPEG_VERSION, today()), {}, money),
                       options.required("to"), *paper);
}

} // namespace inchpeg::cli
