// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/open_data.h"

#include "core/base/json_fields.h"
#include "core/compare/procedure_text.h"
#include "core/method/value_text.h"
#include "core/model/measured_with.h"
#include "core/text/letters.h"
#include "disk/file_bytes.h"
#include "disk/folder_to_be.h"
#include "service/open_data_texts.h"
#include "service/project_results.h"
#include "service/record_csv.h"
#include "service/safe_name.h"

#include <fmt/format.h>

#include <map>
#include <memory>
#include <set>
#include <zip.h>

namespace inchpeg
{

namespace
{

namespace fs = std::filesystem;

struct TidyField {
    std::string name;
    std::string type; ///< of a table schema: "string", "number", "integer"
    std::string description;
};

struct PackedFile {
    std::string path; ///< in the package, with slashes
    std::string bytes;
    std::string title;
    std::vector<TidyField> fields{}; ///< of a table
};

/// A column's name as scripts like it: small letters, digits and underscores.
std::string fieldName(std::string_view text)
{
    std::string name;
    for (const char c : smallLetters(text)) {
        const bool isPlain = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (isPlain)
            name += c;
        else if (!name.empty() && name.back() != '_')
            name += '_';
    }
    while (name.ends_with('_'))
        name.pop_back();
    return name.empty() ? "column" : name;
}

std::string heading(const std::vector<TidyField> &fields)
{
    std::string line;
    for (const TidyField &field : fields)
        line += (line.empty() ? "" : ",") + field.name;
    return line + '\n';
}

std::string row(const std::vector<std::string> &cells)
{
    std::string line;
    for (std::size_t i = 0; i < cells.size(); ++i)
        line += (i == 0 ? "" : ",") + cells[i];
    return line + '\n';
}

std::string flag(bool is)
{
    return is ? "1" : "0";
}

/// What a response's comparison says of its pieces: whether each counts.
using Counting = std::map<std::pair<std::string, PieceId>, bool>;

class Package
{
public:
    Package(ProjectFile &project, const StudyResults &results, const Workshop &workshop,
            const ReportOrigin &origin)
        : m_project(project), m_study(*results.study), m_readings(*results.readings), m_workshop(workshop),
          m_origin(origin)
    {
    }

    Status collect(const std::stop_token &stop, const ExportProgress &progress)
    {
        addVerdicts();
        addPieces();
        addValues();
        std::set<RawFileId> taken;
        std::size_t done = 0;
        for (const Piece &piece : m_study.pieces) {
            if (stop.stop_requested())
                return Error{ErrorCode::Cancelled, "the open data were stopped; nothing was written", {}};
            if (progress)
                progress(++done, m_study.pieces.size());
            if (!piece.recording)
                continue;
            if (taken.insert(piece.recording->file).second) {
                const Result<RawFileInfo> info = m_project.rawFileInfo(piece.recording->file);
                Result<std::string> bytes = m_project.rawBytes(piece.recording->file);
                if (!info || !bytes)
                    return info ? bytes.error() : info.error();
                m_files.push_back({"raw/" + m_rawNames.nameFor(info->name), std::move(*bytes),
                                   "Raw record as it came: " + info->name});
            }
            const Result<PieceRecord> record = keptRecord(m_project, m_study, piece, m_workshop);
            if (record && !record->reading.columns.empty())
                addCurve(piece, *record);
        }
        m_files.push_back({"recompute.py", kRecomputePython, "Recomputes the first verdict: Python"});
        m_files.push_back({"recompute.R", kRecomputeR, "Recomputes the first verdict: R"});
        m_files.push_back({"README.md", kOpenDataReadme, "What stands where"});
        std::string description = description_json();
        m_files.insert(m_files.begin(), {"datapackage.json", std::move(description), {}});
        return ok();
    }

