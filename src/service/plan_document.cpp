// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/plan_document.h"

#include "core/base/json_text.h"
#include "core/model/former_tests.h"
#include "core/planning/calendar.h"
#include "core/planning/cautions.h"
#include "core/planning/confounds.h"
#include "core/planning/lab_code.h"
#include "core/planning/piece_count.h"
#include "core/planning/plate_power.h"
#include "core/planning/print_estimate.h"
#include "core/planning/rig_check.h"
#include "service/local_zone.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

Factor factorFrom(const OrderedJson &json)
{
    Factor factor;
    factor.name = json.at("name").get<std::string>();
    const FactorKind *kind = findFactorKind(factor.name);
    if (kind != nullptr) {
        factor.unit = kind->unit;
        factor.changedPer = kind->changedPer;
    }
    if (json.contains("unit"))
        factor.unit = json.at("unit").get<std::string>();
    if (json.contains("changed_per"))
        factor.changedPer = changedPerFrom(json.at("changed_per").get<std::string>());
    return factor;
}

std::vector<std::string> levelsFrom(const OrderedJson &factor)
{
    std::vector<std::string> levels;
    for (const OrderedJson &level : factor.at("levels"))
        levels.push_back(level.is_string() ? level.get<std::string>() : level.dump());
    return levels;
}

/// Errors: BadInput for a word that is neither flat nor standing.
Result<Orientation> orientationIn(const OrderedJson &json, Orientation usual)
{
    if (!json.contains("orientation"))
        return usual;
    const auto word = json.at("orientation").get<std::string>();
    const std::optional<Orientation> known = orientationFrom(word);
    if (!known)
        return badInput(
            fmt::format("\"orientation\": \"{}\" is not known; flat or standing is wanted", word));
    return *known;
}

/// A difference that is given as a value becomes a share of what the reference is expected to reach.
/// Errors: BadInput where nothing is known of that.
Status takeAbsoluteDifference(Study &study)
{
    if (!study.plan.aim.absoluteDifference)
        return ok();
    const Condition *reference = findCondition(study, study.reference);
    const std::optional<ExpectedValue> expected =
        reference == nullptr ? std::nullopt
                             : expectedValue(study, plannedTests(study).front(), *reference, OwnResults{});
    if (!expected || !(expected->value > 0.0))
        return badInput("\"absolute_difference\": nothing is known of what the reference reaches; give "
                        "\"expected\" under \"test\", or \"smallest_difference\" as a fraction");
    study.smallestDifference = *study.plan.aim.absoluteDifference / expected->value;
    return ok();
}

/// Rails one by one, each an object of factor names and levels, with "material" and "orientation" beside
/// them.
Status addChosen(Study &study, const OrderedJson &list, const Condition &pattern, const IdSource &ids)
{
    for (const OrderedJson &json : list) {
        Condition condition = pattern;
        condition.levels.clear();
        for (const Factor &factor : study.factors) {
            const OrderedJson &level = json.at(factor.name);
            condition.levels.push_back(level.is_string() ? level.get<std::string>() : level.dump());
        }
        condition.material = json.value("material", pattern.material);
        const Result<Orientation> orientation = orientationIn(json, pattern.orientation);
        if (!orientation)
            return orientation.error();
        condition.orientation = *orientation;
        if (const Status added = addCondition(study, condition, ids); !added)
            return added;
    }
    return ok();
}

/// The list "tests", or one test by "method" and "pieces_per_condition", with what the plan says of it under
/// "test" and "further_tests".
Result<std::vector<StudyTest>> testsFrom(const OrderedJson &json)
{
    if (json.contains("tests")) {
        Result<std::vector<StudyTest>> tests = testsFromText(json.at("tests").dump());
        return tests ? tests : badInput("\"tests\" " + tests.error().message);
    }
    const std::string name = json.value("method", std::string(methodName(StudyTest{}.method)));
    const std::optional<Method> method = methodFrom(name);
    if (!method)
        return badInput(fmt::format("\"method\": \"{}\" is no known test; see plan methods", name));
    const int pieces = json.value("pieces_per_condition", kUsualPieces);
    Result<std::vector<StudyTest>> tests =
        testsOfFormerPlan(*method, pieces, json.contains("plan") ? json.at("plan").dump() : "{}");
    return tests ? tests : badInput("\"plan\" " + tests.error().message);
}

