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

/// The project, and the study of it that is asked for.
struct AskedStudy {
    ProjectFile project;
    StudyId study;

    [[nodiscard]] ReportOrigin origin() const { return reportOrigin(project, INCHPEG_VERSION, today()); }
};

Result<AskedStudy> askedStudy(const Options &options)
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<StudyId> study = studyNamed(*project, options.required("study"));
    if (!study)
        return study.error();
    return AskedStudy{std::move(*project), *study};
}

} // namespace

Result<Outcome> tellReport(const Options &options)
{
    const Result<Paper> paper = paperOf(options);
    if (!paper)
        return paper.error();
    Result<AskedStudy> asked = askedStudy(options);
    if (!asked)
        return asked.error();
    const Result<ProjectResults> all = readResultsAround(asked->project, asked->study, Keeping::IfFree);
    if (!all)
        return all.error();
    const Result<Report> made = reportOf(asked->project, *all, asked->study, asked->origin(), {});
    if (!made)
        return made.error();
    const std::string path = options.required("to");
    if (const Status written = writeReport(*made, path, *paper); !written)
        return written.error();
    return Outcome{{{"file", path}, {"study", made->title}, {"sections", made->sections.size()}}, {}, false};
}

Result<Outcome> tellCard(const Options &options)
{
    Result<AskedStudy> asked = askedStudy(options);
    if (!asked)
        return asked.error();
    const Result<ProjectResults> all = readStudyResults(asked->project, asked->study, Keeping::IfFree);
    if (!all)
        return all.error();
    const Result<StudyResults> results = all->of(asked->study);
    if (!results)
        return results.error();
    const Study *study = results->study;
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
    const StudyComparison comparison =
        compareStudy(*study, *results->readings, response->property,
                     {.test = response->test, .detail = ComparisonDetail::Sentences});
    const std::string path = options.required("to");
    const Drawing drawing = resultCard(*study, comparison, asked->origin(), {});
    if (const Status written = writeDrawing(drawing, study->question, path); !written)
        return written.error();
    return Outcome{{{"file", path}, {"study", study->question}, {"property", wanted}}, {}, false};
}

Result<Outcome> tellOpenData(const Options &options)
{
    Result<AskedStudy> asked = askedStudy(options);
    if (!asked)
        return asked.error();
    const std::string path = options.required("to");
    const Result<OpenDataWritten> written =
        writeOpenData(asked->project, asked->study, path, asked->origin());
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
