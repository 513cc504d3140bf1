// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/project_text.h"

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
constexpr int kVersion = 1;
constexpr std::int64_t kLargestId = std::int64_t{1} << 53U; ///< what every reader of JSON can hold

template <typename Q>
Json siOrNull(const std::optional<Q> &quantity)
{
    return quantity ? Json(quantity->si()) : Json();
}

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
                 {"section", sectionJson(piece.section)}};
    if (piece.recording)
        json["recording"] = {{"raw_file", piece.recording->file.value},
                             {"columns", mappingText(piece.recording->mapping)}};
    if (piece.exclusion)
        json["left_out"] = {
            {"reason", piece.exclusion->reason}, {"by", piece.exclusion->who}, {"at", piece.exclusion->when}};
    for (const auto &[marker, placed] : piece.markers)
        json["markers"].push_back({{"marker", markerName(marker)},
                                   {"place", placed.at ? Json(*placed.at) : Json()},
                                   {"reason", placed.reason},
                                   {"by", placed.who},
                                   {"at", placed.when}});
    return json;
}

Json studyJson(const Study &study)
{
    const ReadingRules &rules = study.rules;
    Json json = {{"id", study.id.value},
                 {"question", study.question},
                 {"method", methodName(study.method)},
                 {"factor", {{"name", study.factorName}, {"unit", study.factorUnit}}},
                 {"reference", study.reference.value},
                 {"smallest_difference", study.smallestDifference},
                 {"pieces_per_condition", study.piecesPerCondition},
                 {"section_shape", sectionShapeName(study.sectionShape)},
                 {"rules",
                  {{"gauge_length_m", siOrNull(rules.gaugeLength)},
                   {"grip_distance_m", siOrNull(rules.gripDistance)},
                   {"capacity_N", siOrNull(rules.capacity)},
                   {"toe_correction", rules.toeCorrection},
                   {"modulus_from", rules.lowStrain},
                   {"modulus_to", rules.highStrain},
                   {"offset_strain", rules.offsetStrain},
                   {"break_drop", rules.breakDrop}}},
                 {"conditions", Json::array()},
                 {"pieces", Json::array()}};
    for (const Condition &condition : study.conditions)
        json["conditions"].push_back({{"id", condition.id.value},
                                      {"level", condition.level},
                                      {"orientation", orientationName(condition.orientation)},
                                      {"material", condition.material}});
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

HandMarkers markersFrom(const Json &list)
{
    HandMarkers markers;
    for (const Json &json : list) {
        const std::optional<Marker> marker = markerFrom(json.at("marker").get<std::string>());
        if (!marker)
            throw std::invalid_argument(
                fmt::format("the marker \"{}\" is not known", json.at("marker").get<std::string>()));
        const Json &place = json.at("place");
        markers[*marker] = {place.is_null() ? std::nullopt : std::optional(place.get<double>()),
                            json.at("reason").get<std::string>(), json.at("by").get<std::string>(),
                            json.at("at").get<std::string>()};
    }
    return markers;
}

Piece pieceFrom(const Json &json)
{
    Piece piece;
    piece.id = PieceId{wholeNumber(json.at("id"))};
    piece.code = json.at("code").get<std::string>();
    piece.condition = ConditionId{wholeNumber(json.at("condition"))};
    piece.section = sectionFrom(json.at("section"));
    if (json.contains("recording")) {
        const Json &recording = json.at("recording");
        const Result<ColumnMapping> mapping = mappingFromText(recording.at("columns").get<std::string>());
        if (!mapping)
            throw std::invalid_argument(mapping.error().message);
        piece.recording = Recording{RawFileId{wholeNumber(recording.at("raw_file"))}, *mapping};
    }
    if (json.contains("left_out")) {
        const Json &out = json.at("left_out");
        piece.exclusion = Exclusion{out.at("reason").get<std::string>(), out.at("by").get<std::string>(),
                                    out.at("at").get<std::string>()};
    }
    if (json.contains("markers"))
        piece.markers = markersFrom(json.at("markers"));
    return piece;
}

Study studyFrom(const Json &json)
{
    Study study;
    study.id = StudyId{wholeNumber(json.at("id"))};
    study.question = json.at("question").get<std::string>();
    study.method =
        oneOf<Method>(json.at("method"), {{methodName(Method::Tension), Method::Tension},
                                          {methodName(Method::LayerAdhesion), Method::LayerAdhesion}});
    study.factorName = json.at("factor").at("name").get<std::string>();
    study.factorUnit = json.at("factor").at("unit").get<std::string>();
    study.reference = ConditionId{wholeNumber(json.at("reference"))};
    study.smallestDifference = json.at("smallest_difference").get<double>();
    study.piecesPerCondition = static_cast<int>(wholeNumber(json.at("pieces_per_condition")));
    study.sectionShape = oneOf<SectionShape>(
        json.at("section_shape"), {{sectionShapeName(SectionShape::Rectangular), SectionShape::Rectangular},
                                   {sectionShapeName(SectionShape::Round), SectionShape::Round},
                                   {sectionShapeName(SectionShape::PlainArea), SectionShape::PlainArea}});
    const Json &rules = json.at("rules");
    study.rules.gaugeLength = quantityFrom<Length>(rules.at("gauge_length_m"));
    study.rules.gripDistance = quantityFrom<Length>(rules.at("grip_distance_m"));
    study.rules.capacity = quantityFrom<Force>(rules.at("capacity_N"));
    study.rules.toeCorrection = rules.at("toe_correction").get<bool>();
    study.rules.lowStrain = rules.at("modulus_from").get<double>();
    study.rules.highStrain = rules.at("modulus_to").get<double>();
    study.rules.offsetStrain = rules.at("offset_strain").get<double>();
    study.rules.breakDrop = rules.at("break_drop").get<double>();
    for (const Json &condition : json.at("conditions"))
        study.conditions.push_back(
            {ConditionId{wholeNumber(condition.at("id"))}, condition.at("level").get<std::string>(),
             oneOf<Orientation>(condition.at("orientation"),
                                {{orientationName(Orientation::Flat), Orientation::Flat},
                                 {orientationName(Orientation::Standing), Orientation::Standing}}),
             condition.at("material").get<std::string>()});
    for (const Json &piece : json.at("pieces"))
        study.pieces.push_back(pieceFrom(piece));
    return study;
}

/// Ids must be new ones below next_id, and whatever refers to another thing must find it.
void checkReferences(const ProjectContents &contents)
{
    std::set<std::int64_t> ids;
    const auto take = [&](std::int64_t id) {
        if (id < 1 || id >= contents.nextId || !ids.insert(id).second)
            throw std::invalid_argument(fmt::format("the id {} occurs twice or is not below next_id", id));
    };
    for (const RawFileInfo &file : contents.rawFiles)
        take(file.id.value);
    for (const Study &study : contents.studies) {
        take(study.id.value);
        for (const Condition &condition : study.conditions)
            take(condition.id.value);
        for (const Piece &piece : study.pieces) {
            take(piece.id.value);
            if (findCondition(study, piece.condition) == nullptr)
                throw std::invalid_argument(
                    fmt::format("piece {} names a condition that is not there", piece.code));
            const bool known =
                !piece.recording ||
                std::any_of(contents.rawFiles.begin(), contents.rawFiles.end(),
                            [&](const RawFileInfo &file) { return file.id == piece.recording->file; });
            if (!known)
                throw std::invalid_argument(
                    fmt::format("piece {} names a raw file that is not there", piece.code));
        }
    }
}

} // namespace

std::string projectText(const ProjectContents &contents,
                        const std::function<std::string(const RawFileInfo &)> &rawPath)
{
    Json json = {{"format", kFormat},
                 {"version", kVersion},
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
    return json.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<ParsedProject> projectFromText(std::string_view text)
{
    try {
        const Json json = Json::parse(text);
        if (!json.is_object() || json.value("format", "") != kFormat)
            return badInput("is no export of an Inch Peg project");
        if (const std::int64_t version = wholeNumber(json.at("version")); version > kVersion)
            return badInput(fmt::format("was written by a newer Inch Peg (version {}, this one knows {})",
                                        version, kVersion));
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
        for (const Json &study : json.at("studies"))
            contents.studies.push_back(studyFrom(study));
        contents.settings = json.at("settings").get<std::map<std::string, std::string>>();
        contents.rememberedMappings =
            json.at("remembered_mappings").get<std::map<std::string, std::string>>();
        checkReferences(contents);
        return parsed;
    } catch (const Json::exception &failure) {
        return badInput(fmt::format("is not readable as an export: {}", failure.what()));
    } catch (const std::invalid_argument &failure) {
        return badInput(failure.what());
    }
}

} // namespace inchpeg