Result<PlanSpec> specFrom(const OrderedJson &json, const IdSource &ids)
{
    PlanSpec spec;
    Study &study = spec.study;
    study.id = StudyId{ids()};
    study.question = json.at("question").get<std::string>();
    study.smallestDifference = json.value("smallest_difference", study.smallestDifference);
    if (!(study.smallestDifference > 0.0))
        return badInput("\"smallest_difference\": a fraction above zero is wanted, such as 0.1");
    if (json.contains("plan")) {
        Result<Plan> plan = planFromText(json.at("plan").dump());
        if (!plan)
            return badInput("\"plan\" " + plan.error().message);
        study.plan = std::move(*plan);
    }
    Result<std::vector<StudyTest>> tests = testsFrom(json);
    if (!tests)
        return badInput(tests.error().message);
    study.tests = std::move(*tests);
    study.factors.clear();
    std::vector<std::vector<std::string>> levels;
    for (const OrderedJson &factor : json.at("factors")) {
        study.factors.push_back(factorFrom(factor));
        if (factor.contains("levels"))
            levels.push_back(levelsFrom(factor));
    }
    if (study.factors.empty() || study.factors.size() > kMostFactors)
        return badInput(fmt::format("\"factors\": one to {} are wanted", kMostFactors));
    Condition pattern;
    pattern.material = json.value("material", std::string());
    const Result<Orientation> orientation = orientationIn(json, usualOrientation(methodOf(study)));
    if (!orientation)
        return orientation.error();
    pattern.orientation = *orientation;
    Status made = ok();
    if (json.contains("conditions")) {
        made = addChosen(study, json.at("conditions"), pattern, ids);
    } else {
        if (levels.size() != study.factors.size())
            return badInput("each factor needs \"levels\", or the whole a list of \"conditions\"");
        const DesignKind design =
            study.plan.design == DesignKind::Chosen ? DesignKind::FullFactorial : study.plan.design;
        made = applyDesign(study, design, levels, ids);
        for (Condition &condition : study.conditions) {
            if (condition.material.empty())
                condition.material = pattern.material;
            const bool varied =
                std::any_of(study.factors.begin(), study.factors.end(),
                            [](const Factor &one) { return one.name == factor::kOrientation; });
            if (!varied)
                condition.orientation = pattern.orientation;
        }
    }
    for (const StudyTest &test : study.tests) {
        if (made)
            made = setPiecesPerCondition(study, test.method, test.piecesPerCondition, ids);
    }
    if (made)
        made = takeAbsoluteDifference(study);
    if (!made)
        return made.error();
    spec.workshop = usualWorkshop();
    if (json.contains("workshop")) {
        Result<Workshop> workshop = workshopFromText(json.at("workshop").dump());
        if (!workshop)
            return badInput("\"workshop\" " + workshop.error().message);
        spec.workshop = std::move(*workshop);
        spec.saysWorkshop = true;
    }
    return spec;
}

OrderedJson conditionsJson(const Study &study, const Workshop &workshop)
{
    OrderedJson list = OrderedJson::array();
    for (const Condition &condition : study.conditions) {
        const PrintCost cost = costOf(study, condition, workshop);
        OrderedJson levels = OrderedJson::object();
        for (std::size_t f = 0; f < study.factors.size(); ++f)
            levels[study.factors[f].name] = condition.levels[f];
        list.push_back({{"condition", levelText(study, condition)},
                        {"levels", levels},
                        {"orientation", orientationName(condition.orientation)},
                        {"material", condition.material},
                        {"reference", condition.id == study.reference},
                        {"pieces", cost.pieces},
                        {"grams", cost.grams},
                        {"minutes", cost.minutes},
                        {"money", cost.money}});
    }
    return list;
}

