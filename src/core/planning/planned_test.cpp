// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/planned_test.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

/// Flexural over tensile strength of printed polymers, a rough order (common practice): the bent piece yields
/// at its skin first.
constexpr double kFlexuralOverTensile = 1.4;
/// Shear over tensile strength, after von Mises 1/√3.
constexpr double kShearOverTensile = 0.577;

PlannedTest planned(std::optional<Method> test, Method method, int pieces, const TestSetup &setup)
{
    const MethodFacts &facts = factsOf(method);
    PlannedTest out{test, method, pieces, setup.shape, facts.properties.front(), setup};
    if (setup.shape.key.empty()) {
        const SpecimenShape *usual = findShape(facts.shape);
        require(usual != nullptr, "the usual shape of a method is on the shelf");
        out.shape = *usual;
    }
    const auto property =
        std::find_if(facts.properties.begin(), facts.properties.end(),
                     [&](const PlannedProperty &one) { return one.name == setup.property; });
    if (property != facts.properties.end())
        out.property = *property;
    return out;
}

std::optional<double> usualValue(const PlannedTest &test, const PolymerFacts &polymer,
                                 Orientation orientation)
{
    const bool standing = orientation == Orientation::Standing || test.method == Method::LayerAdhesion;
    const double strength_MPa = polymer.strength_MPa * (standing ? polymer.layerShare : 1.0);
    const std::string_view name = test.property.name;
    if (name == "tensile_strength")
        return strength_MPa;
    if (name == "tensile_modulus" || name == "flexural_modulus" || name == "apparent_modulus")
        return polymer.modulus_MPa;
    if (name == "flexural_strength")
        return kFlexuralOverTensile * strength_MPa;
    if (name == "shear_strength" || name == "shear_stress" || name == "interface_shear")
        return kShearOverTensile * strength_MPa;
    if (name == "impact_strength" && polymer.impact_kJ_per_m2 > 0.0)
        return polymer.impact_kJ_per_m2;
    return std::nullopt;
}

} // namespace

std::vector<PlannedTest> plannedTests(const Study &study)
{
    std::vector<PlannedTest> tests{
        planned(std::nullopt, study.method, study.piecesPerCondition, study.plan.setup)};
    for (const FurtherTest &further : study.plan.further)
        tests.push_back(planned(further.method, further.method, further.piecesPerCondition, further.setup));
    return tests;
}

const PlannedTest &testOfPiece(const std::vector<PlannedTest> &tests, const Piece &piece)
{
    const auto found = std::find_if(tests.begin(), tests.end(),
                                    [&](const PlannedTest &test) { return test.test == piece.test; });
    return found == tests.end() ? tests.front() : *found;
}

TestSetup &setupOf(Study &study, const std::optional<Method> &test)
{
    if (!test)
        return study.plan.setup;
    const auto found = std::find_if(study.plan.further.begin(), study.plan.further.end(),
                                    [&](const FurtherTest &further) { return further.method == *test; });
    require(found != study.plan.further.end(), "no such further test");
    return found->setup;
}

std::optional<std::string> settingOf(const Study &study, const Condition &condition, std::string_view name)
{
    for (std::size_t i = 0; i < study.factors.size(); ++i) {
        if (study.factors[i].name == name && i < condition.levels.size())
            return condition.levels[i];
    }
    for (const LockedSetting &setting : study.plan.locked) {
        if (setting.name == name)
            return setting.value;
    }
    return std::nullopt;
}

std::optional<double> numberSetting(const Study &study, const Condition &condition, std::string_view name)
{
    const std::optional<std::string> text = settingOf(study, condition, name);
    return text ? parseTypedNumber(std::string_view(*text).substr(0, numberPrefixLength(*text)))
                : std::nullopt;
}

PolymerGuess polymerOf(const Study &study, const Condition &condition)
{
    const PolymerGuess byMaterial = polymerIn(condition.material);
    if (byMaterial.isKnown)
        return byMaterial;
    for (const std::string &level : condition.levels) {
        if (const PolymerGuess byLevel = polymerIn(level); byLevel.isKnown)
            return byLevel;
    }
    const std::optional<std::string> material = settingOf(study, condition, factor::kMaterial);
    return material ? polymerIn(*material) : byMaterial;
}

ExpectedScatter expectedScatter(const Study &study, const OwnResults &own)
{
    if (study.plan.aim.cv)
        return {*study.plan.aim.cv, "set by you"};
    if (own.cv)
        return {*own.cv, own.source};
    return {factsOf(study.method).usualCv,
            fmt::format("usual for {} (common practice)", methodName(study.method))};
}

std::optional<ExpectedValue> expectedValue(const Study &study, const PlannedTest &test,
                                           const Condition &condition, const OwnResults &own)
{
    if (test.setup.expected)
        return ExpectedValue{*test.setup.expected, "set by you"};
    if (own.mean && !test.test)
        return ExpectedValue{*own.mean, own.source};
    const PolymerGuess polymer = polymerOf(study, condition);
    const std::optional<double> usual = usualValue(test, *polymer.facts, condition.orientation);
    if (!usual)
        return std::nullopt;
    return ExpectedValue{*usual, polymer.isKnown
                                     ? fmt::format("usual for {} (common practice)", polymer.facts->name)
                                     : fmt::format("as of {}, since the material names no known polymer",
                                                   polymer.facts->name)};
}

} // namespace inchpeg