    [[nodiscard]] const std::vector<PackedFile> &files() const { return m_files; }
    [[nodiscard]] std::size_t values() const { return m_values; }

private:
    void addVerdicts()
    {
        const std::vector<TidyField> fields{
            {"test", "string", "kind of test"},
            {"property", "string", "what was read"},
            {"unit", "string", "of the numbers of this row"},
            {"rail", "string", "condition"},
            {"is_reference", "integer", "1: all others are compared with it"},
            {"n", "integer", "pieces that count"},
            {"bounds", "integer", "how many of them are lower bounds"},
            {"from_summary", "string", "where mean, scatter and n come from that no pieces here have"},
            {"mean", "number", "of these; bounds at face value"},
            {"sd", "number", "scatter of single pieces"},
            {"effect", "number", "ratio to the reference's mean, or difference"},
            {"effect_low", "number", "of the interval that holds with all others"},
            {"effect_high", "number", "its upper end"},
            {"scale", "string", "ratio or difference"},
            {"spread", "string", "common, own or moderated scatter"},
            {"family", "string", "what is compared with what"},
            {"confidence", "number", "of all intervals together"},
            {"sentence", "string", "what the program says"},
            {"procedure", "string", "how it was compared"}};
        std::string table = heading(fields);
        for (const Response &response : responsesOf(m_study)) {
            const StudyComparison comparison =
                compareStudy(m_study, m_readings, response.property,
                             {.test = response.test, .detail = ComparisonDetail::Sentences});
            const StudyVerdict verdict = verdictOf(m_study, comparison);
            for (std::size_t i = 0; i < comparison.rails.size(); ++i) {
                const RailComparison &rail = comparison.rails[i];
                for (const PieceValue &value : rail.values)
                    m_counting[{std::string(response.property.name), value.piece}] = value.counts();
                const Effect *effect = !rail.isReference && rail.effect ? &*rail.effect : nullptr;
                const auto number = [&](double Interval::*end) {
                    return effect != nullptr ? csvNumber(effect->ci.*end) : std::string();
                };
                table += row(
                    {csvText(methodName(response.test)), std::string(response.property.name),
                     std::string(symbolInFiles(response.property.dimension)),
                     csvText(titleOf(rail.condition)), flag(rail.isReference), std::to_string(rail.summary.n),
                     std::to_string(rail.bounds), rail.told ? csvText(rail.told->source) : std::string(),
                     csvNumber(rail.summary.mean), csvNumber(rail.summary.sd),
                     effect != nullptr ? csvNumber(effect->estimate) : std::string(), number(&Interval::low),
                     number(&Interval::high), comparison.asRatio ? "ratio" : "difference",
                     spreadName(comparison), familyName(comparison), csvNumber(comparison.claimConfidence()),
                     csvText(verdict.rails[i].sentence), csvText(verdict.procedure)});
            }
        }
        m_files.push_back({"verdicts.csv", std::move(table), "What was claimed of each rail", fields});
    }

    static std::string spreadName(const StudyComparison &comparison)
    {
        if (!comparison.procedure || comparison.procedure->spread == Spread::Common)
            return "common";
        return comparison.procedure->spread == Spread::Moderated ? "moderated"
               : comparison.procedure->isOwnBySizes              ? "own of the smaller"
                                                                 : "own";
    }

    /// Two rails, any difference and a trend are claimed against the reference as well.
    static std::string familyName(const StudyComparison &comparison)
    {
        if (!comparison.procedure)
            return {};
        switch (comparison.procedure->comparison) {
        case Comparison::AllPairs:
        case Comparison::BeforeAfter:
            return comparisonName(comparison.procedure->comparison);
        default:
            return "reference";
        }
    }

    [[nodiscard]] std::string titleOf(ConditionId rail) const
    {
        return distinctTitle(m_study, *findCondition(m_study, rail));
    }

    void addPieces()
    {
        std::vector<TidyField> fields{{"piece", "string", "code, unique in the study"},
                                      {"test", "string", "that it was made for"},
                                      {"rail", "string", "condition"}};
        std::set<std::string> names{"piece", "test", "rail", "orientation", "material"};
        for (const Factor &factor : m_study.factors) {
            std::string name = fieldName(factor.name + (factor.unit.empty() ? "" : "_" + factor.unit));
            while (!names.insert(name).second)
                name += "_level";
            fields.push_back({name, "string",
                              "level of " + factor.name + (factor.unit.empty() ? "" : " in " + factor.unit)});
        }
        for (const TidyField &field :
             std::initializer_list<TidyField>{{"orientation", "string", "flat or standing on the plate"},
                                              {"material", "string", "polymer and lot"},
                                              {"width_mm", "number", "of the section"},
                                              {"thickness_mm", "number", "of the section"},
                                              {"diameter_mm", "number", "of a round section"},
                                              {"area_mm2", "number", "of the section"},
                                              {"mass_g", "number", "as weighed"},
                                              {"left_out", "string", "why it does not count; empty: it does"},
                                              {"note", "string", "what was noted"}})
            fields.push_back(field);
        std::string table = heading(fields);
        for (const Piece &piece : m_study.pieces) {
            const Condition &condition = *findCondition(m_study, piece.condition);
            std::vector<std::string> cells{csvText(piece.code), csvText(methodName(piece.test)),
                                           csvText(titleOf(piece.condition))};
            for (std::size_t i = 0; i < m_study.factors.size(); ++i)
                cells.push_back(csvText(i < condition.levels.size() ? condition.levels[i] : std::string()));
            cells.emplace_back(orientationName(condition.orientation));
            cells.push_back(csvText(condition.material));
            cells.push_back(sectionCells(piece.section)); // four of them
            cells.push_back(csvNumber(correctedMass_g(piece.log)));
            cells.push_back(piece.exclusion ? csvText(piece.exclusion->reason) : std::string());
            cells.push_back(csvText(piece.log.note));
            table += row(cells);
        }
        m_files.push_back({"pieces.csv", std::move(table), "Pieces", std::move(fields)});
    }