OrderedJson aliasesJson(const Study &study)
{
    OrderedJson list = OrderedJson::array();
    if (study.plan.design != DesignKind::Fraction)
        return list;
    const Result<TwoLevelFraction> fraction =
        TwoLevelFraction::make(static_cast<int>(study.factors.size()), study.plan.generators);
    std::vector<std::string> names;
    for (const Factor &factor : study.factors)
        names.push_back(factor.name);
    if (fraction) {
        for (const std::string &sentence : aliasSentences(*fraction, names))
            list.push_back(sentence);
    }
    return list;
}

OrderedJson piecesJson(const Study &study, const OwnResults &own)
{
    const PieceQuestion question = pieceQuestion(study, own);
    OrderedJson json = {{"comparison", comparisonName(question.power.comparison)},
                        {"groups", question.power.groups},
                        {"tested_per_condition", question.tested},
                        {"spares_per_condition", study.plan.aim.spares},
                        {"cv", question.cv},
                        {"cv_source", expectedScatter(study, own).source},
                        {"smallest_difference", question.difference}};
    const Result<PieceAnswer> answer = pieceAnswer(study, own);
    if (!answer) {
        json["sentence"] = answer.error().message;
        return json;
    }
    const auto orNull = [](double value) { return value > 0.0 ? OrderedJson(value) : OrderedJson(); };
    json["wanted"] = answer->wanted > 0 ? OrderedJson(answer->wanted) : OrderedJson();
    json["power"] = orNull(answer->power);
    json["visible_difference"] = orNull(answer->visible);
    json["sentence"] = answer->sentence;
    if (const std::optional<PlatePower> plates = platePower(study, question, {}))
        json["by_plates"] = {
            {"plates_per_condition", plates->plates},
            {"plate_cv", plates->plateCv},
            {"power", orNull(plates->power)},
            {"visible_difference", orNull(plates->visible)},
            {"wanted_rounds", plates->wanted > 0 ? OrderedJson(plates->wanted) : OrderedJson()},
            {"sentence", plates->sentence}};
    return json;
}

OrderedJson rigsJson(const Study &study, const Workshop &workshop, const OwnResults &own)
{
    OrderedJson list = OrderedJson::array();
    for (const PlannedTest &test : plannedTests(study)) {
        for (const Condition &condition : study.conditions) {
            const std::optional<ExpectedLoad> load = expectedLoad(study, test, condition, own);
            const RigCard *rig = findRig(workshop, test.setup.rig);
            const RigVerdict verdict = checkRig(test, load, rig);
            list.push_back({{"test", methodName(test.method)},
                            {"condition", levelText(study, condition)},
                            {"shape", test.shape.key},
                            {"load", load ? OrderedJson(load->value) : OrderedJson()},
                            {"unit", symbolInFiles(dimensionOf(factsOf(test.method).load))},
                            {"source", load ? OrderedJson(Notation().expand(load->source)) : OrderedJson()},
                            {"rig", rig != nullptr ? OrderedJson(rig->name) : OrderedJson()},
                            {"fit", rigFitName(verdict.fit)},
                            {"sentence", Notation().expand(verdict.sentence)}});
        }
    }
    return list;
}

OrderedJson platesJson(const Study &study, const PlateLayout &layout, const Workshop &workshop)
{
    OrderedJson plates = OrderedJson::array();
    for (const Plate &plate : layout.plates) {
        OrderedJson pieces = OrderedJson::array();
        for (const PlacedPiece &placed : plate.pieces) {
            const Piece &piece = *findPiece(study, placed.piece);
            OrderedJson one = {{"piece", piece.code},
                               {"condition", levelText(study, *findCondition(study, piece.condition))},
                               {"x_mm", placed.x_mm},
                               {"y_mm", placed.y_mm},
                               {"width_mm", placed.width_mm},
                               {"depth_mm", placed.depth_mm},
                               {"test_place", placed.testPlace}};
            if (isLabPrefix(workshop.labPrefix))
                one["label"] = labCode(workshop.labPrefix, piece.id);
            pieces.push_back(one);
        }
        plates.push_back(
            {{"plate", plate.number},
             {"round", plate.round},
             {"settings", plate.settings},
             {"printed_at", plate.printedAt.empty() ? OrderedJson() : OrderedJson(plate.printedAt)},
             {"grams", plate.grams},
             {"minutes", plate.minutes},
             {"pieces", pieces}});
    }
    return plates;
}

} // namespace

