// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/former_tests.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"

#include <fmt/format.h>

namespace inchpeg
{

namespace
{

void takeOver(StudyTest &test, const FormerRules &rules)
{
    const Reduction *reduction = reductionOf(test.method);
    if (reduction == nullptr)
        return;
    const FormerRules usual;
    MethodSettings &settings = test.setup.settings;
    const auto number = [&](const char *name, std::optional<double> value, std::optional<double> standard) {
        if (value && value != standard && findParameter(reduction->parameters, name) != nullptr)
            settings.numbers.emplace(name, *value);
    };
    number("gauge_length", rules.gaugeLength ? std::optional(in_mm(*rules.gaugeLength)) : std::nullopt, {});
    number("grip_distance", rules.gripDistance ? std::optional(in_mm(*rules.gripDistance)) : std::nullopt,
           {});
    number("capacity", rules.capacity ? std::optional(in_N(*rules.capacity)) : std::nullopt, {});
    number("modulus_from", rules.lowStrain, usual.lowStrain);
    number("modulus_to", rules.highStrain, usual.highStrain);
    number("offset", rules.offsetStrain, usual.offsetStrain);
    number("break_drop", rules.breakDrop, usual.breakDrop);
    if (!rules.toeCorrection && findParameter(reduction->parameters, "toe") != nullptr)
        settings.words.emplace("toe", "off");
}

} // namespace

Result<std::vector<StudyTest>> testsOfFormerPlan(Method own, int piecesPerCondition,
                                                 std::string_view planText, const FormerRules &rules)
{
    OrderedJson list = OrderedJson::array();
    try {
        const OrderedJson plan = parsedJson(planText);
        OrderedJson first = {{"method", methodName(own)}, {"pieces_per_condition", piecesPerCondition}};
        if (plan.is_object() && plan.contains("test"))
            first.update(plan.at("test"));
        list.push_back(first);
        if (plan.is_object()) {
            for (const OrderedJson &further : plan.value("further_tests", OrderedJson::array()))
                list.push_back(further);
        }
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no plan: {}", jsonTrouble(failure)));
    }
    Result<std::vector<StudyTest>> tests = testsFromText(list.dump());
    if (tests) {
        for (StudyTest &test : *tests)
            takeOver(test, rules);
    }
    return tests;
}

} // namespace inchpeg
