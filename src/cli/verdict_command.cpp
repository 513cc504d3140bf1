// SPDX-License-Identifier: GPL-3.0-or-later
// What was read of a study, and what is said of it.
#include "cli/command.h"
#include "cli/open_project.h"
#include "cli/study_options.h"
#include "core/text/notation.h"
#include "service/project_report.h"
#include "service/told_verdict.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

/// A study of a project that is open for reading, with what is read of it.
struct StudyToTell {
    ProjectFile project;
    StudyId id;
    ProjectResults all;
    [[nodiscard]] StudyResults own() const { return *all.of(id); }
};
Result<StudyToTell> studyToTell(const Options &options,
                                Result<ProjectResults> (*read)(ProjectFile &project, StudyId study,
                                                               Keeping keeping))
{
    Result<ProjectFile> project = openToRead(options.positional().front());
    if (!project)
        return project.error();
    const Result<StudyId> id = studyNamed(*project, options.required("study"));
    if (!id)
        return id.error();
    Result<ProjectResults> all = read(*project, *id, Keeping::IfFree);
    if (!all)
        return all.error();
    if (const Result<StudyResults> own = all->of(*id); !own)
        return own.error();
    return StudyToTell{std::move(*project), *id, std::move(*all)};
}

// --- read --------------------------------------------------------------------------------------------------

Json valueJson(const Reduction &reduction, const ReadValue &value)
{
    const Result<Property> property = findProperty(reduction, value.property);
    Json json = {{"property", value.property},
                 {"value", value.number},
                 {"unit", property ? Json(symbolInFiles(property->dimension)) : Json(nullptr)},
                 {"bound", value.bound == BoundReason::None ? Json(nullptr) : Json("at least")},
                 {"standard_uncertainty", orNull(value.uncertainty)},
                 {"rule", property ? Json(property->definition) : Json(nullptr)}};
    if (value.bound != BoundReason::None)
        json["bound_since"] = boundReasonName(value.bound);
    if (!value.label.empty())
        json["label"] = value.label;
    return json;
}

Json marksJson(const Reading &reading, const Piece &piece)
{
    Json marks = Json::array();
    for (const Mark &mark : reading.marks) {
        const bool isByHand = !mark.name.empty() && piece.markers.contains(mark.name);
        marks.push_back({{"mark", mark.name.empty() ? Json(mark.label) : Json(mark.name)},
                         {"x", mark.x},
                         {"y", mark.y},
                         {"by_hand", isByHand}});
    }
    return marks;
}

Json readingJson(const Study &study, const Piece &piece, const PieceReadings &readings)
{
    const Notation notation;
    Json json = {{"piece", piece.code},
                 {"rail", distinctTitle(study, *findCondition(study, piece.condition))},
                 {"test", methodName(piece.test)},
                 {"given", isGiven(piece)},
                 {"left_out", piece.exclusion ? Json(piece.exclusion->reason) : Json(nullptr)},
                 {"error", nullptr},
                 {"readings", Json::array()},
                 {"marks", Json::array()},
                 {"checks", Json::array()},
                 {"warnings", Json::array()}};
    const auto found = readings.find(piece.id);
    if (found == readings.end())
        return json;
    if (!*found->second) {
        json["error"] = errorSentence(found->second->error());
        return json;
    }
    const PieceReading &reading = found->second->value();
    for (const ReadValue &value : reading.result.values)
        json["readings"].push_back(valueJson(*reductionOf(piece.test), value));
    json["marks"] = marksJson(reading.result, piece);
    if (!reading.result.kind.empty())
        json["kind"] = reading.result.kind;
    for (const Check &check : reading.result.validity)
        json["checks"].push_back(
            {{"rule", check.rule}, {"ok", check.ok}, {"detail", notation.expand(check.detail)}});
    for (const std::string &warning : reading.importWarnings)
        json["warnings"].push_back(warning);
    for (const std::string &warning : reading.result.warnings)
        json["warnings"].push_back(notation.expand(warning));
    return json;
}

Result<Outcome> readStudy(const Options &options)
{
    const Result<StudyToTell> at = studyToTell(options, &readStudyResults);
    if (!at)
        return at.error();
    const Study &study = *at->own().study;
    const std::optional<std::string> code = options.value("piece");
    Json pieces = Json::array();
    bool anyFound = !code;
    std::size_t failed = 0;
    for (const Piece &piece : study.pieces) {
        if (code && piece.code != *code)
            continue;
        anyFound = true;
        if (!piece.recording && !code)
            continue;
        pieces.push_back(readingJson(study, piece, *at->own().readings));
        failed += pieces.back()["error"].is_null() ? 0U : 1U;
    }
    if (!anyFound) {
        Study copy = study;
        return pieceNamed(copy, *code).error();
    }
    return Outcome{
        {{"study", at->id.value}, {"question", study.question}, {"pieces", pieces}, {"unread", failed}},
        {},
        false};
}

// --- verdict -----------------------------------------------------------------------------------------------

