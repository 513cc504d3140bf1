// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_export.h"

#include "core/method/value_text.h"
#include "core/reading/piece_reading.h"
#include "core/text/notation.h"
#include "disk/file_bytes.h"
#include "disk/folder_to_be.h"
#include "service/log_tables.h"
#include "service/project_text.h"
#include "service/record_csv.h"
#include "service/safe_name.h"
#include "service/workshop_setting.h"
#include "store/project_lock.h"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>
#include <system_error>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

constexpr const char *kProjectJson = "project.json";

/// The columns of pieces.csv that a test answers with: those of the study's first test.
std::span<const Property> propertiesOf(const Study &study)
{
    const Reduction *reduction = reductionOf(methodOf(study));
    return reduction != nullptr ? reduction->properties : std::span<const Property>();
}

std::string tableHeading(const Study &study)
{
    std::string heading =
        "piece,level,level_unit,orientation,material,width_mm,thickness_mm,diameter_mm,area_mm2,"
        "raw_file,left_out,markers_by_hand";
    for (const Property &property : propertiesOf(study)) {
        const std::string_view unit = symbolInFiles(property.dimension);
        heading += fmt::format(",{}{}{}", property.name, unit.empty() ? "" : " in ", unit);
    }
    return heading + ",at_least,remarks\n";
}

/// Every value of a reading, one a line: of all tests of a study, and of properties with several values.
std::string valueLines(const Piece &piece, const Reading &reading)
{
    std::string lines;
    for (const ReadValue &value : reading.values) {
        const Result<Property> property = findProperty(*reductionOf(piece.test), value.property);
        lines += fmt::format(
            "{},{},{},{},{},{},{},{},{}\n", csvText(piece.code), csvText(std::string(methodName(piece.test))),
            value.property,
            csvText(property && property->scale == Scale::Word ? valueText(*property, value.number, 1, {})
                                                               : value.label),
            csvNumber(value.number), property ? symbolInFiles(property->dimension) : std::string_view(),
            csvText(std::string(boundReasonName(value.bound))), csvText(reading.kind),
            csvMeasure(value.uncertainty));
    }
    return lines;
}

std::string markerCell(const Piece &piece)
{
    std::string cell;
    for (const auto &[marker, placed] : handMarkersOf(piece))
        cell += fmt::format("{}{}: {}", cell.empty() ? "" : "; ", marker, placed->reason);
    return cell;
}

/// One export on its way; the folder it fills is a temporary one.
class Export
{
public:
    Export(ProjectFile &project, ProjectContents contents, FolderToBe &folder, const std::stop_token &stop,
           const ExportProgress &progress)
        : m_project(project), m_workshop(workshopOrStandIn(project)), m_contents(std::move(contents)),
          m_folder(folder), m_stop(stop), m_progress(progress)
    {
        m_all = m_contents.rawFiles.size();
        for (const Study &study : m_contents.studies)
            m_all += study.pieces.size();
    }

    Status run()
    {
        if (const Status made = m_folder.makeFolder("raw"); !made)
            return made;
        std::map<RawFileId, std::string> paths;
        NameSource names;
        for (const RawFileInfo &file : m_contents.rawFiles)
            paths[file.id] = "raw/" + names.nameFor(file.name);
        for (const RawFileInfo &file : m_contents.rawFiles) {
            const Result<std::string> bytes = m_project.rawBytes(file.id);
            if (!bytes)
                return bytes.error();
            if (const Status written = m_folder.write(paths[file.id], *bytes); !written)
                return written;
            if (const Status status = step(); !status)
                return status;
        }
        NameSource studyNames;
        for (const Study &study : m_contents.studies) {
            if (const Status written = writeStudy(study, studyNames.nameFor(study.question)); !written)
                return written;
        }
        return m_folder.write(
            kProjectJson, projectText(m_contents, [&](const RawFileInfo &file) { return paths[file.id]; }));
    }

private:
    Status step()
    {
        if (m_progress)
            m_progress(++m_done, m_all);
        if (m_stop.stop_requested())
            return Error{ErrorCode::Cancelled, "the export was stopped; nothing was written", {}};
        return ok();
    }

    Status writeStudy(const Study &study, const std::string &name)
    {
        const std::string folder = "studies/" + name + "/";
        if (const Status made = m_folder.makeFolder(folder + "curves"); !made)
            return made;
        std::string table = tableHeading(study);
        std::string values =
            "piece,test,property,label,value,unit,at_least_because,kind,standard_uncertainty\n";
        NameSource curveNames;
        for (const Condition &condition : study.conditions) {
            for (const Piece *piece : piecesOf(study, condition.id)) {
                const Result<PieceRecord> record = keptRecord(m_project, study, *piece, m_workshop);
                table += row(study, condition, *piece, record);
                if (record)
                    values += valueLines(*piece, record->reading);
                if (record && !record->reading.columns.empty()) {
                    const std::string path = folder + "curves/" + curveNames.nameFor(piece->code, ".csv");
                    if (const Status written = m_folder.write(path, curveCsv(*record)); !written)
                        return written;
                }
                if (const Status status = step(); !status)
                    return status;
            }
        }
        if (const Status written = m_folder.write(folder + "log.csv", logTable(study)); !written)
            return written;
        if (const Status written = m_folder.write(folder + "plates.csv", plateTable(study)); !written)
            return written;
        if (const Status written = m_folder.write(folder + "steps.csv", stepTable(study)); !written)
            return written;
        if (const Status written = m_folder.write(folder + "values.csv", values); !written)
            return written;
        return m_folder.write(folder + "pieces.csv", table);
    }

