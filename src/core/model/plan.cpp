// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/plan.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

constexpr std::pair<ShapeFamily, std::string_view> kFamilies[] = {
    {ShapeFamily::DogBone, "dog-bone"},
    {ShapeFamily::RoundDogBone, "round dog-bone"},
    {ShapeFamily::Bar, "bar"},
    {ShapeFamily::NotchedBar, "notched bar"},
    {ShapeFamily::RoundBar, "round bar"},
    {ShapeFamily::Core, "core"},
    {ShapeFamily::Block, "block"}};

std::string_view familyName(ShapeFamily family)
{
    for (const auto &[known, name] : kFamilies) {
        if (known == family)
            return name;
    }
    throw ContractViolation("unknown family of shapes");
}

ShapeFamily familyFrom(std::string_view name)
{
    for (const auto &[family, known] : kFamilies) {
        if (known == name)
            return family;
    }
    throw std::invalid_argument(fmt::format("\"family\": \"{}\" is no family of shapes", name));
}

template <typename Io, typename S>
void shapeFields(Io &io, S &shape)
{
    const SpecimenShape usual;
    io.field("key", shape.key, usual.key);
    io.field("name", shape.name, usual.name);
    io.field("standard", shape.standard, usual.standard);
    io.field("length_mm", shape.length_mm, usual.length_mm);
    io.field("width_mm", shape.width_mm, usual.width_mm);
    io.field("thickness_mm", shape.thickness_mm, usual.thickness_mm);
    io.field("end_width_mm", shape.endWidth_mm, usual.endWidth_mm);
    io.field("parallel_mm", shape.parallel_mm, usual.parallel_mm);
    io.field("radius_mm", shape.radius_mm, usual.radius_mm);
    io.field("gauge_length_mm", shape.gaugeLength_mm, usual.gaugeLength_mm);
    io.field("span_mm", shape.span_mm, usual.span_mm);
    io.field("notch_depth_mm", shape.notchDepth_mm, usual.notchDepth_mm);
    io.field("notch_radius_mm", shape.notchRadius_mm, usual.notchRadius_mm);
    io.field("hole_diameter_mm", shape.holeDiameter_mm, usual.holeDiameter_mm);
}

template <typename Io, typename S>
void setupFields(Io &io, S &setup)
{
    const TestSetup usual;
    io.field("property", setup.property, usual.property);
    io.field("rig", setup.rig, usual.rig);
    io.field("expected", setup.expected, usual.expected);
    io.field("stress_MPa", setup.stress_MPa, usual.stress_MPa);
    io.field("free_length_mm", setup.freeLength_mm, usual.freeLength_mm);
    io.field("speed_mm_per_min", setup.speed_mm_per_min, usual.speed_mm_per_min);
}

template <typename Io, typename A>
void aimFields(Io &io, A &aim)
{
    const PieceAim usual;
    io.field("confidence", aim.confidence, usual.confidence);
    io.field("power", aim.power, usual.power);
    io.field("cv", aim.cv, usual.cv);
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

OrderedJson setupJson(const TestSetup &setup)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    setupFields(writer, setup);
    if (setup.fixture != Fixture::ThreePoint)
        json["fixture"] = fixtureName(setup.fixture);
    if (!(setup.shape == SpecimenShape{})) {
        OrderedJson shape = {{"family", familyName(setup.shape.family)}};
        FieldWriter shapeWriter(shape);
        shapeFields(shapeWriter, setup.shape);
        json["shape"] = shape;
    }
    OrderedJson settings = OrderedJson::object();
    for (const auto &[name, value] : setup.settings.numbers)
        settings[name] = value;
    for (const auto &[name, value] : setup.settings.words)
        settings[name] = value;
    put(json, "settings", settings);
    return json;
}

TestSetup setupFrom(const OrderedJson &json)
{
    TestSetup setup;
    FieldReader reader(json);
    setupFields(reader, setup);
    if (const auto fixture = json.find("fixture"); fixture != json.end()) {
        const std::optional<Fixture> named = fixtureFrom(fixture->get<std::string>());
        if (!named)
            throw std::invalid_argument("\"fixture\": three-point or cantilever is wanted");
        setup.fixture = *named;
    }
    if (const auto found = json.find("shape"); found != json.end()) {
        FieldReader shape(*found);
        shapeFields(shape, setup.shape);
        setup.shape.family = familyFrom(found->at("family").get<std::string>());
        if (const Status status = checkShape(setup.shape); !status)
            throw std::invalid_argument("\"shape\": " + status.error().message);
    }
    const OrderedJson settings = json.value("settings", OrderedJson::object());
    for (const auto &entry : settings.items()) {
        if (entry.value().is_string())
            setup.settings.words[entry.key()] = entry.value().get<std::string>();
        else
            setup.settings.numbers[entry.key()] = entry.value().get<double>();
    }
    return setup;
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
    return aim;
}

Method methodNamed(const OrderedJson &json)
{
    const auto name = json.get<std::string>();
    const std::optional<Method> method = methodFrom(name);
    if (!method)
        throw std::invalid_argument(fmt::format("\"method\": \"{}\" is no known test", name));
    return *method;
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
    FieldWriter aimWriter(aim);
    aimFields(aimWriter, plan.aim);
    put(json, "aim", aim);
    put(json, "test", setupJson(plan.setup));
    for (const FurtherTest &further : plan.further) {
        OrderedJson one = {{"method", methodName(further.method)},
                           {"pieces_per_condition", further.piecesPerCondition}};
        one.update(setupJson(further.setup));
        json["further_tests"].push_back(one);
    }
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
    if (json.contains("test"))
        plan.setup = setupFrom(json.at("test"));
    for (const OrderedJson &one : json.value("further_tests", none))
        plan.further.push_back(
            {methodNamed(one.at("method")), one.at("pieces_per_condition").get<int>(), setupFrom(one)});
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

bool mayBeCantilever(Method method)
{
    return method == Method::Creep || method == Method::BendSteps;
}

double bentLength_mm(const TestSetup &setup, const SpecimenShape &shape, Method method)
{
    if (setup.fixture == Fixture::Cantilever && mayBeCantilever(method))
        return setup.freeLength_mm > 0.0 ? setup.freeLength_mm : 0.75 * shape.length_mm;
    return shape.span_mm > 0.0 ? shape.span_mm : 0.8 * shape.length_mm;
}

std::string_view fixtureName(Fixture fixture)
{
    return fixture == Fixture::ThreePoint ? "three-point" : "cantilever";
}

std::optional<Fixture> fixtureFrom(std::string_view name)
{
    for (const Fixture fixture : {Fixture::ThreePoint, Fixture::Cantilever}) {
        if (fixtureName(fixture) == name)
            return fixture;
    }
    return std::nullopt;
}

std::string planText(const Plan &plan)
{
    return planJson(plan).dump();
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