/// The effect of a rail beside the reference, as the sentences round it.
Json besideJson(const StudyComparison &comparison, const RailComparison &rail, const RailVerdict &verdict)
{
    if (rail.isReference)
        return nullptr;
    Json beside = Json::object();
    const char *scale = comparison.asRatio ? "ratio" : "difference";
    if (rail.effect) {
        beside[scale] = rail.effect->estimate;
        beside["ci"] = orNull(std::optional(rail.effect->ci));
    } else {
        beside[scale] = nullptr;
        beside["ci"] = nullptr;
    }
    beside["p"] = rail.grades ? Json(rail.grades->adjusted) : orNull(rail.familyP);
    beside["claim"] = claimName(verdict);
    if (rail.effectBound != EffectBound::None)
        beside["is"] = rail.effectBound == EffectBound::AtLeast ? "at least" : "at most";
    if (rail.countingBounds)
        beside["counting_bounds"] = {{scale, rail.countingBounds->estimate},
                                     {"ci", orNull(std::optional(rail.countingBounds->ci))}};
    if (rail.grades)
        beside["better_share"] = rail.grades->better;
    return beside;
}

Json railJson(const Study &study, const StudyComparison &comparison, std::size_t i,
              const RailVerdict &verdict)
{
    const RailComparison &rail = comparison.rails[i];
    const Condition &condition = *findCondition(study, rail.condition);
    Json levels = Json::object();
    for (std::size_t f = 0; f < study.factors.size() && f < condition.levels.size(); ++f) {
        const std::optional<double> number = parseTypedNumber(condition.levels[f]);
        levels[study.factors[f].name] = number ? Json(*number) : Json(condition.levels[f]);
    }
    std::size_t leftOut = 0;
    for (const PieceValue &value : rail.values) {
        leftOut += value.leftOut ? 1U : 0U;
    }
    const bool hasValues = rail.summary.n > 0;
    const bool hasScatter = rail.summary.n > 1 && hasMean(comparison.property) && rail.bounds == 0;
    const bool isCounted = comparison.property.scale == Scale::Word;
    Json json = {{"rail", distinctTitle(study, condition)},
                 {"levels", levels},
                 {"orientation", orientationName(condition.orientation)},
                 {"material", condition.material.empty() ? Json(nullptr) : Json(condition.material)},
                 {"reference", rail.isReference},
                 {"pieces", rail.values.size() + rail.unread + rail.open},
                 {"read", rail.told ? 0 : rail.summary.n},
                 {"left_out", leftOut},
                 {"given", rail.given},
                 {"bounds", rail.bounds},
                 {"mean", hasValues && !isCounted ? orNull(std::optional(rail.summary.mean)) : Json(nullptr)},
                 {"sd", hasScatter ? orNull(rail.summary.sd) : Json(nullptr)},
                 {"cv", hasScatter ? orNull(rail.summary.cv) : Json(nullptr)},
                 {"ci", hasScatter ? orNull(rail.summary.ci) : Json(nullptr)},
                 {"beside", besideJson(comparison, rail, verdict)},
                 {"sentence", verdict.sentence}};
    if (rail.told)
        json["summary"] = {{"pieces", rail.told->pieces ? Json(*rail.told->pieces) : Json(nullptr)},
                           {"source", rail.told->source},
                           {"tested", rail.told->canBeTested()}};
    if (rail.apart > 0)
        json["apart"] = rail.apart;
    if (rail.shareOfFlat)
        json["share_of_flat"] = {{"share", rail.shareOfFlat->value},
                                 {"ci", orNull(rail.shareOfFlat->ci)},
                                 {"sentence", verdict.shareSentence}};
    return json;
}

Json verdictJson(const Study &study, const ToldVerdict &told)
{
    Json rails = Json::array();
    for (std::size_t i = 0; i < told.comparison.rails.size(); ++i)
        rails.push_back(railJson(study, told.comparison, i, told.verdict.rails[i]));
    Json answers = Json::array();
    for (const Sentence &answer : told.answers)
        answers.push_back({{"kind", sentenceKindName(answer.kind)}, {"text", answer.text}});
    return {
        {"test", methodName(told.response.test)},
        {"property", told.response.property.name},
        {"unit", symbolInFiles(told.response.property.dimension)},
        {"question", study.question},
        {"headline", told.verdict.headline},
        {"confidence", told.comparison.claimConfidence()},
        {"smallest_difference",
         {{"share", told.comparison.matters.share}, {"absolute", orNull(told.comparison.matters.absolute)}}},
        {"cautions", told.cautions},
        {"answers", answers},
        {"procedure", told.verdict.procedure},
        {"rails", rails}};
}

Result<Outcome> tellStudy(const Options &options)
{
    const Result<StudyToTell> at = studyToTell(options, &readResultsAround);
    if (!at)
        return at.error();
    const Study &study = *at->own().study;
    const Result<Method> test = testOf(options, study);
    if (!test)
        return test.error();
    const LibraryResults library = readLibrary(at->all.workshop, at->project.path(), headerOf(study).tests);
    const Result<ToldVerdict> told =
        tellVerdict(at->all, library, at->id, {*test, options.value("property").value_or(std::string())});
    if (!told)
        return told.error();
    Outcome outcome{verdictJson(study, *told), at->all.problems, false};
    Json properties = Json::array();
    for (const Property &property : reductionOf(*test)->properties)
        properties.push_back(property.name);
    outcome.result["properties"] = properties;
    return outcome;
}

} // namespace

std::vector<Command> verdictCommands()
{
    return {
        {"project",
         "read",
         "PROJECT",
         "what is read of the records of a study",
         {kStudyOption, {"piece", "CODE", "of one piece alone"}},
         1,
         readStudy},
        {"project",
         "verdict",
         "PROJECT",
         "what is said of a study, with the numbers behind it",
         {kStudyOption,
          kTestOption,
          {"property", "NAME", "the one that the study is judged by unless given"}},
         1,
         tellStudy},
    };
}

} // namespace inchpeg::cli
