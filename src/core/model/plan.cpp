// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/plan.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

template <typename Io, typename A>
void aimFields(Io &io, A &aim)
{
    const PieceAim usual;
    io.field("confidence", aim.confidence, usual.confidence);
    io.field("power", aim.power, usual.power);
    io.field("cv", aim.cv, usual.cv);
    io.field("plate_cv", aim.plateCv, usual.plateCv);
    io.field("absolute_difference", aim.absoluteDifference, usual.absoluteDifference);
    io.field("spares", aim.spares, usual.spares);
}

template <typename Io, typename P>
void printFields(Io &io, P &print)
{
    const PrintPlan usual;
    io.field("printer", print.printer, usual.printer);
    io.field("seed", print.seed, usual.seed);
    io.field("rounds", print.rounds, usual.rounds);
    io.field("gap_mm", print.gap_mm, usual.gap_mm);
}

template <typename Io, typename D>
void dateFields(Io &io, D &dates)
{
    const DatePlan usual;
    io.field("start", dates.start, usual.start);
    io.field("dry", dates.dry, usual.dry);
    io.field("conditioning_h", dates.conditioning_h, usual.conditioning_h);
}

void put(OrderedJson &json, const char *key, OrderedJson part)
{
    if (!part.empty())
        json[key] = std::move(part);
}

OrderedJson printJson(const PrintPlan &print)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    printFields(writer, print);
    for (const auto &[condition, figure] : print.slicer) {
        OrderedJson one = {{"condition", condition.value}};
        FieldWriter figures(one);
        figures.field("grams", figure.grams, std::optional<double>());
        figures.field("minutes", figure.minutes, std::optional<double>());
        json["slicer"].push_back(one);
    }
    for (const PrintedPlate &plate : print.printed) {
        OrderedJson pieces = OrderedJson::array();
        for (const PlacedPiece &placed : plate.pieces)
            pieces.push_back({{"piece", placed.piece.value},
                              {"x_mm", placed.x_mm},
                              {"y_mm", placed.y_mm},
                              {"width_mm", placed.width_mm},
                              {"depth_mm", placed.depth_mm},
                              {"test_place", placed.testPlace}});
        json["printed"].push_back({{"number", plate.number},
                                   {"round", plate.round},
                                   {"printed_at", plate.printedAt},
                                   {"pieces", pieces}});
    }
    return json;
}

PrintPlan printFrom(const OrderedJson &json)
{
    PrintPlan print;
    FieldReader reader(json);
    printFields(reader, print);
    for (const OrderedJson &one : json.value("slicer", OrderedJson::array())) {
        SlicerFigure &figure = print.slicer[ConditionId{one.at("condition").get<std::int64_t>()}];
        FieldReader figures(one);
        figures.field("grams", figure.grams, std::optional<double>());
        figures.field("minutes", figure.minutes, std::optional<double>());
    }
    for (const OrderedJson &one : json.value("printed", OrderedJson::array())) {
        PrintedPlate plate{one.at("number").get<int>(),
                           one.at("round").get<int>(),
                           one.at("printed_at").get<std::string>(),
                           {}};
        for (const OrderedJson &placed : one.at("pieces"))
            plate.pieces.push_back({PieceId{placed.at("piece").get<std::int64_t>()},
                                    placed.at("x_mm").get<double>(), placed.at("y_mm").get<double>(),
                                    placed.at("width_mm").get<double>(), placed.at("depth_mm").get<double>(),
                                    placed.at("test_place").get<int>()});
        print.printed.push_back(std::move(plate));
    }
    if (print.rounds < 1)
        throw std::invalid_argument("\"rounds\": at least one is wanted");
    if (!(print.gap_mm >= 0.0))
        throw std::invalid_argument("\"gap_mm\": a gap of at least zero is wanted");
    return print;
}

