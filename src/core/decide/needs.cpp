// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/decide/needs.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr std::array<std::pair<NeedKind, std::string_view>, 16> kNames = {{
    {NeedKind::Load, "force"},
    {NeedKind::Strength, "stress"},
    {NeedKind::Layers, "layers"},
    {NeedKind::Creep, "creep"},
    {NeedKind::Heat, "heat"},
    {NeedKind::Softens, "softens"},
    {NeedKind::Blow, "blow"},
    {NeedKind::Stiff, "stiff"},
    {NeedKind::Distance, "distance"},
    {NeedKind::Weight, "mass"},
    {NeedKind::Time, "time"},
    {NeedKind::Price, "price"},
    {NeedKind::Weather, "weather"},
    {NeedKind::Printer, "printer"},
    {NeedKind::Grade, "grade"},
    {NeedKind::Never, "never"},
}};

Property plainProperty(std::string_view name, std::string_view label, Dimension dimension, Better better)
{
    return {name, label, dimension, label, better, {"{} more than {}", "{} less than {}"}};
}

NeedTarget ofTest(Method test, std::string_view property, bool isAtLeast, bool isEachPiece)
{
    const Result<Property> found = findProperty(*reductionOf(test), property);
    require(found.has_value(), "a need names a property of its test");
    return {test, *found, isAtLeast, isEachPiece};
}

/// What a limit of the kind is measured in.
Unit unitOfLimit(const NeedTarget &target)
{
    return workingUnit(target.property.dimension);
}

double limitFrom(const OrderedJson &json, const NeedTarget &target)
{
    if (json.is_number())
        return json.get<double>();
    const Result<double> value = parseQuantity(json.get<std::string>(), unitOfLimit(target));
    if (!value)
        throw std::invalid_argument("\"limit\": " + value.error().message);
    return *value;
}

bool hasLimit(NeedKind kind)
{
    return kind != NeedKind::Printer && kind != NeedKind::Never;
}

Need needFrom(const OrderedJson &json)
{
    Need need;
    FieldReader fields(json);
    fields.field("need", need.name, {});
    std::string kind;
    fields.field("kind", kind, {});
    const std::optional<NeedKind> known = needKindFrom(kind);
    if (!known) {
        std::string all;
        for (const auto &[one, name] : kNames)
            all += (all.empty() ? "" : ", ") + std::string(name);
        throw std::invalid_argument(fmt::format("\"kind\" is \"{}\"; known are {}", kind, all));
    }
    need.kind = *known;
    fields.field("factor", need.safetyFactor, 1.0);
    fields.field("must", need.isMust, true);
    fields.field("weight", need.weight, 1.0);
    fields.field("after_h", need.after_h, 1000.0);
    std::string test;
    fields.field("test", test, {});
    if (!test.empty()) {
        need.test = methodFrom(test);
        if (!need.test || !readsRecords(*need.test))
            throw std::invalid_argument(fmt::format("\"test\": there is no test \"{}\"", test));
    }
    if (const auto load = json.find("load"); load != json.end())
        need.load_MPa = load->is_number()
                            ? load->get<double>()
                            : parseQuantity(load->get<std::string>(), workingUnit(Dimension::Stress)).value();
    if (const auto printer = json.find("printer"); printer != json.end()) {
        FieldReader limits(*printer);
        limits.field("nozzle_C", need.printer.nozzle_C, 300.0);
        limits.field("chamber", need.printer.hasChamber, false);
        limits.field("hard_nozzle", need.printer.hasHardNozzle, false);
        limits.field("drying", need.printer.canDry, false);
    }
    if (const auto limit = json.find("limit"); limit != json.end())
        need.limit = limitFrom(*limit, targetOf(need));
    else if (hasLimit(need.kind))
        throw std::invalid_argument("\"limit\" is missing");
    if (const Status status = checkNeed(need); !status)
        throw std::invalid_argument(status.error().message);
    if (need.name.empty())
        need.name = needKindName(need.kind);
    return need;
}

BoughtPart boughtFrom(const OrderedJson &json)
{
    FieldReader fields(json);
    BoughtPart part;
    fields.field("name", part.name, {});
    fields.field("price", part.price, 0.0);
    if (part.name.empty() || !(part.price > 0.0))
        throw std::invalid_argument("a bought part has a name and a price above zero");
    return part;
}

