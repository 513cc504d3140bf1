// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/planning/planned_test.h"

#include "core/method/stress_strain_picture.h"
#include "core/method/tension/tensile.h"
#include "core/text/letters.h"
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

PlannedTest planned(const StudyTest &test)
{
    const MethodFacts &facts = factsOf(test.method);
    const TestSetup &setup = test.setup;
    PlannedTest out{test.method, test.piecesPerCondition, setup.shape, facts.properties.front(), setup};
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

/// The property of a test that a polymer's strength tells; nothing for tests without one.
const PlannedProperty *strengthProperty(Method method)
{
    const auto properties = factsOf(method).properties;
    const auto found =
        std::find_if(properties.begin(), properties.end(), [](const PlannedProperty &property) {
            return property.name.ends_with("_strength") || property.name == "shear_stress" ||
                   property.name == "interface_shear";
        });
    return found == properties.end() ? nullptr : &*found;
}

std::optional<double> usualValue(const PlannedTest &test, const PolymerFacts &polymer,
                                 Orientation orientation)
{
    const bool standing = orientation == Orientation::Standing || factsOf(test.method).isAcrossLayers;
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

/// The test's usual value in a condition over that in the reference, 1 where both are alike; nothing where
/// nothing usual is known of the property, nor of the test's strength.
std::optional<double> usualOverReference(const Study &study, const PlannedTest &test,
                                         const Condition &condition)
{
    const Condition *reference = findCondition(study, study.reference);
    if (reference == nullptr)
        return 1.0;
    const PolymerGuess own = polymerOf(study, condition);
    const PolymerGuess other = polymerOf(study, *reference);
    if (own.facts == other.facts && condition.orientation == reference->orientation)
        return 1.0;
    PlannedTest byStrength = test;
    if (!usualValue(test, *own.facts, condition.orientation) && strengthProperty(test.method) != nullptr)
        byStrength.property = *strengthProperty(test.method);
    const std::optional<double> here = usualValue(byStrength, *own.facts, condition.orientation);
    const std::optional<double> there = usualValue(byStrength, *other.facts, reference->orientation);
    return here && there && *there > 0.0 ? std::optional(*here / *there) : std::nullopt;
}

/// What is known of the reference, carried over to another condition by what is usual of both.
std::optional<ExpectedValue> carriedOver(const Study &study, const PlannedTest &test,
                                         const Condition &condition, const ExpectedValue &ofReference)
{
    if (condition.id == study.reference)
        return ofReference;
    const std::optional<double> ratio = usualOverReference(study, test, condition);
    if (!ratio)
        return std::nullopt;
    if (*ratio == 1.0)
        return ofReference;
    return ExpectedValue{ofReference.value * *ratio,
                         fmt::format("{} for the reference, times {:.2f} as is usual between the two (common "
                                     "practice)",
                                     ofReference.source, *ratio)};
}

} // namespace

std::vector<PlannedTest> plannedTests(const Study &study)
{
    std::vector<PlannedTest> tests;
    for (const StudyTest &test : study.tests)
        tests.push_back(planned(test));
    return tests;
}

const PlannedTest &testOfMethod(const std::vector<PlannedTest> &tests, Method method)
{
    const auto found = std::find_if(tests.begin(), tests.end(),
                                    [method](const PlannedTest &test) { return test.method == method; });
    return found == tests.end() ? tests.front() : *found;
}

const PlannedTest &testOfPiece(const std::vector<PlannedTest> &tests, const Piece &piece)
{
    return testOfMethod(tests, piece.test);
}

TestSetup &setupOf(Study &study, Method method)
{
    StudyTest *test = findTest(study, method);
    require(test != nullptr, "no such test in the study");
    return test->setup;
}

std::vector<const Parameter *> saidParameters(Method method)
{
    // These have places of their own: the load of the test, the shape.
    constexpr std::string_view kElsewhere[] = {"stress", "fixture", "span"};
    std::vector<const Parameter *> said;
    const Reduction *reduction = reductionOf(method);
    if (reduction == nullptr)
        return said;
    for (const Parameter &parameter : reduction->parameters) {
        const bool isElsewhere =
            std::find(std::begin(kElsewhere), std::end(kElsewhere), parameter.name) != std::end(kElsewhere);
        if (!isElsewhere && parameter.source != ParameterSource::Piece)
            said.push_back(&parameter);
    }
    return said;
}

namespace
{

/// The rules of reading among the settings make sense together, whatever the piece.
Status checkStrainRules(const MethodSettings &settings)
{
    TensileParameters parameters;
    parameters.area = squareMillimetres(1.0);
    parameters.offsetStrain = settings.number("offset", parameters.offsetStrain);
    setRules(parameters, settings, {});
    return checkTensileParameters(parameters);
}

} // namespace

Status setTestParameter(Study &study, Method method, std::string_view name, std::string_view text)
{
    const std::vector<const Parameter *> said = saidParameters(method);
    const auto found = std::find_if(said.begin(), said.end(),
                                    [name](const Parameter *parameter) { return parameter->name == name; });
    if (found == said.end())
        return Error{
            ErrorCode::NotFound, fmt::format("{} has no parameter \"{}\"", methodName(method), name), {}};
    MethodSettings settings = setupOf(study, method).settings;
    if (trimmed(text).empty()) {
        settings.numbers.erase(std::string(name));
        settings.words.erase(std::string(name));
    } else if (const Status typed = setTyped(settings, **found, trimmed(text)); !typed) {
        return typed;
    }
    if (const Status status = checkStrainRules(settings); !status)
        return status;
    setupOf(study, method).settings = std::move(settings);
    return ok();
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

bool isAnnealed(const Study &study, const Condition &condition)
{
    const std::optional<std::string> said = settingOf(study, condition, factor::kAnnealing);
    if (!said)
        return false;
    const std::string level = smallLetters(trimmed(*said));
    constexpr std::string_view kNot[] = {
        "",           "-",          "none",  "no",          "off",          "false",      "without",
        "as printed", "as-printed", "raw",   "untreated",   "not annealed", "unannealed", "ohne",
        "keine",      "nein",       "nicht", "unbehandelt", "wie gedruckt", "sans",       "non",
        "aucun",      "brut"};
    const std::optional<double> number =
        parseTypedNumber(std::string_view(level).substr(0, numberPrefixLength(level)));
    return std::find(std::begin(kNot), std::end(kNot), level) == std::end(kNot) &&
           number.value_or(1.0) != 0.0;
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

std::string_view strengthName(Method method)
{
    const PlannedProperty *strength = strengthProperty(method);
    return strength == nullptr ? std::string_view() : strength->name;
}

ExpectedScatter expectedScatter(const Study &study, const OwnResults &own)
{
    if (study.plan.aim.cv)
        return {*study.plan.aim.cv, "set by you"};
    if (own.cv)
        return {*own.cv, own.source};
    return {factsOf(methodOf(study)).usualCv,
            fmt::format("usual for {} (common practice)", methodName(methodOf(study)))};
}

std::optional<ExpectedValue> expectedValue(const Study &study, const PlannedTest &test,
                                           const Condition &condition, const OwnResults &own)
{
    if (test.setup.expected)
        return carriedOver(study, test, condition, {*test.setup.expected, "set by you"});
    if (own.mean && test.method == methodOf(study)) {
        if (const std::optional<ExpectedValue> carried =
                carriedOver(study, test, condition, {*own.mean, own.source}))
            return carried;
    }
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
