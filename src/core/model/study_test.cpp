// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/study_test.h"

#include "core/base/json_fields.h"
#include "core/base/json_text.h"
#include "core/base/named.h"

#include <fmt/format.h>

#include <algorithm>

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
void stepPlanFields(Io &io, S &steps)
{
    io.field("start", steps.start, 0.0);
    io.field("step", steps.step, 0.0);
    io.field("top", steps.top, 0.0);
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
    io.field("loads_kg", setup.loads_kg, usual.loads_kg);
}

OrderedJson setupJson(const TestSetup &setup)
{
    OrderedJson json = OrderedJson::object();
    FieldWriter writer(json);
    setupFields(writer, setup);
    if (setup.fixture != Fixture::ThreePoint)
        json["fixture"] = fixtureName(setup.fixture);
    if (setup.steps) {
        OrderedJson steps = {{"rule", stepRuleName(setup.steps->rule)}};
        FieldWriter stepWriter(steps);
        stepPlanFields(stepWriter, *setup.steps);
        json["steps"] = steps;
    }
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
    if (!settings.empty())
        json["settings"] = settings;
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
    if (const auto found = json.find("steps"); found != json.end()) {
        FieldReader steps(*found);
        stepPlanFields(steps, setup.steps.emplace());
        setup.steps->rule = named(found->at("rule"), "rule", stepRuleFrom);
        if (const Status status = checkStepPlan(*setup.steps); !status)
            throw std::invalid_argument("\"steps\": " + status.error().message);
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

Method methodNamed(const OrderedJson &json)
{
    const auto name = json.get<std::string>();
    const std::optional<Method> method = methodFrom(name);
    if (!method)
        throw std::invalid_argument(fmt::format("\"method\": \"{}\" is no known test", name));
    return *method;
}

OrderedJson testJson(const StudyTest &test)
{
    OrderedJson json = {{"method", methodName(test.method)},
                        {"pieces_per_condition", test.piecesPerCondition}};
    json.update(setupJson(test.setup));
    return json;
}

std::vector<StudyTest> testsFrom(const OrderedJson &json)
{
    if (!json.is_array() || json.empty())
        throw std::invalid_argument("a list of at least one test is wanted");
    std::vector<StudyTest> tests;
    for (const OrderedJson &one : json) {
        StudyTest test{methodNamed(one.at("method")), kUsualPieces, setupFrom(one)};
        FieldReader reader(one);
        reader.field("pieces_per_condition", test.piecesPerCondition, kUsualPieces);
        if (test.piecesPerCondition < 0 || test.piecesPerCondition > kMostPiecesPerCondition)
            throw std::invalid_argument(
                fmt::format("\"pieces_per_condition\": {} given; 0 to {} are possible",
                            test.piecesPerCondition, kMostPiecesPerCondition));
        if (std::any_of(tests.begin(), tests.end(),
                        [&](const StudyTest &other) { return other.method == test.method; }))
            throw std::invalid_argument(
                fmt::format("\"method\": {} is there twice", methodName(test.method)));
        tests.push_back(std::move(test));
    }
    return tests;
}

} // namespace

bool mayBeCantilever(Method method)
{
    return factsOf(method).mayBeCantilever;
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

std::string testSetupText(const TestSetup &setup)
{
    return jsonText(setupJson(setup));
}

Result<TestSetup> testSetupFromText(std::string_view text)
{
    try {
        return setupFrom(parsedJson(text));
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no test: {}", jsonTrouble(failure)));
    }
}

std::string testsText(const std::vector<StudyTest> &tests)
{
    OrderedJson json = OrderedJson::array();
    for (const StudyTest &test : tests)
        json.push_back(testJson(test));
    return jsonText(json);
}

Result<std::vector<StudyTest>> testsFromText(std::string_view text)
{
    try {
        return testsFrom(parsedJson(text));
    } catch (const std::exception &failure) {
        return badInput(fmt::format("is no list of tests: {}", jsonTrouble(failure)));
    }
}

} // namespace inchpeg