PieceAim aimFrom(const OrderedJson &json)
{
    PieceAim aim;
    FieldReader reader(json);
    aimFields(reader, aim);
    if (const auto found = json.find("comparison"); found != json.end()) {
        const std::optional<Comparison> comparison = comparisonFrom(found->get<std::string>().c_str());
        if (!comparison)
            throw std::invalid_argument("\"comparison\": t, reference, pairs, anova or trend is wanted");
        aim.comparison = *comparison;
    }
    if (const auto found = json.find("looks"); found != json.end()) {
        aim.looks = spendingFrom(found->get<std::string>());
        if (!aim.looks)
            throw std::invalid_argument("\"looks\": strict first or alike is wanted");
    }
    for (const auto &[key, share] : {std::pair{"confidence", aim.confidence}, {"power", aim.power}}) {
        if (!(share > 0.0 && share < 1.0))
            throw std::invalid_argument(fmt::format("\"{}\": a share between 0 and 1 is wanted", key));
    }
    return aim;
}

OrderedJson planJson(const Plan &plan)
{
    OrderedJson json = OrderedJson::object();
    if (plan.design != DesignKind::Chosen)
        json["design"] = designName(plan.design);
    if (!plan.generators.empty())
        json["generators"] = plan.generators;
    for (const LockedSetting &setting : plan.locked)
        json["locked"].push_back({{"name", setting.name}, {"value", setting.value}});
    OrderedJson aim = OrderedJson::object();
    if (plan.aim.comparison != PieceAim{}.comparison)
        aim["comparison"] = comparisonName(plan.aim.comparison);
    if (plan.aim.looks)
        aim["looks"] = spendingName(*plan.aim.looks);
    FieldWriter aimWriter(aim);
    aimFields(aimWriter, plan.aim);
    put(json, "aim", aim);
    put(json, "print", printJson(plan.print));
    OrderedJson dates = OrderedJson::object();
    FieldWriter dateWriter(dates);
    dateFields(dateWriter, plan.dates);
    put(json, "dates", dates);
    for (const Confirmation &one : plan.confirmed)
        json["confirmed"].push_back({{"caution", one.caution}, {"by", one.who}, {"at", one.when}});
    for (const PieceId piece : plan.addedLater)
        json["added_later"].push_back(piece.value);
    for (const PlanNote &note : plan.record)
        json["record"].push_back({{"at", note.when}, {"by", note.who}, {"text", note.text}});
    return json;
}

Plan planFrom(const OrderedJson &json)
{
    if (!json.is_object())
        throw std::invalid_argument("an object is wanted");
    Plan plan;
    const OrderedJson none = OrderedJson::array();
    if (const auto found = json.find("design"); found != json.end()) {
        const std::optional<DesignKind> design = designFrom(found->get<std::string>());
        if (!design)
            throw std::invalid_argument("\"design\": chosen, full, one at a time or fraction is wanted");
        plan.design = *design;
    }
    plan.generators = json.value("generators", std::vector<std::string>());
    for (const OrderedJson &one : json.value("locked", none))
        plan.locked.push_back({one.at("name").get<std::string>(), one.at("value").get<std::string>()});
    if (json.contains("aim"))
        plan.aim = aimFrom(json.at("aim"));
    if (json.contains("print"))
        plan.print = printFrom(json.at("print"));
    if (json.contains("dates")) {
        FieldReader reader(json.at("dates"));
        dateFields(reader, plan.dates);
    }
    for (const OrderedJson &one : json.value("confirmed", none))
        plan.confirmed.push_back({one.at("caution").get<std::string>(), one.at("by").get<std::string>(),
                                  one.at("at").get<std::string>()});
    for (const OrderedJson &one : json.value("added_later", none))
        plan.addedLater.push_back(PieceId{one.get<std::int64_t>()});
    for (const OrderedJson &one : json.value("record", none))
        plan.record.push_back({one.at("at").get<std::string>(), one.at("by").get<std::string>(),
                               one.at("text").get<std::string>()});
    return plan;
}

} // namespace

std::string planText(const Plan &plan)
{
    return jsonText(planJson(plan));
}

Result<Plan> planFromText(std::string_view text)
{
    try {
        return planFrom(parsedJson(text));
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no plan: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
