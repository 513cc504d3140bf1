// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_text.h"

#include "core/base/json_text.h"
#include "core/model/former_tests.h"
#include "core/model/rail_summary.h"
#include "core/model/study_check.h"
#include "core/model/workshop.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <set>
#include <stdexcept>

namespace inchpeg
{

namespace
{

/// Keys stay in the order in which they are written, so that the text reads from the question downwards.
using Json = nlohmann::ordered_json;

constexpr const char *kFormat = "inch-peg export";
/// 1 had one factor a study and no plan, 2 no logs and no history, 3 no list of tests, 4 no summaries of
/// rails.
constexpr std::int64_t kLargestId = std::int64_t{1} << 53U; ///< what every reader of JSON can hold

template <typename Q>
std::optional<Q> quantityFrom(const Json &json)
{
    return json.is_null() ? std::nullopt : std::optional(Q::fromSi(json.get<double>()));
}

Json sectionJson(const std::optional<Section> &section)
{
    if (!section)
        return {};
    if (const auto *rectangle = std::get_if<RectangularSection>(&*section))
        return {{"width_m", rectangle->width.si()}, {"thickness_m", rectangle->thickness.si()}};
    if (const auto *round = std::get_if<RoundSection>(&*section))
        return {{"diameter_m", round->diameter.si()}};
    return {{"area_m2", std::get<PlainArea>(*section).area.si()}};
}

std::optional<Section> sectionFrom(const Json &json)
{
    if (json.is_null())
        return std::nullopt;
    if (json.contains("width_m"))
        return RectangularSection{Length::fromSi(json.at("width_m").get<double>()),
                                  Length::fromSi(json.at("thickness_m").get<double>())};
    if (json.contains("diameter_m"))
        return RoundSection{Length::fromSi(json.at("diameter_m").get<double>())};
    return PlainArea{Area::fromSi(json.at("area_m2").get<double>())};
}

Json pieceJson(const Piece &piece)
{
    Json json = {{"id", piece.id.value},
                 {"code", piece.code},
                 {"condition", piece.condition.value},
                 {"section", sectionJson(piece.section)},
                 {"test", methodName(piece.test)}};
    if (piece.recording) {
        json["recording"] = {{"raw_file", piece.recording->file.value},
                             {"columns", mappingText(piece.recording->mapping)}};
        if (piece.recording->gauge)
            json["recording"]["recorded_with"] = parsedJson(usedGaugeText(*piece.recording->gauge));
    }
    if (piece.exclusion)
        json["left_out"] = {
            {"reason", piece.exclusion->reason}, {"by", piece.exclusion->who}, {"at", piece.exclusion->when}};
    for (const auto &[marker, placed] : handMarkersOf(piece))
        json["markers"].push_back({{"marker", marker},
                                   {"place", placed->at ? Json(*placed->at) : Json()},
                                   {"reason", placed->reason},
                                   {"by", placed->who},
                                   {"at", placed->when}});
    if (const std::string log = pieceLogText(piece.log); log != "{}")
        json["log"] = parsedJson(log);
    if (!piece.log.note.empty())
        json["note"] = piece.log.note;
    for (const Photo &photo : piece.log.photos)
        json["photos"].push_back({{"raw_file", photo.file.value},
                                  {"caption", photo.caption},
                                  {"by", photo.who},
                                  {"at", photo.when}});
    return json;
}

Json studyJson(const Study &study)
{
    Json json = {{"id", study.id.value},
                 {"question", study.question},
                 {"tests", parsedJson(testsText(study.tests))},
                 {"factors", Json::array()},
                 {"reference", study.reference.value},
                 {"smallest_difference", study.smallestDifference},
                 {"section_shape", sectionShapeName(study.sectionShape)},
                 {"conditions", Json::array()},
                 {"pieces", Json::array()},
                 {"plan", parsedJson(planText(study.plan))},
                 {"log", parsedJson(studyLogText(study.log))}};
    for (const Factor &factor : study.factors)
        json["factors"].push_back({{"name", factor.name},
                                   {"unit", factor.unit},
                                   {"changed_per", changedPerName(factor.changedPer)}});
    for (const Condition &condition : study.conditions) {
        json["conditions"].push_back({{"id", condition.id.value},
                                      {"levels", condition.levels},
                                      {"orientation", orientationName(condition.orientation)},
                                      {"material", condition.material}});
        if (!condition.summaries.empty())
            json["conditions"].back()["summaries"] = parsedJson(summariesText(condition.summaries));
    }
    for (const Piece &piece : study.pieces)
        json["pieces"].push_back(pieceJson(piece));
    return json;
}

/// A fraction or a number too large for its place is refused, not cut.
std::int64_t wholeNumber(const Json &json)
{
    if (!json.is_number_integer() ||
        (json.is_number_unsigned() && json.get<std::uint64_t>() > static_cast<std::uint64_t>(kLargestId)))
        throw std::invalid_argument(fmt::format("{} is no whole number that may stand there", json.dump()));
    return json.get<std::int64_t>();
}

/// A word of a closed list, or a failure that names the list.
template <typename T>
T oneOf(const Json &json, std::initializer_list<std::pair<std::string_view, T>> words)
{
    const auto text = json.get<std::string>();
    std::string known;
    for (const auto &[word, value] : words) {
        if (text == word)
            return value;
        known += (known.empty() ? "\"" : ", \"") + std::string(word) + "\"";
    }
    throw std::invalid_argument(fmt::format("\"{}\" is none of {}", text, known));
}

Method methodNamed(const Json &json)
{
    const auto name = json.get<std::string>();
    if (const std::optional<Method> method = methodFrom(name))
        return *method;
    throw std::invalid_argument(fmt::format("\"{}\" is no known test", name));
}

/// Version 1 has one "factor", later ones a list.
std::vector<Factor> factorsFrom(const Json &study)
{
    if (!study.contains("factors"))
        return {{study.at("factor").at("name").get<std::string>(),
                 study.at("factor").at("unit").get<std::string>(), ChangedPer::Plate}};
    std::vector<Factor> factors;
    for (const Json &json : study.at("factors"))
        factors.push_back({json.at("name").get<std::string>(), json.at("unit").get<std::string>(),
                           changedPerFrom(json.at("changed_per").get<std::string>())});
    if (factors.empty() || factors.size() > kMostFactors)
        throw std::invalid_argument(fmt::format("a study has one to {} factors", kMostFactors));
    return factors;
}

std::vector<std::string> levelsFrom(const Json &condition, std::size_t factors)
{
    if (!condition.contains("levels"))
        return {condition.at("level").get<std::string>()};
    auto levels = condition.at("levels").get<std::vector<std::string>>();
    if (levels.size() != factors)
        throw std::invalid_argument(fmt::format("condition {} has {} levels for {} factors",
                                                condition.at("id").dump(), levels.size(), factors));
    return levels;
}

HandMarkers markersFrom(const Json &list)
{
    HandMarkers markers;
    for (const Json &json : list) {
        const auto marker = json.at("marker").get<std::string>();
        if (!isKnownMarker(marker))
            throw std::invalid_argument(fmt::format("the marker \"{}\" is not known", marker));
        const Json &place = json.at("place");
        markers[marker] = {place.is_null() ? std::nullopt : std::optional(place.get<double>()),
                           json.at("reason").get<std::string>(), json.at("by").get<std::string>(),
                           json.at("at").get<std::string>()};
    }
    return markers;
}

/// A part that has a text form of its own.
template <typename T>
T partFrom(const Json &json, Result<T> (*read)(std::string_view))
{
    Result<T> part = read(json.dump());
    if (!part)
        throw std::invalid_argument(part.error().message);
    return std::move(*part);
}

/// first: the test of a piece that names none, up to version 3.
Piece pieceFrom(const Json &json, Method first)
{
    Piece piece;
    piece.id = PieceId{wholeNumber(json.at("id"))};
    piece.code = json.at("code").get<std::string>();
    piece.condition = ConditionId{wholeNumber(json.at("condition"))};
    piece.section = sectionFrom(json.at("section"));
    piece.test = json.contains("test") ? methodNamed(json.at("test")) : first;
    if (json.contains("recording")) {
        const Json &recording = json.at("recording");
        const Result<ColumnMapping> mapping = mappingFromText(recording.at("columns").get<std::string>());
        if (!mapping)
            throw std::invalid_argument(mapping.error().message);
        piece.recording = Recording{RawFileId{wholeNumber(recording.at("raw_file"))}, *mapping};
        if (recording.contains("recorded_with"))
            piece.recording->gauge = partFrom(recording.at("recorded_with"), usedGaugeFromText);
    }
    if (json.contains("left_out")) {
        const Json &out = json.at("left_out");
        piece.exclusion = Exclusion{out.at("reason").get<std::string>(), out.at("by").get<std::string>(),
                                    out.at("at").get<std::string>()};
    }
    if (json.contains("markers"))
        piece.markers = markersFrom(json.at("markers"));
    if (json.contains("log"))
        piece.log = partFrom(json.at("log"), pieceLogFromText);
    piece.log.note = json.value("note", std::string());
    for (const Json &photo : json.value("photos", Json::array()))
        piece.log.photos.push_back({RawFileId{wholeNumber(photo.at("raw_file"))},
                                    photo.at("caption").get<std::string>(), photo.at("by").get<std::string>(),
                                    photo.at("at").get<std::string>()});
    return piece;
}

/// Up to version 3 the study held its own test's parts, and its plan further ones.
std::vector<StudyTest> testsOfStudy(const Json &json)
{
    if (json.contains("tests"))
        return partFrom(json.at("tests"), testsFromText);
    const Json &rules = json.at("rules");
    const FormerRules former{
        quantityFrom<Length>(rules.at("gauge_length_m")), quantityFrom<Length>(rules.at("grip_distance_m")),
        quantityFrom<Force>(rules.at("capacity_N")),      rules.at("toe_correction").get<bool>(),
        rules.at("modulus_from").get<double>(),           rules.at("modulus_to").get<double>(),
        rules.at("offset_strain").get<double>(),          rules.at("break_drop").get<double>()};
    Result<std::vector<StudyTest>> tests = testsOfFormerPlan(
        methodNamed(json.at("method")), static_cast<int>(wholeNumber(json.at("pieces_per_condition"))),
        json.contains("plan") ? json.at("plan").dump() : "{}", former);
    if (!tests)
        throw std::invalid_argument("the plan " + tests.error().message);
    return std::move(*tests);
}

Study studyFrom(const Json &json)
{
    Study study;
    study.id = StudyId{wholeNumber(json.at("id"))};
    study.question = json.at("question").get<std::string>();
    study.factors = factorsFrom(json);
    study.reference = ConditionId{wholeNumber(json.at("reference"))};
    study.smallestDifference = json.at("smallest_difference").get<double>();
    study.sectionShape = oneOf<SectionShape>(
        json.at("section_shape"), {{sectionShapeName(SectionShape::Rectangular), SectionShape::Rectangular},
                                   {sectionShapeName(SectionShape::Round), SectionShape::Round},
                                   {sectionShapeName(SectionShape::PlainArea), SectionShape::PlainArea}});
    study.tests = testsOfStudy(json);
    for (const Json &condition : json.at("conditions"))
        study.conditions.push_back(
            {ConditionId{wholeNumber(condition.at("id"))}, levelsFrom(condition, study.factors.size()),
             oneOf<Orientation>(condition.at("orientation"),
                                {{orientationName(Orientation::Flat), Orientation::Flat},
                                 {orientationName(Orientation::Standing), Orientation::Standing}}),
             condition.at("material").get<std::string>(),
             condition.contains("summaries") ? partFrom(condition.at("summaries"), summariesFromText)
                                             : std::vector<RailSummary>()});
    for (const Json &piece : json.at("pieces"))
        study.pieces.push_back(pieceFrom(piece, methodOf(study)));
    if (json.contains("plan")) {
        Result<Plan> plan = planFromText(json.at("plan").dump());
        if (!plan)
            throw std::invalid_argument("the plan " + plan.error().message);
        study.plan = std::move(*plan);
    }
    if (json.contains("log"))
        study.log = partFrom(json.at("log"), studyLogFromText);
    return study;
}

[[noreturn]] void refuse(std::string why)
{
    throw std::invalid_argument(std::move(why));
}

void checkStudyIn(const Study &study, const std::set<RawFileId> &rawFiles)
{
    if (const StudyFindings findings = checkStudy(study); !findings.broken.empty())
        refuse(fmt::format("the study \"{}\": {}", study.question, findings.broken.front()));
    for (const Piece &piece : study.pieces) {
        const bool known = (!piece.recording || rawFiles.contains(piece.recording->file)) &&
                           std::all_of(piece.log.photos.begin(), piece.log.photos.end(),
                                       [&](const Photo &photo) { return rawFiles.contains(photo.file); });
        if (!known)
            refuse(fmt::format("piece {} names a raw file that is not there", piece.code));
    }
}

/// Ids must be new ones below next_id, and whatever refers to another thing must find it.
void checkReferences(const ProjectContents &contents)
{
    std::set<std::int64_t> ids;
    const auto take = [&](std::int64_t id) {
        if (id < 1 || id >= contents.nextId || !ids.insert(id).second)
            refuse(fmt::format("the id {} occurs twice or is not below next_id", id));
    };
    std::set<RawFileId> rawFiles;
    std::set<StudyId> studies;
    std::set<std::string> hashes;
    for (const RawFileInfo &file : contents.rawFiles) {
        take(file.id.value);
        rawFiles.insert(file.id);
        if (!hashes.insert(file.sha256).second)
            refuse(fmt::format("the raw file \"{}\" has the SHA-256 of another", file.name));
    }
    for (const Study &study : contents.studies) {
        take(study.id.value);
        studies.insert(study.id);
        for (const Condition &condition : study.conditions)
            take(condition.id.value);
        for (const Piece &piece : study.pieces)
            take(piece.id.value);
        checkStudyIn(study, rawFiles);
    }
    for (const KeptChange &kept : contents.history) {
        take(kept.id);
        if (!studies.contains(kept.study))
            refuse(fmt::format("the change {} names a study that is not there", kept.id));
    }
}

/// Gives an id to what has none, or one that the study does not know. now: ids as they were handed in, to the
/// ones that hold.
void giveIds(Json &things, const std::set<std::int64_t> &taken, const std::function<std::int64_t()> &takeId,
             std::map<std::int64_t, std::int64_t> &now)
{
    for (Json &thing : things) {
        const bool isNamed = thing.contains("id") && !thing.at("id").is_null();
        const std::int64_t given = isNamed ? wholeNumber(thing.at("id")) : 0;
        if (isNamed && now.contains(given))
            refuse(fmt::format("the id {} occurs twice", given));
        const std::int64_t id = isNamed && taken.contains(given) ? given : takeId();
        if (isNamed)
            now[given] = id;
        thing["id"] = id;
    }
}

void follow(Json &place, const std::map<std::int64_t, std::int64_t> &now)
{
    if (const auto found = now.find(wholeNumber(place)); found != now.end())
        place = found->second;
}

} // namespace

std::string studyText(const Study &study)
{
    return studyJson(study).dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<Study> studyFromText(std::string_view text, const Study &before,
                            const std::function<std::int64_t()> &takeId)
{
    try {
        Json json = parsedJson(text);
        if (!json.is_object() || !json.contains("conditions") || !json.contains("pieces"))
            return badInput(
                "is no study: an object with conditions and pieces is wanted, as \"project study\" "
                "writes it");
        std::set<std::int64_t> rails;
        std::set<std::int64_t> pieces;
        for (const Condition &rail : before.conditions)
            rails.insert(rail.id.value);
        for (const Piece &piece : before.pieces)
            pieces.insert(piece.id.value);
        std::map<std::int64_t, std::int64_t> railNow;
        std::map<std::int64_t, std::int64_t> pieceNow;
        giveIds(json.at("conditions"), rails, takeId, railNow);
        giveIds(json.at("pieces"), pieces, takeId, pieceNow);
        for (Json &piece : json.at("pieces"))
            follow(piece.at("condition"), railNow);
        follow(json.at("reference"), railNow);
        json["id"] = before.id.value;
        Study study = studyFrom(json);
        if (const StudyFindings findings = checkStudy(study); !findings.isSound())
            refuse(findings.broken.empty() ? findings.mendable.front() : findings.broken.front());
        return study;
    } catch (const Json::exception &failure) {
        return badInput(fmt::format("is not readable as a study: {}", jsonTrouble(failure)));
    } catch (const std::invalid_argument &failure) {
        return badInput(fmt::format("is not readable as a study: {}", failure.what()));
    }
}

std::string projectText(const ProjectContents &contents,
                        const std::function<std::string(const RawFileInfo &)> &rawPath)
{
    Json json = {{"format", kFormat},
                 {"version", kExportVersion},
                 {"created_at", contents.createdAt},
                 {"next_id", contents.nextId},
                 {"studies", Json::array()},
                 {"raw_files", Json::array()},
                 {"settings", contents.settings},
                 {"remembered_mappings", contents.rememberedMappings}};
    for (const Study &study : contents.studies)
        json["studies"].push_back(studyJson(study));
    for (const RawFileInfo &file : contents.rawFiles)
        json["raw_files"].push_back({{"id", file.id.value},
                                     {"name", file.name},
                                     {"sha256", file.sha256},
                                     {"size_bytes", file.sizeBytes},
                                     {"added_at", file.addedAt},
                                     {"path", rawPath(file)}});
    for (const KeptChange &kept : contents.history)
        json["history"].push_back({{"id", kept.id},
                                   {"study", kept.study.value},
                                   {"piece", kept.change.piece.value},
                                   {"what", kept.change.what},
                                   {"before", kept.change.before},
                                   {"after", kept.change.after},
                                   {"by", kept.change.who},
                                   {"at", kept.change.when}});
    return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<ParsedProject> projectFromText(std::string_view text)
{
    try {
        const Json json = parsedJson(text);
        if (!json.is_object() || json.value("format", "") != kFormat)
            return badInput("is no export of an Inch Peg project");
        if (const std::int64_t version = wholeNumber(json.at("version")); version > kExportVersion)
            return badInput(fmt::format("was written by a newer Inch Peg (version {}, this one knows {})",
                                        version, kExportVersion));
        ParsedProject parsed;
        ProjectContents &contents = parsed.contents;
        contents.createdAt = json.at("created_at").get<std::string>();
        contents.nextId = wholeNumber(json.at("next_id"));
        for (const Json &file : json.at("raw_files")) {
            contents.rawFiles.push_back(
                {RawFileId{wholeNumber(file.at("id"))}, file.at("name").get<std::string>(),
                 file.at("sha256").get<std::string>(), wholeNumber(file.at("size_bytes")),
                 file.at("added_at").get<std::string>()});
            parsed.rawPaths[contents.rawFiles.back().id] = file.at("path").get<std::string>();
        }
        for (const Json &study : json.at("studies")) {
            contents.studies.push_back(studyFrom(study));
            for (const std::string &mended : mendStudy(contents.studies.back()))
                parsed.mended.push_back(
                    fmt::format("the study \"{}\": {}", contents.studies.back().question, mended));
        }
        contents.settings = json.at("settings").get<std::map<std::string, std::string>>();
        contents.rememberedMappings =
            json.at("remembered_mappings").get<std::map<std::string, std::string>>();
        for (const Json &change : json.value("history", Json::array()))
            contents.history.push_back(
                {wholeNumber(change.at("id")),
                 StudyId{wholeNumber(change.at("study"))},
                 {PieceId{wholeNumber(change.at("piece"))}, change.at("what").get<std::string>(),
                  change.at("before").get<std::string>(), change.at("after").get<std::string>(),
                  change.at("by").get<std::string>(), change.at("at").get<std::string>()}});
        checkReferences(contents);
        for (const auto &[layout, mapping] : contents.rememberedMappings) {
            if (const Result<ColumnMapping> read = mappingFromText(mapping); !read)
                refuse(read.error().message);
        }
        return parsed;
    } catch (const Json::exception &failure) {
        return badInput(fmt::format("is not readable as an export: {}", jsonTrouble(failure)));
    } catch (const std::invalid_argument &failure) {
        return badInput(fmt::format("is not readable as an export: {}", failure.what()));
    }
}

} // namespace inchpeg