    std::string row(const Study &study, const Condition &condition, const Piece &piece,
                    const Result<PieceRecord> &record)
    {
        const auto file =
            std::find_if(m_contents.rawFiles.begin(), m_contents.rawFiles.end(), [&](const RawFileInfo &raw) {
                return piece.recording && raw.id == piece.recording->file;
            });
        const bool several = study.factors.size() > 1;
        std::string text = fmt::format(
            "{},{},{},{},{},{},{},{},{}", csvText(piece.code),
            csvText(several ? levelText(study, condition) : condition.levels.front()),
            several ? "" : csvText(study.factors.front().unit), orientationName(condition.orientation),
            csvText(condition.material), sectionCells(piece.section),
            file == m_contents.rawFiles.end() ? "" : csvText(file->name),
            piece.exclusion ? csvText(piece.exclusion->reason) : "", csvText(markerCell(piece)));
        std::string remarks;
        bool atEnd = false;
        for (const Property &property : propertiesOf(study)) {
            const ReadValue *value = record ? valueOf(record->reading.values, property.name) : nullptr;
            text += "," + (value != nullptr ? csvNumber(value->number) : std::string());
            atEnd = atEnd || (value != nullptr && value->bound == BoundReason::GaugeAtEnd);
        }
        if (record) {
            for (const std::string &warning : record->reading.warnings)
                remarks += (remarks.empty() ? "" : "; ") + Notation().expand(warning);
        } else {
            remarks = errorSentence(record.error());
        }
        return fmt::format("{},{},{}\n", text, atEnd ? "1" : "0", csvText(remarks));
    }

    ProjectFile &m_project;
    Workshop m_workshop;
    ProjectContents m_contents;
    FolderToBe &m_folder;
    const std::stop_token &m_stop;
    const ExportProgress &m_progress;
    std::size_t m_done = 0;
    std::size_t m_all = 0;
};

/// Only that study, and the raw files that its pieces refer to.
Status keepOnly(ProjectContents &contents, StudyId only)
{
    std::erase_if(contents.studies, [only](const Study &study) { return study.id != only; });
    if (contents.studies.empty())
        return Error{ErrorCode::NotFound, "that study is not in the project", {}};
    std::set<std::int64_t> used;
    for (const Piece &piece : contents.studies.front().pieces) {
        if (piece.recording)
            used.insert(piece.recording->file.value);
        for (const Photo &photo : piece.log.photos)
            used.insert(photo.file.value);
    }
    std::erase_if(contents.history, [only](const KeptChange &kept) { return kept.study != only; });
    std::erase_if(contents.rawFiles, [&](const RawFileInfo &file) { return !used.contains(file.id.value); });
    contents.settings.clear();
    contents.rememberedMappings.clear();
    return ok();
}

} // namespace

Status exportProject(ProjectFile &project, const std::string &folder, std::optional<StudyId> only,
                     const std::stop_token &stop, const ExportProgress &progress)
{
    Result<FolderToBe> part = FolderToBe::begin(folder);
    if (!part)
        return part.error();
    Result<ProjectContents> contents = project.contents();
    if (!contents)
        return contents.error();
    if (only) {
        if (const Status kept = keepOnly(*contents, *only); !kept)
            return kept;
    }
    const Status written = Export(project, std::move(*contents), *part, stop, progress).run();
    return written ? part->finish() : written;
}

namespace
{

/// A plain file that lies in the folder itself: no pipe or device that has no end, no link that leads out.
/// Errors: BadInput, with what stands there.
Status requirePlainFile(const fs::path &folder, const fs::path &within)
{
    fs::path place = folder;
    for (const fs::path &part : within) {
        place /= part;
        std::error_code failure;
        const fs::file_status there = fs::symlink_status(place, failure);
        if (fs::is_symlink(there))
            return badInput(
                fmt::format("{}: is a link; an export holds its files themselves", place.string()));
        if (!fs::exists(there))
            return Error{ErrorCode::NotFound, fmt::format("{}: there is no such file", place.string()), {}};
        if (!fs::is_regular_file(there) && !fs::is_directory(there))
            return badInput(
                fmt::format("{}: is no plain file; an export holds nothing else", place.string()));
    }
    return ok();
}

} // namespace

Result<std::vector<std::string>> importProject(const std::string &folder, const std::string &path)
{
    if (const Status plain = requirePlainFile(folder, kProjectJson); !plain)
        return plain.error();
    const std::string name = (fs::path(folder) / kProjectJson).string();
    const Result<std::string> text = readFileBytes(name);
    if (!text)
        return text.error();
    const Result<ParsedProject> parsed = projectFromText(*text);
    if (!parsed)
        return Error{parsed.error().code, name + ": " + parsed.error().message, parsed.error().position};
    const auto bytesOf = [&](const RawFileInfo &file) -> Result<std::string> {
        const fs::path relative = fs::path(parsed->rawPaths.at(file.id)).lexically_normal();
        if (relative.is_absolute() || relative.empty() || *relative.begin() == "..")
            return badInput(
                fmt::format("{}: the raw file \"{}\" would be read from outside the folder; it must "
                            "lie in it",
                            name, relative.string()));
        if (const Status plain = requirePlainFile(folder, relative); !plain)
            return plain.error();
        return readFileBytes((fs::path(folder) / relative).string());
    };
    const Result<ProjectLock> lock = ProjectLock::take(path);
    if (!lock)
        return lock.error();
    const Result<ProjectFile> project = ProjectFile::restore(path, parsed->contents, bytesOf);
    return project ? Result<std::vector<std::string>>(parsed->mended) : project.error();
}

} // namespace inchpeg