OrderedJson jsonOf(const Need &need)
{
    OrderedJson json{{"need", need.name}, {"kind", needKindName(need.kind)}};
    if (hasLimit(need.kind)) {
        const Unit unit = unitOfLimit(targetOf(need));
        if (unit.dimension == Dimension::Number)
            json["limit"] = need.limit;
        else
            json["limit"] = fmt::format("{} {}", need.limit, unit.symbol);
    }
    FieldWriter fields(json);
    fields.field("factor", need.safetyFactor, 1.0);
    fields.field("must", need.isMust, true);
    fields.field("weight", need.weight, 1.0);
    if (need.test)
        json["test"] = methodName(*need.test);
    if (need.load_MPa)
        json["load"] = fmt::format("{} MPa", *need.load_MPa);
    fields.field("after_h", need.after_h, 1000.0);
    if (need.kind == NeedKind::Printer)
        json["printer"] = {{"nozzle_C", need.printer.nozzle_C},
                           {"chamber", need.printer.hasChamber},
                           {"hard_nozzle", need.printer.hasHardNozzle},
                           {"drying", need.printer.canDry}};
    return json;
}

Need must(const char *name, NeedKind kind, double limit, double factor = 1.0)
{
    Need need;
    need.name = name;
    need.kind = kind;
    need.limit = limit;
    need.safetyFactor = factor;
    return need;
}

Need wish(const char *name, NeedKind kind, double limit, double weight = 1.0)
{
    Need need = must(name, kind, limit);
    need.isMust = false;
    need.weight = weight;
    return need;
}

Need heat(const char *name, double limit_C, double load_MPa)
{
    Need need = must(name, NeedKind::Heat, limit_C);
    need.load_MPa = load_MPa;
    return need;
}

Need creep(const char *name, double strain, double after_h)
{
    Need need = must(name, NeedKind::Creep, strain);
    need.after_h = after_h;
    return need;
}

} // namespace

std::string_view needKindName(NeedKind kind)
{
    for (const auto &[known, name] : kNames) {
        if (known == kind)
            return name;
    }
    throw ContractViolation("unknown kind of need");
}

std::optional<NeedKind> needKindFrom(std::string_view name)
{
    for (const auto &[known, text] : kNames) {
        if (text == name)
            return known;
    }
    return std::nullopt;
}

NeedTarget targetOf(const Need &need)
{
    switch (need.kind) {
    case NeedKind::Load:
        return ofTest(need.test.value_or(Method::PullOut), "peak_force", true, true);
    case NeedKind::Strength:
        return ofTest(Method::Tension, "tensile_strength", true, true);
    case NeedKind::Layers:
        return ofTest(Method::LayerAdhesion, "tensile_strength", true, true);
    case NeedKind::Creep:
        return ofTest(Method::Creep, "creep_strain", false, false);
    case NeedKind::Heat:
        return ofTest(Method::HeatDeflection, "heat_deflection_temperature", true, false);
    case NeedKind::Softens:
        return ofTest(Method::Softening, "softening_temperature", true, false);
    case NeedKind::Blow:
        return ofTest(Method::Impact, "impact_strength", true, true);
    case NeedKind::Stiff:
        return ofTest(Method::Bending, "flexural_modulus", true, false);
    case NeedKind::Distance:
        return ofTest(Method::Shrinkage, "shrinkage_percent", false, false);
    case NeedKind::Grade: {
        const Method test = need.test.value_or(Method::PrintOutcome);
        return {test, usualProperty(test), true, false};
    }
    case NeedKind::Weight:
        return {{}, plainProperty("mass", "Mass of a piece", Dimension::Mass, Better::Lower), false, false};
    case NeedKind::Time:
        return {{},
                plainProperty("print_time", "Print time of a piece", Dimension::Time, Better::Lower),
                false,
                false};
    case NeedKind::Price:
        return {{},
                plainProperty("price", "Material of a piece", Dimension::Number, Better::Lower),
                false,
                false};
    case NeedKind::Weather:
        return {
            {}, plainProperty("weather", "Stands weather", Dimension::Number, Better::Higher), true, false};
    case NeedKind::Printer:
        return {{},
                plainProperty("printer", "Prints on this printer", Dimension::Number, Better::Higher),
                true,
                false};
    case NeedKind::Never:
        return {
            {}, plainProperty("never", "Not answered here", Dimension::Number, Better::Neither), true, false};
    }
    throw ContractViolation("unknown kind of need");
}