    void addValues()
    {
        const std::vector<TidyField> fields{
            {"piece", "string", "code"},
            {"rail", "string", "condition"},
            {"test", "string", "kind of test"},
            {"property", "string", "what was read"},
            {"label", "string", "which of several values, or the word that was seen"},
            {"value", "number", "in the unit beside it"},
            {"unit", "string", "SI; empty for a plain number"},
            {"at_least", "integer", "1: the true value lies at or above"},
            {"counts", "integer", "0: left out, or of another kind of break"},
            {"standard_uncertainty", "number", "of this value from section and gauge"}};
        std::string table = heading(fields);
        for (const Piece &piece : m_study.pieces) {
            const PieceReading *reading = readingOf(m_readings, piece.id);
            if (reading == nullptr)
                continue;
            for (const ReadValue &value : reading->result.values) {
                const Result<Property> property = findProperty(*reductionOf(piece.test), value.property);
                const auto counted = m_counting.find({value.property, piece.id});
                table += row({csvText(piece.code), csvText(titleOf(piece.condition)),
                              csvText(methodName(piece.test)), value.property,
                              csvText(property && property->scale == Scale::Word
                                          ? valueText(*property, value.number, 1, {})
                                          : value.label),
                              csvNumber(value.number),
                              property ? std::string(symbolInFiles(property->dimension)) : std::string(),
                              flag(value.bound != BoundReason::None),
                              flag(counted == m_counting.end() ? !piece.exclusion : counted->second),
                              csvNumber(value.uncertainty)});
                ++m_values;
            }
        }
        m_files.push_back({"values.csv", std::move(table), "Values that were read", fields});
    }

    void addCurve(const Piece &piece, const PieceRecord &record)
    {
        std::vector<TidyField> fields;
        for (const NamedColumn &column : record.reading.columns)
            fields.push_back({column.name, "number", "sample by sample"});
        m_files.push_back({"curves/" + m_curveNames.nameFor(piece.code, ".csv"), curveCsv(record),
                           "Record of piece " + piece.code + " as it was understood", std::move(fields)});
    }

    [[nodiscard]] std::string description_json() const
    {
        OrderedJson resources = OrderedJson::array();
        std::set<std::string> names;
        for (const PackedFile &file : m_files) {
            std::string name = fieldName(file.path);
            for (int i = 2; !names.insert(name).second; ++i)
                name = fieldName(file.path) + "_" + std::to_string(i);
            OrderedJson resource{{"name", name}, {"path", file.path}, {"title", file.title}};
            const std::string ending = fs::path(file.path).extension().string();
            resource["format"] = ending.empty() ? "bin" : ending.substr(1);
            resource["bytes"] = file.bytes.size();
            resource["hash"] = "sha256:" + sha256Of(file.bytes);
            if (!file.fields.empty()) {
                resource["profile"] = "tabular-data-resource";
                resource["mediatype"] = "text/csv";
                resource["encoding"] = "utf-8";
                OrderedJson schema = OrderedJson::array();
                for (const TidyField &field : file.fields)
                    schema.push_back(
                        {{"name", field.name}, {"type", field.type}, {"description", field.description}});
                resource["schema"] = {{"fields", schema}, {"missingValues", {""}}};
                if (file.path == "pieces.csv")
                    resource["schema"]["primaryKey"] = "piece";
            } else {
                resource["profile"] = "data-resource";
            }
            resources.push_back(std::move(resource));
        }
        const OrderedJson package{
            {"profile", "data-package"},
            {"name", "study-" + std::to_string(m_study.id.value)},
            {"title", m_study.question},
            {"description", "Mechanical tests of printed specimens: raw records, values, verdicts."},
            {"created", m_origin.writtenAt + "T00:00:00Z"},
            {"sources", {{{"title", footOf(m_origin)}}}},
            {"resources", resources}};
        return package.dump(1) + '\n';
    }