Result<PlanSpec> planFromSpec(std::string_view text, const IdSource &ids)
{
    try {
        return specFrom(parsedJson(text), ids);
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no description of a plan: {}", jsonTrouble(failure)));
    }
}

Result<OrderedJson> planReport(const Study &study, const Workshop &workshop, const OwnResults &own)
{
    const PlateLayout layout = layOutPlates(study, workshop);
    const Result<std::vector<CalendarEntry>> calendar =
        layOutCalendar({{&study, &layout}}, workshop, std::nullopt, localZone());
    if (!calendar)
        return calendar.error();
    const PrintCost cost = costOf(study, workshop);
    OrderedJson json = {{"question", study.question},
                        {"method", methodName(methodOf(study))},
                        {"design", designName(study.plan.design)},
                        {"conditions", conditionsJson(study, workshop)},
                        {"aliases", aliasesJson(study)},
                        {"pieces", piecesJson(study, own)},
                        {"rigs", rigsJson(study, workshop, own)},
                        {"seed", study.plan.print.seed},
                        {"plates", platesJson(study, layout, workshop)},
                        {"unplaced", OrderedJson::array()},
                        {"test_order", OrderedJson::array()},
                        {"cost",
                         {{"pieces", cost.pieces},
                          {"grams", cost.grams},
                          {"minutes", cost.minutes},
                          {"money", cost.money},
                          {"money_unit", workshop.moneyUnit}}},
                        {"spools", OrderedJson::array()},
                        {"care", OrderedJson::array()},
                        {"confounds", OrderedJson::array()},
                        {"cautions", OrderedJson::array()},
                        {"calendar", OrderedJson::array()}};
    for (const PieceId piece : layout.unplaced)
        json["unplaced"].push_back(findPiece(study, piece)->code);
    for (const PieceId piece : layout.testOrder)
        json["test_order"].push_back(findPiece(study, piece)->code);
    for (const SpoolUse &use : spoolUse(study, workshop))
        json["spools"].push_back({{"material", use.material},
                                  {"needed_g", use.needed_g},
                                  {"needed_m", use.needed_m},
                                  {"left_g", use.left_g ? OrderedJson(*use.left_g) : OrderedJson()},
                                  {"sentence", use.sentence}});
    for (const MaterialCare &care : materialCare(study, workshop))
        json["care"].push_back({{"material", care.material},
                                {"dry_C", care.dry_C},
                                {"dry_h", care.dry_h},
                                {"conditioning_h", care.conditioning_h},
                                {"sentence", care.sentence}});
    for (const Confound &confound : confoundsOf(study, layout))
        json["confounds"].push_back(
            {{"aliased", confound.weight == Confound::Weight::Aliased},
             {"sentence", confound.sentence},
             {"control", confound.control ? OrderedJson(confound.control->label) : OrderedJson()}});
    for (const Caution &caution : cautionsOf(study))
        json["cautions"].push_back({{"caution", caution.key},
                                    {"text", caution.text},
                                    {"confirmed", isConfirmed(study.plan, caution.key)}});
    for (const CalendarEntry &entry : *calendar)
        json["calendar"].push_back({{"work", workName(entry.kind)},
                                    {"what", entry.what},
                                    {"with", entry.resource},
                                    {"start", momentText(entry.start)},
                                    {"end", momentText(entry.end)},
                                    {"attended", entry.attended},
                                    {"moved_min", entry.shifted_min}});
    return json;
}

} // namespace inchpeg