Status checkNeed(const Need &need)
{
    if (hasLimit(need.kind) && !(need.limit > 0.0))
        return invalidArgument(fmt::format("the limit of \"{}\" must be above zero", need.name));
    if (!(need.safetyFactor >= 1.0))
        return invalidArgument(fmt::format("the safety factor of \"{}\" must be 1 or more", need.name));
    if (!(need.weight > 0.0))
        return invalidArgument(fmt::format("the weight of \"{}\" must be above zero", need.name));
    if (!(need.after_h > 0.0))
        return invalidArgument(fmt::format("the time of \"{}\" must be above zero", need.name));
    // A share of pairs won says who stands above whom in one study, and nothing beyond it.
    const bool givesGrades =
        !need.test || (usualProperty(*need.test).scale == Scale::Ordinal && *need.test != Method::FeltPairs);
    if (need.kind == NeedKind::Grade && !givesGrades)
        return invalidArgument(
            fmt::format("the test of \"{}\" is {}, which gives no grades from 1 to 5; \"print outcome\" and "
                        "\"by feel\" do",
                        need.name, methodName(*need.test)));
    return ok();
}

const std::vector<NeedTemplate> &needTemplates()
{
    static const std::vector<NeedTemplate> all = {
        {"holder with an exact distance",
         {must("holds its distance", NeedKind::Distance, 0.4), creep("does not give way", 0.01, 1000.0),
          heat("stays in shape where it is warm", 55.0, 0.45),
          must("carries its load", NeedKind::Strength, 8.0, 2.0), wish("cheap", NeedKind::Price, 1.0)}},
        {"outdoor bracket",
         {must("carries its load", NeedKind::Strength, 8.0, 2.5),
          must("stands weather", NeedKind::Weather, 3.0), heat("stays in shape in the sun", 65.0, 0.45),
          wish("light", NeedKind::Weight, 0.01)}},
        {"clip",
         {must("survives a knock", NeedKind::Blow, 5.0),
          must("holds across its layers", NeedKind::Layers, 12.0, 1.5),
          wish("quick to print", NeedKind::Time, 1200.0)}},
        {"guard",
         {must("survives a knock", NeedKind::Blow, 8.0), must("bends little", NeedKind::Stiff, 1500.0),
          wish("light", NeedKind::Weight, 0.02)}},
        {"tool",
         {must("carries its load", NeedKind::Strength, 15.0, 2.0),
          must("bends little", NeedKind::Stiff, 1800.0), wish("cheap", NeedKind::Price, 1.0)}},
        {"jig near heat",
         {heat("stays in shape", 80.0, 0.45), creep("does not give way", 0.01, 100.0),
          must("bends little", NeedKind::Stiff, 1800.0)}},
    };
    return all;
}

std::string needsText(const Needs &needs)
{
    OrderedJson json{{"part", needs.part}, {"needs", OrderedJson::array()}};
    for (const Need &need : needs.needs)
        json["needs"].push_back(jsonOf(need));
    if (!needs.candidates.empty())
        json["candidates"] = needs.candidates;
    if (!needs.materials.empty())
        json["materials"] = needs.materials;
    for (const BoughtPart &part : needs.bought)
        json["bought"].push_back({{"name", part.name}, {"price", part.price}});
    return json.dump(2);
}

Result<Needs> needsFromText(std::string_view text)
{
    std::size_t number = 0;
    try {
        const OrderedJson json = parsedJson(text);
        FieldReader fields(json);
        Needs needs;
        fields.field("part", needs.part, {});
        fields.field("candidates", needs.candidates, {});
        fields.field("materials", needs.materials, {});
        if (const auto bought = json.find("bought"); bought != json.end()) {
            for (const OrderedJson &one : *bought)
                needs.bought.push_back(boughtFrom(one));
        }
        const auto list = json.find("needs");
        if (list == json.end() || !list->is_array() || list->empty())
            return badInput("\"needs\" is missing: a list of at least one need is wanted");
        for (const OrderedJson &need : *list) {
            ++number;
            needs.needs.push_back(needFrom(need));
        }
        return needs;
    } catch (const std::exception &failure) {
        return badInput(number == 0 ? jsonTrouble(failure)
                                    : fmt::format("need {}: {}", number, jsonTrouble(failure)));
    }
}

} // namespace inchpeg
