// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/study_keys.h"

#include "core/logbook/measuring.h"
#include "core/model/study_edit.h"
#include "core/planning/plan_edit.h"
#include "core/stats/power.h"
#include "core/text/letters.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <functional>

namespace inchpeg
{

namespace
{

/// What a key needs to know of what it changes.
struct Setting {
    Study &study;
    Method test;
    const Workshop &workshop;
    const std::optional<double> &expected;
};

struct Key {
    std::string_view name;
    std::string_view meaning;
    std::string (*text)(const Study &study, Method test);
    Status (*set)(const Setting &setting, std::string_view typed);
};

Result<double> numberWithin(std::string_view typed, double least, double most, std::string_view what)
{
    const std::optional<double> number = parseTypedNumber(typed);
    if (!number || *number < least || *number > most)
        return invalidArgument(
            fmt::format("\"{}\" is no {}; a number from {:g} to {:g} is wanted", typed, what, least, most));
    return *number;
}

/// A quantity above zero in the working unit of the fallback's dimension.
Result<double> quantityAbove(std::string_view typed, std::string_view fallback)
{
    const Result<double> value = parseQuantity(typed, *findUnit(fallback));
    if (!value)
        return value.error();
    if (!(*value > 0.0))
        return invalidArgument(fmt::format("\"{}\": a value above zero is wanted", typed));
    return *value;
}

Status setConfidence(const Setting &setting, std::string_view typed)
{
    const bool isPercent = typed.ends_with('%');
    const std::string_view number = isPercent ? trimmed(typed.substr(0, typed.size() - 1)) : typed;
    const Result<double> value = isPercent ? numberWithin(number, 50.0, 99.99, "confidence in percent")
                                           : numberWithin(number, 0.5, 0.9999, "confidence");
    if (!value)
        return value.error();
    setting.study.plan.aim.confidence = isPercent ? *value / 100.0 : *value;
    return ok();
}

std::string differenceKeyText(const Study &study, Method test)
{
    if (study.plan.aim.absoluteDifference) {
        const PlannedProperty property = testOfMethod(plannedTests(study), test).property;
        const Dimension dimension = differenceOf(property.dimension);
        return fmt::format("{:g} {}", *study.plan.aim.absoluteDifference, symbolInFiles(dimension));
    }
    return fmt::format("{:g} %", 100.0 * study.smallestDifference);
}

Status setSmallestDifference(const Setting &setting, std::string_view typed)
{
    const std::vector<PlannedTest> tests = plannedTests(setting.study);
    return setDifference(setting.study, testOfMethod(tests, setting.test).property, typed, setting.expected);
}

Status setReferenceRail(const Setting &setting, std::string_view typed)
{
    const Result<ConditionId> rail = railNamed(setting.study, typed);
    return rail ? setReference(setting.study, *rail) : Status(rail.error());
}

Status setLooks(const Setting &setting, std::string_view typed)
{
    if (typed.empty() || typed == "none") {
        setting.study.plan.aim.looks.reset();
        return ok();
    }
    const std::optional<Spending> spending = spendingFrom(typed);
    if (!spending)
        return invalidArgument(fmt::format("\"{}\" is none of none, {} and {}", typed,
                                           spendingName(Spending::OBrienFleming),
                                           spendingName(Spending::Pocock)));
    setting.study.plan.aim.looks = *spending;
    return ok();
}

Status setComparison(const Setting &setting, std::string_view typed)
{
    const std::optional<Comparison> comparison = comparisonFrom(std::string(typed).c_str());
    if (!comparison)
        return invalidArgument(fmt::format(
            "\"{}\" is none of t, reference, pairs, anova, trend, paired and good-enough", typed));
    setting.study.plan.aim.comparison = *comparison;
    return ok();
}

Status setTestProperty(const Setting &setting, std::string_view typed)
{
    const Reduction *reduction = reductionOf(setting.test);
    if (!typed.empty() && reduction != nullptr) {
        if (const Result<Property> property = findProperty(*reduction, typed); !property)
            return property.error();
    }
    setProperty(setting.study, setting.test, typed);
    return ok();
}

Status setRigOfTest(const Setting &setting, std::string_view typed)
{
    if (!typed.empty() && findRig(setting.workshop, std::string(typed)) == nullptr) {
        std::string known;
        for (const RigCard &rig : setting.workshop.rigs)
            known += (known.empty() ? "" : ", ") + rig.name;
        return Error{ErrorCode::NotFound,
                     fmt::format("the workshop has no rig \"{}\"; {}", typed,
                                 known.empty() ? std::string("it has none") : "there are " + known),
                     {}};
    }
    setRig(setting.study, setting.test, setting.workshop, typed);
    return ok();
}

Status setExpected(const Setting &setting, std::string_view typed)
{
    TestSetup &setup = setupOf(setting.study, setting.test);
    if (typed.empty()) {
        setup.expected.reset();
        return ok();
    }
    const PlannedProperty property = testOfMethod(plannedTests(setting.study), setting.test).property;
    const Result<double> value = parseQuantity(typed, workingUnit(property.dimension));
    if (!value)
        return value.error();
    setup.expected = *value;
    return ok();
}

Status setSpeed(const Setting &setting, std::string_view typed)
{
    std::string_view number = typed;
    if (number.ends_with("mm/min"))
        number = trimmed(number.substr(0, number.size() - 6));
    const Result<double> value = numberWithin(number, 1e-6, 1e6, "speed in mm/min");
    if (!value)
        return value.error();
    setupOf(setting.study, setting.test).speed_mm_per_min = *value;
    return ok();
}

Status setStress(const Setting &setting, std::string_view typed)
{
    const Result<double> value = quantityAbove(typed, "MPa");
    if (!value)
        return value.error();
    setupOf(setting.study, setting.test).stress_MPa = *value;
    return ok();
}

Status setReadings(const Setting &setting, std::string_view typed)
{
    const Result<double> count = numberWithin(typed, 1, kMostReadings, "number of readings");
    if (!count)
        return count.error();
    setting.study.log.measuring.readings = static_cast<int>(*count);
    applyMeasuringRule(setting.study);
    return ok();
}

Status setReadingRule(const Setting &setting, std::string_view typed)
{
    const std::optional<ReadingRule> rule = readingRuleFrom(typed);
    if (!rule)
        return invalidArgument(fmt::format("\"{}\" is none of mean and smallest", typed));
    setting.study.log.measuring.rule = *rule;
    applyMeasuringRule(setting.study);
    return ok();
}

Status setSectionShape(const Setting &setting, std::string_view typed)
{
    for (const SectionShape shape :
         {SectionShape::Rectangular, SectionShape::Round, SectionShape::PlainArea}) {
        if (sectionShapeName(shape) != typed)
            continue;
        const bool anyMeasured = std::any_of(setting.study.pieces.begin(), setting.study.pieces.end(),
                                             [](const Piece &piece) { return piece.section.has_value(); });
        if (anyMeasured && shape != setting.study.sectionShape)
            return invalidArgument("sections were measured already; their shape stays");
        setting.study.sectionShape = shape;
        return ok();
    }
    return invalidArgument(fmt::format("\"{}\" is none of rectangular, round and area", typed));
}

Status setGauge(const Setting &setting, std::string_view typed, GaugeKind kind,
                std::string MeasuringRule::*name)
{
    const bool isKnown =
        std::any_of(setting.workshop.gauges.begin(), setting.workshop.gauges.end(),
                    [&](const GaugeCard &gauge) { return gauge.kind == kind && gauge.name == typed; });
    if (!typed.empty() && !isKnown)
        return Error{ErrorCode::NotFound,
                     fmt::format("the workshop has no {} \"{}\"", gaugeKindName(kind), typed),
                     {}};
    setting.study.log.measuring.*name = typed;
    return ok();
}

const std::array kStudyWideKeys = {
    Key{"question", "what is asked", [](const Study &study, Method) { return study.question; },
        [](const Setting &setting, std::string_view typed) { return setQuestion(setting.study, typed); }},
    Key{"confidence", "of all claims together: 0.95, 95 %",
        [](const Study &study, Method) { return fmt::format("{:g}", study.plan.aim.confidence); },
        &setConfidence},
    Key{"smallest_difference", "that would change the decision: 10 %, 5 MPa", &differenceKeyText,
        &setSmallestDifference},
    Key{"reference", "the rail that all others are held against: its title or its number",
        [](const Study &study, Method) {
            const Condition *rail = findCondition(study, study.reference);
            return rail != nullptr ? distinctTitle(study, *rail) : std::string();
        },
        &setReferenceRail},
    Key{"looks", "at results while pieces are whole: none, strict first, alike",
        [](const Study &study, Method) {
            return std::string(study.plan.aim.looks ? spendingName(*study.plan.aim.looks) : "none");
        },
        &setLooks},
    Key{"comparison", "t, reference, pairs, anova, trend, paired or good-enough",
        [](const Study &study, Method) { return std::string(comparisonName(study.plan.aim.comparison)); },
        &setComparison},
    Key{"section_shape", "rectangular, round or area",
        [](const Study &study, Method) { return std::string(sectionShapeName(study.sectionShape)); },
        &setSectionShape},
    Key{"readings", "of each size of a piece",
        [](const Study &study, Method) { return std::to_string(study.log.measuring.readings); },
        &setReadings},
    Key{"reading_rule", "mean or smallest of several readings",
        [](const Study &study, Method) { return std::string(readingRuleName(study.log.measuring.rule)); },
        &setReadingRule},
    Key{"calliper", "of the workshop",
        [](const Study &study, Method) { return study.log.measuring.calliper; },
        [](const Setting &setting, std::string_view typed) {
            return setGauge(setting, typed, GaugeKind::Calliper, &MeasuringRule::calliper);
        }},
    Key{"scale", "of the workshop", [](const Study &study, Method) { return study.log.measuring.scale; },
        [](const Setting &setting, std::string_view typed) {
            return setGauge(setting, typed, GaugeKind::Scale, &MeasuringRule::scale);
        }},
};

const std::array kTestWideKeys = {
    Key{"property", "by which the test is judged",
        [](const Study &study, Method test) { return findTest(study, test)->setup.property; },
        &setTestProperty},
    Key{"rig", "of the workshop",
        [](const Study &study, Method test) { return findTest(study, test)->setup.rig; }, &setRigOfTest},
    Key{"expected", "what a piece of the reference is expected to reach",
        [](const Study &study, Method test) {
            const std::optional<double> &expected = findTest(study, test)->setup.expected;
            return expected ? fmt::format("{:g}", *expected) : std::string();
        },
        &setExpected},
    Key{"speed", "of the test, mm/min",
        [](const Study &study, Method test) {
            return fmt::format("{:g} mm/min", findTest(study, test)->setup.speed_mm_per_min);
        },
        &setSpeed},
    Key{"stress", "of a test under a dead load, MPa",
        [](const Study &study, Method test) {
            return fmt::format("{:g} MPa", findTest(study, test)->setup.stress_MPa);
        },
        &setStress},
};

const Key *findKey(std::string_view name)
{
    for (const Key &key : kStudyWideKeys) {
        if (key.name == name)
            return &key;
    }
    for (const Key &key : kTestWideKeys) {
        if (key.name == name)
            return &key;
    }
    return nullptr;
}

const Parameter *parameterNamed(Method test, std::string_view name)
{
    for (const Parameter *parameter : saidParameters(test)) {
        if (parameter->name == name)
            return parameter;
    }
    return nullptr;
}

Error unknownKey(Method test, std::string_view name)
{
    std::string known;
    for (const StudyKey &key : studyKeys(test))
        known += (known.empty() ? "" : ", ") + key.name;
    return Error{ErrorCode::NotFound,
                 fmt::format("there is no key \"{}\" for {}; known are {}", name, methodName(test), known),
                 {}};
}

} // namespace

std::vector<StudyKey> studyKeys(Method test)
{
    std::vector<StudyKey> keys;
    for (const Key &key : kStudyWideKeys)
        keys.push_back({std::string(key.name), std::string(key.meaning)});
    for (const Key &key : kTestWideKeys)
        keys.push_back({std::string(key.name), std::string(key.meaning)});
    for (const Parameter *parameter : saidParameters(test)) {
        if (findKey(parameter->name) == nullptr)
            keys.push_back({std::string(parameter->name), std::string(parameter->meaning)});
    }
    return keys;
}

Result<std::string> studyKeyText(const Study &study, Method test, std::string_view name)
{
    if (findTest(study, test) == nullptr)
        return Error{ErrorCode::NotFound, fmt::format("the study has no test \"{}\"", methodName(test)), {}};
    if (const Key *key = findKey(name))
        return key->text(study, test);
    const Parameter *parameter = parameterNamed(test, name);
    if (parameter == nullptr)
        return unknownKey(test, name);
    const MethodSettings &settings = findTest(study, test)->setup.settings;
    if (const std::optional<double> number = settings.number(parameter->name)) {
        const std::optional<Unit> unit = findUnit(parameter->unit);
        return unit ? fmt::format("{:g} {}", unit->fromWorking(*number), unit->symbol)
                    : fmt::format("{:g}", *number);
    }
    return std::string(settings.word(parameter->name));
}

Status setStudyKey(Study &study, Method test, std::string_view name, std::string_view text,
                   const Workshop &workshop, const std::optional<double> &expected)
{
    if (findTest(study, test) == nullptr)
        return Error{ErrorCode::NotFound, fmt::format("the study has no test \"{}\"", methodName(test)), {}};
    const Key *key = findKey(name);
    if (key == nullptr && parameterNamed(test, name) == nullptr)
        return unknownKey(test, name);
    const Status set = key != nullptr ? key->set({study, test, workshop, expected}, trimmed(text))
                                      : setTestParameter(study, test, name, trimmed(text));
    if (set)
        return set;
    Error error = set.error();
    error.message = fmt::format("{}: {}", name, error.message);
    return error;
}

Result<ConditionId> railNamed(const Study &study, std::string_view name)
{
    std::string known;
    for (const Condition &condition : study.conditions) {
        const std::string title = distinctTitle(study, condition);
        if (smallLetters(title) == smallLetters(name) ||
            smallLetters(railTitle(study, condition)) == smallLetters(name))
            return condition.id;
        known += fmt::format("{}\"{}\"", known.empty() ? "" : ", ", title);
    }
    const std::optional<double> number = parseTypedNumber(name);
    if (number && *number >= 1.0 && *number <= static_cast<double>(study.conditions.size()))
        return study.conditions[static_cast<std::size_t>(*number) - 1].id;
    return Error{ErrorCode::NotFound,
                 fmt::format("there is no rail \"{}\"; {}", name,
                             known.empty() ? std::string("the study has none") : "there are " + known),
                 {}};
}

} // namespace inchpeg
