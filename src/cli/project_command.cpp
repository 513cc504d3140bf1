// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/open_project.h"
#include "core/planning/calendar.h"
#include "service/demo_project.h"
#include "service/project_check.h"
#include "service/project_export.h"
#include "store/project_file.h"

#include <fmt/format.h>

namespace inchpeg::cli
{

namespace
{

Json infoJson(const ProjectInfo &info)
{
    return {{"file", info.path},
            {"schema_version", info.schemaVersion},
            {"created_at", info.createdAt},
            {"studies", info.studies},
            {"pieces", info.pieces},
            {"raw_files", info.rawFiles},
            {"raw_bytes", info.rawBytes}};
}

Result<Outcome> infoOf(Result<ProjectFile> project)
{
    if (!project)
        return project.error();
    Result<ProjectInfo> info = project->info();
    if (!info)
        return info.error();
    Outcome outcome{infoJson(*info), {}, false};
    const Result<std::vector<StudyHeader>> studies = project->studies();
    if (!studies)
        return studies.error();
    Json list = Json::array();
    for (const StudyHeader &study : *studies)
        list.push_back({{"id", study.id.value},
                        {"question", study.question},
                        {"method", methodName(study.method)},
                        {"pieces", study.pieces},
                        {"recorded", study.recorded}});
    outcome.result["study_list"] = list;
    return outcome;
}

Result<Outcome> create(const Options &options)
{
    return infoOf(ProjectFile::create(options.positional().front()));
}

Result<Outcome> info(const Options &options)
{
    return infoOf(openToRead(options.positional().front()));
}

Result<Outcome> demo(const Options &options)
{
    const std::string today = options.value("today").value_or("2026-06-01");
    if (!momentFrom(today))
        return invalidArgument(
            fmt::format("--today is \"{}\"; write it as year-month-day, such as 2026-06-01", today));
    if (const Status status = writeDemoProject(options.positional().front(), today); !status)
        return status.error();
    return info(options);
}

Result<Outcome> verify(const Options &options)
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<ProjectCheck> check = verifyProject(*project);
    if (!check)
        return check.error();
    Outcome outcome;
    outcome.result = {{"file", options.positional().front()},
                      {"ok", check->findings.empty()},
                      {"database_ok", check->databaseOk},
                      {"raw_files_checked", check->rawFilesChecked},
                      {"findings", check->findings}};
    outcome.messages = check->findings;
    outcome.someFailed = !check->findings.empty();
    return outcome;
}

Result<Outcome> exportTo(const Options &options)
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const std::string folder = options.required("to");
    if (const Status status = exportProject(*project, folder); !status)
        return status.error();
    const Result<ProjectInfo> info = project->info();
    if (!info)
        return info.error();
    return Outcome{{{"file", info->path},
                    {"folder", folder},
                    {"studies", info->studies},
                    {"pieces", info->pieces},
                    {"raw_files", info->rawFiles}},
                   {},
                   false};
}

Result<Outcome> importFrom(const Options &options)
{
    const std::string path = options.required("to");
    const Result<std::vector<std::string>> mended = importProject(options.positional().front(), path);
    if (!mended)
        return mended.error();
    Result<Outcome> outcome = infoOf(ProjectFile::openForReading(path));
    if (outcome)
        outcome->messages = *mended;
    return outcome;
}

} // namespace

std::vector<Command> projectCommands()
{
    return {
        {"project", "new", "FILE", "make an empty project", {}, 1, create},
        {"project", "info", "FILE", "tell what a project holds", {}, 1, info},
        {"project", "verify", "FILE", "check the file and the SHA-256 of its raw data", {}, 1, verify},
        {"project",
         "demo",
         "FILE",
         "write the demo project",
         {{"today", "DATE", "on which its planned study starts, 2026-06-01 unless given"}},
         1,
         demo},
        {"project",
         "export",
         "FILE",
         "write a project into a folder in open formats",
         {{"to", "DIR", "a new or empty folder", false, true}},
         1,
         exportTo},
        {"project",
         "import",
         "DIR",
         "make a project of an exported folder",
         {{"to", "FILE", "the project to make", false, true}},
         1,
         importFrom},
    };
}

} // namespace inchpeg::cli
