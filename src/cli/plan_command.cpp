// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "core/planning/dead_load.h"
#include "core/planning/icalendar.h"
#include "core/planning/piece_count.h"
#include "core/units/unit.h"
#include "disk/file_bytes.h"
#include "service/earlier_results.h"
#include "service/local_zone.h"
#include "service/on_all_cores.h"
#include "service/plan_document.h"
#include "service/plan_simulation.h"
#include "service/project/open_project.h"
#include "service/project_report.h"
#include "service/workshop_setting.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <ctime>
#include <iostream>
#include <iterator>

namespace inchpeg::cli
{

namespace
{

constexpr OptionSpec kSpecOption{"spec", "FILE", "a description of the plan in JSON; - reads standard input",
                                 false, true};
constexpr OptionSpec kPlannedStudyOption{"study", "QUESTION", "the study, by its question or its id"};

Result<double> numberOption(const Options &options, std::string_view name, double usual, double least,
                            double most)
{
    const Result<std::optional<double>> number = options.number(name, least, most);
    if (!number)
        return number.error();
    return number->value_or(usual);
}

Result<std::string> readSpec(const std::string &path)
{
    return readFileBytes(path);
}

Error inSpec(const std::string &path, Error error)
{
    error.message = path + ": " + error.message;
    return error;
}

Result<Outcome> make(const Options &options)
{
    const std::string path = options.required("spec");
    const Result<std::string> text = readSpec(path);
    if (!text)
        return text.error();
    std::unique_ptr<OpenProject> project;
    std::int64_t lastId = 0;
    if (const std::optional<std::string> into = options.value("into")) {
        Result<std::unique_ptr<OpenProject>> opened = OpenProject::open(*into, personHere());
        if (!opened)
            return opened.error();
        project = std::move(*opened);
    }
    const IdSource ids = [&] { return project ? project->file().takeId() : ++lastId; };
    Result<PlanSpec> spec = planFromSpec(*text, ids);
    if (!spec)
        return inSpec(path, spec.error());
    const Result<OrderedJson> report = planReport(spec->study, spec->workshop, {});
    if (!report)
        return inSpec(path, report.error());
    if (project) {
        const Status saved = project->file().together([&]() -> Status {
            if (spec->saysWorkshop) {
                const Result<Edited> cards =
                    project->editor().editWorkshop("cards of a description", [&](Workshop &workshop) {
                        takeCards(workshop, spec->workshop);
                        return ok();
                    });
                if (!cards)
                    return cards.error();
            }
            return project->editor().add(spec->study);
        });
        if (!saved)
            return saved.error();
    }
    return Outcome{*report, {}, false};
}

Result<Study> chosenStudy(ProjectFile &project, const Options &options)
{
    const Result<std::vector<StudyHeader>> studies = project.studies();
    if (!studies)
        return studies.error();
    const std::optional<std::string> wanted = options.value("study");
    if (!wanted && studies->size() == 1)
        return project.loadStudy(studies->front().id);
    if (wanted) {
        const Result<StudyId> named = studyNamed(project, *wanted);
        return named ? project.loadStudy(*named) : Result<Study>(named.error());
    }
    std::string known;
    for (const StudyHeader &header : *studies)
        known += fmt::format("{}{}: {}", known.empty() ? "" : "; ", header.id.value, header.question);
    return invalidArgument(
        fmt::format("the project holds several studies; name one with --study: {}", known));
}

Result<Outcome> show(const Options &options)
{
    Result<ProjectFile> project = ProjectFile::openForReading(options.positional().front());
    if (!project)
        return project.error();
    const Result<Study> study = chosenStudy(*project, options);
    if (!study)
        return study.error();
    const Result<Workshop> workshop = workshopOf(*project);
    if (!workshop)
        return workshop.error();
    const Result<OwnResults> own = ownResults(*project, study->id, Keeping::IfFree);
    if (!own)
        return own.error();
    const Result<OrderedJson> report = planReport(*study, *workshop, *own);
    if (!report)
        return report.error();
    return Outcome{*report, {}, false};
}

std::string utcStamp()
{
    const std::time_t now = std::time(nullptr);
    std::tm parts{};
    gmtime_r(&now, &parts);
    char text[32];
    const std::size_t length = std::strftime(text, sizeof text, "%Y%m%dT%H%M%SZ", &parts);
    return std::string(text, length);
}

/// The calendar of all dated studies of a project, on standard output as a list or to a file as iCalendar.
Result<Outcome> calendar(const Options &options)
{
    Result<ProjectFile> project = ProjectFile::openForReading(options.positional().front());
    if (!project)
        return project.error();
    const Result<std::vector<StudyHeader>> headers = project->studies();
    const Result<Workshop> workshop = workshopOf(*project);
    if (!headers)
        return headers.error();
    if (!workshop)
        return workshop.error();
    std::vector<Study> studies;
    std::vector<PlateLayout> layouts;
    std::map<StudyId, std::string> questions;
    for (const StudyHeader &header : *headers) {
        Result<Study> study = project->loadStudy(header.id);
        if (!study)
            return study.error();
        layouts.push_back(layOutPlates(*study, *workshop));
        questions[study->id] = study->question;
        studies.push_back(std::move(*study));
    }
    std::vector<DatedStudy> dated;
    for (std::size_t i = 0; i < studies.size(); ++i)
        dated.push_back({&studies[i], &layouts[i]});
    const Result<std::vector<CalendarEntry>> entries =
        layOutCalendar(dated, *workshop, std::nullopt, localZone());
    if (!entries)
        return entries.error();
    Json list = Json::array();
    for (const CalendarEntry &entry : *entries)
        list.push_back({{"study", questions[entry.study]},
                        {"work", workName(entry.kind)},
                        {"what", entry.what},
                        {"with", entry.resource},
                        {"start", momentText(entry.start)},
                        {"end", momentText(entry.end)},
                        {"attended", entry.attended},
                        {"moved_min", entry.shifted_min},
                        {"remark", movedText(entry)}});
    if (const std::optional<std::string> path = options.value("to")) {
        const Status written =
            writeFileBytes(*path, iCalendarText(*entries, questions, utcStamp(), localZone()));
        if (!written)
            return written.error();
    }
    return Outcome{Json{{"entries", list}}, {}, false};
}

Result<Outcome> simulate(const Options &options)
{
    SimulationSetup setup;
    struct Number {
        const char *name;
        double usual, least, most;
        std::function<void(double)> set;
    };
    const Number numbers[] = {
        {"groups", 2, 2, 200, [&](double v) { setup.conditions = static_cast<int>(v); }},
        {"n", 5, 2, 10000, [&](double v) { setup.pieces = static_cast<int>(v); }},
        {"cv", 0.05, 1e-6, 10, [&](double v) { setup.cv = v; }},
        {"difference", 0.1, -0.99, 10, [&](double v) { setup.difference = v; }},
        {"expected", 100, 1e-9, 1e9, [&](double v) { setup.expected = v; }},
        {"alpha", 0.05, 1e-9, 0.999, [&](double v) { setup.alpha = v; }},
        {"lost", 0, 0, 0.99, [&](double v) { setup.lost = v; }},
        {"resolution", 0, 0, 1e9, [&](double v) { setup.rig.resolution_N = v; }},
        {"capacity", 0, 0, 1e9, [&](double v) { setup.rig.capacity_N = v; }},
        {"runs", 1000, 1, 100000, [&](double v) { setup.runs = static_cast<int>(v); }},
        {"seed", 1, 0, 9e15, [&](double v) { setup.seed = static_cast<std::uint64_t>(v); }},
    };
    for (const Number &number : numbers) {
        const Result<double> value =
            numberOption(options, number.name, number.usual, number.least, number.most);
        if (!value)
            return value.error();
        number.set(*value);
    }
    const std::string test = options.value("test").value_or(setup.conditions == 2 ? "t" : "reference");
    const std::optional<Comparison> comparison = comparisonFrom(test.c_str());
    if (!comparison)
        return invalidArgument(fmt::format(
            "--test is \"{}\"; t, reference, pairs, anova, trend, paired or good-enough is wanted", test));
    setup.comparison = *comparison;
    const Result<SimulationResult> result = simulatePlan(setup, onAllCores, {});
    if (!result)
        return result.error();
    PowerQuestion question{setup.comparison, std::abs(std::log1p(setup.difference)) / setup.cv, setup.alpha,
                           setup.conditions};
    question.isOwnScatter = true; // as the simulation compares
    const Result<Power> exact = powerOf(question, setup.pieces);
    return Outcome{Json{{"runs", result->runs},
                        {"found", result->found},
                        {"share", result->share()},
                        {"standard_error", result->standardError()},
                        {"exact_power", exact ? Json(exact->power) : Json()},
                        {"false_alarms", result->falseAlarms},
                        {"undecided", result->undecided}},
                   {},
                   false};
}

Result<Outcome> shapes(const Options &)
{
    Json list = Json::array();
    for (const SpecimenShape &shape : shapeShelf()) {
        const Result<Area> area = areaOf(nominalSection(shape));
        list.push_back({{"key", shape.key},
                        {"name", shape.name},
                        {"standard", shape.standard.empty() ? Json() : Json(shape.standard)},
                        {"length_mm", shape.length_mm},
                        {"section_mm2", area ? Json(in_mm2(*area)) : Json()},
                        {"volume_mm3", volume_mm3(shape)}});
    }
    return Outcome{Json{{"shapes", list}}, {}, false};
}

Result<Outcome> factors(const Options &)
{
    Json list = Json::array();
    for (const FactorKind &kind : factorLibrary())
        list.push_back({{"name", kind.name},
                        {"unit", kind.unit},
                        {"changed_per", changedPerName(kind.changedPer)},
                        {"example", kind.levels},
                        {"remark", kind.remark}});
    return Outcome{Json{{"factors", list}}, {}, false};
}

Result<Outcome> methods(const Options &)
{
    Json list = Json::array();
    for (const MethodFacts &facts : allMethods()) {
        Json properties = Json::array();
        for (const PlannedProperty &property : facts.properties)
            properties.push_back(property.name);
        list.push_back({{"name", facts.name},
                        {"usual_cv", facts.usualCv},
                        {"shape", facts.shape},
                        {"minutes_per_piece", facts.minutesPerPiece},
                        {"speed", facts.speed},
                        {"properties", properties}});
    }
    return Outcome{Json{{"methods", list}}, {}, false};
}

Result<Outcome> aliases(const Options &options)
{
    const Result<double> factorCount = numberOption(options, "factors", 0, 3, 7);
    if (!factorCount)
        return factorCount.error();
    const Result<TwoLevelFraction> fraction =
        TwoLevelFraction::make(static_cast<int>(*factorCount), options.all("generator"));
    if (!fraction)
        return fraction.error();
    Json effects = Json::array();
    for (char a = 'A'; a < 'A' + fraction->factors(); ++a) {
        effects.push_back(
            {{"effect", std::string(1, a)}, {"aliases", fraction->aliases(std::string(1, a), 2)}});
    }
    for (char a = 'A'; a < 'A' + fraction->factors(); ++a) {
        for (char b = static_cast<char>(a + 1); b < 'A' + fraction->factors(); ++b)
            effects.push_back(
                {{"effect", std::string{a, b}}, {"aliases", fraction->aliases(std::string{a, b}, 2)}});
    }
    return Outcome{Json{{"resolution", fraction->resolution()},
                        {"defining_relation", fraction->definingRelation()},
                        {"runs", fraction->runs()},
                        {"effects", effects}},
                   {},
                   false};
}

/// A length, stress or mass option with its unit.
Result<double> quantityOption(const Options &options, const char *name, Dimension dimension)
{
    const Result<double> value = parseQuantity(options.required(name), workingUnit(dimension));
    if (!value)
        return invalidArgument(fmt::format("--{}: {}", name, value.error().message));
    if (!(*value > 0.0))
        return invalidArgument(fmt::format("--{}: a value above zero is wanted", name));
    return *value;
}

Result<Outcome> deadLoad(const Options &options)
{
    const Result<double> width = quantityOption(options, "width", Dimension::Length);
    const Result<double> thickness = quantityOption(options, "thickness", Dimension::Length);
    const Result<double> span = quantityOption(options, "span", Dimension::Length);
    for (const Result<double> *one : {&width, &thickness, &span}) {
        if (!*one)
            return one->error();
    }
    const Length b = millimetres(*width);
    const Length h = millimetres(*thickness);
    const Length l = millimetres(*span);
    const bool byMass = options.value("mass").has_value();
    if (byMass == options.value("stress").has_value())
        return invalidArgument("give either --stress, for the mass, or --mass, for the stress");
    const Result<double> given = byMass ? quantityOption(options, "mass", Dimension::Mass)
                                        : quantityOption(options, "stress", Dimension::Stress);
    if (!given)
        return given.error();
    const Force force =
        byMass ? weightOf(Mass::fromSi(*given)) : threePointForce(megapascals(*given), b, h, l);
    return Outcome{Json{{"stress_MPa", in_MPa(threePointStress(force, b, h, l))},
                        {"force_N", in_N(force)},
                        {"mass_kg", deadMass(force).si()},
                        {"standard_deflection_mm", in_mm(standardDeflection(l, h))}},
                   {},
                   false};
}

} // namespace

std::vector<Command> planCommands()
{
    return {
        {"plan",
         "make",
         "",
         "work a plan out from a description",
         {kSpecOption, {"into", "FILE", "also add the study to this project"}},
         0,
         make},
        {"plan", "show", "FILE", "what follows from the plan of a study", {kPlannedStudyOption}, 1, show},
        {"plan",
         "calendar",
         "FILE",
         "the work of all dated studies in time",
         {{"to", "FILE.ics", "also write it as iCalendar"}},
         1,
         calendar},
        {"plan",
         "simulate",
         "",
         "how often virtual specimens show the difference",
         {{"test", "TEST", "t, reference, pairs, anova or trend"},
          {"groups", "K", "conditions, 2 unless given"},
          {"n", "N", "pieces a condition, 5 unless given"},
          {"cv", "FRACTION", "scatter of single values, 0.05 unless given"},
          {"difference", "FRACTION", "of one condition from the reference, 0.1 unless given"},
          {"expected", "VALUE", "of the reference, 100 unless given"},
          {"alpha", "FRACTION", "0.05 unless given"},
          {"lost", "FRACTION", "share of pieces that give no value"},
          {"resolution", "VALUE", "step of the gauge"},
          {"capacity", "VALUE", "end of the gauge's range"},
          {"runs", "N", "1000 unless given"},
          {"seed", "N", "1 unless given"}},
         0,
         simulate},
        {"plan",
         "aliases",
         "",
         "what a two-level fraction cannot tell apart",
         {{"factors", "N", "3 to 7", false, true},
          {"generator", "D=ABC", "one for each factor that is made from others", true, true}},
         0,
         aliases},
        {"plan",
         "dead-load",
         "",
         "mass for a bending stress, or the reverse",
         {{"stress", "VALUE", "in the outer fibre, MPa"},
          {"mass", "VALUE", "kg"},
          {"width", "VALUE", "mm", false, true},
          {"thickness", "VALUE", "mm", false, true},
          {"span", "VALUE", "mm", false, true}},
         0,
         deadLoad},
        {"plan", "shapes", "", "the shelf of specimen shapes", {}, 0, shapes},
        {"plan", "factors", "", "the library of factors", {}, 0, factors},
        {"plan", "methods", "", "the tests that can be planned", {}, 0, methods},
    };
}

} // namespace inchpeg::cli