    ProjectFile &m_project;
    const Study &m_study;
    const PieceReadings &m_readings;
    const Workshop &m_workshop;
    const ReportOrigin &m_origin;
    Counting m_counting;
    NameSource m_rawNames;
    NameSource m_curveNames;
    std::vector<PackedFile> m_files;
    std::size_t m_values = 0;
};

/// The archive's bytes. Errors: Storage.
Result<std::string> zipOf(const std::vector<PackedFile> &files)
{
    const auto cannot = [](std::string_view why) {
        return Error{ErrorCode::Storage, fmt::format("the archive cannot be packed: {}", why), {}};
    };
    zip_error_t failure;
    zip_error_init(&failure);
    zip_source_t *packed = zip_source_buffer_create(nullptr, 0, 0, &failure);
    zip_t *archive =
        packed == nullptr ? nullptr : zip_open_from_source(packed, ZIP_CREATE | ZIP_TRUNCATE, &failure);
    if (archive == nullptr) {
        zip_source_free(packed);
        return cannot(zip_error_strerror(&failure));
    }
    zip_source_keep(packed); // beyond the archive, which frees its own hold of it
    const std::unique_ptr<zip_source_t, decltype(&zip_source_free)> kept(packed, &zip_source_free);
    for (const PackedFile &file : files) {
        zip_source_t *source = zip_source_buffer(archive, file.bytes.data(), file.bytes.size(), 0);
        if (source == nullptr || zip_file_add(archive, file.path.c_str(), source, ZIP_FL_ENC_UTF_8) < 0) {
            const Error told = cannot(zip_strerror(archive));
            zip_source_free(source);
            zip_discard(archive);
            return told;
        }
    }
    if (zip_close(archive) != 0) {
        const Error told = cannot(zip_strerror(archive));
        zip_discard(archive);
        return told;
    }
    zip_stat_t about;
    if (zip_source_stat(packed, &about) != 0 || zip_source_open(packed) != 0)
        return cannot(zip_error_strerror(zip_source_error(packed)));
    std::string bytes(about.size, '\0');
    const zip_int64_t got = zip_source_read(packed, bytes.data(), bytes.size());
    zip_source_close(packed);
    if (got != static_cast<zip_int64_t>(bytes.size()))
        return cannot(zip_error_strerror(zip_source_error(packed)));
    return bytes;
}

Status writeZip(const std::vector<PackedFile> &files, const std::string &path)
{
    const Result<std::string> bytes = zipOf(files);
    return bytes ? writeFileBytes(path, *bytes) : Status(bytes.error());
}

Status writeFolder(const std::vector<PackedFile> &files, const std::string &path)
{
    Result<FolderToBe> folder = FolderToBe::begin(path);
    if (!folder)
        return folder.error();
    for (const PackedFile &file : files) {
        if (const Status written = folder->write(file.path, file.bytes); !written)
            return written;
    }
    return folder->finish();
}

} // namespace

Result<OpenDataWritten> writeOpenData(ProjectFile &project, StudyId study, const std::string &to,
                                      const ReportOrigin &origin, const std::stop_token &stop,
                                      const ExportProgress &progress)
{
    const Result<ProjectResults> all = readStudyResults(project, study, Keeping::No);
    if (!all)
        return all.error();
    const Result<StudyResults> found = all->of(study);
    if (!found)
        return found.error();
    Package package(project, *found, all->workshop, origin);
    if (const Status collected = package.collect(stop, progress); !collected)
        return collected.error();
    const bool isZip = smallLetters(to).ends_with(".zip");
    if (const Status written = isZip ? writeZip(package.files(), to) : writeFolder(package.files(), to);
        !written)
        return written.error();
    return OpenDataWritten{package.files().size(), package.values()};
}

} // namespace inchpeg
