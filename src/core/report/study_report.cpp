// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/study_report.h"

#include "core/compare/comparison_graphs.h"
#include "core/compare/trade_off_graph.h"
#include "core/decide/study_answers.h"
#include "core/logbook/logged_confounds.h"
#include "core/logbook/rail_costs.h"
#include "core/logbook/result_cautions.h"
#include "core/logbook/room.h"
#include "core/planning/cautions.h"
#include "core/planning/piece_count.h"
#include "core/planning/planned_test.h"
#include "core/report/graph_drawing.h"
#include "core/report/rails_drawing.h"
#include "core/text/letters.h"
#include "core/text/list_text.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace inchpeg
{

namespace
{

void addTable(ReportSection &section, ReportTable table)
{
    if (!table.rows.empty())
        section.blocks.emplace_back(std::move(table));
}

/// One report on its way: the outline is report(), each section a function.
class StudyReporter
{
public:
    StudyReporter(const StudyReportRequest &request, const Notation &notation)
        : m_request(request), m_study(*request.study), m_readings(*request.readings),
          m_workshop(*request.workshop), m_notation(notation), m_responses(responsesOf(*request.study))
    {
    }

    Report report()
    {
        Report report{"Test report", m_study.question, facts(), {}, footOf(m_request.origin)};
        ReportSection says{"What it says", {}};
        std::vector<ReportSection> responses = responseSections(says);
        report.sections.push_back(std::move(says));
        for (ReportSection &section : responses)
            report.sections.push_back(std::move(section));
        report.sections.push_back(confounds());
        report.sections.push_back(tested());
        report.sections.push_back(printed());
        report.sections.push_back(decisions());
        report.sections.push_back(pieces());
        report.sections.push_back(cautions());
        report.sections.push_back(trace());
        std::erase_if(report.sections, [](const ReportSection &section) { return section.blocks.empty(); });
        return report;
    }

private:
    [[nodiscard]] std::vector<ReportFact> facts() const
    {
        std::size_t tested = 0;
        std::size_t leftOut = 0;
        std::size_t given = 0;
        std::set<std::string> days;
        for (const Piece &piece : m_study.pieces) {
            tested += piece.recording ? 1U : 0U;
            leftOut += piece.exclusion ? 1U : 0U;
            given += isGiven(piece) ? 1U : 0U;
            if (piece.recording && piece.recording->gauge)
                days.insert(piece.recording->gauge->usedAt);
        }
        std::vector<std::string> tests;
        for (const StudyTest &test : m_study.tests)
            tests.emplace_back(methodName(test.method));
        std::vector<std::string> factors;
        for (const Factor &factor : m_study.factors)
            factors.push_back(factor.name);
        std::vector<ReportFact> facts{
            {"Tests", listText(tests)},
            {"What changes", listText(factors)},
            {"Rails", fmt::format("{}; reference: {}", m_study.conditions.size(), referenceTitle())},
            {"Pieces",
             fmt::format("{} of {} tested{}{}", tested, m_study.pieces.size(),
                         given > 0 ? fmt::format(", {} given without a record", given) : std::string(),
                         leftOut > 0 ? fmt::format(", {} left out by hand", leftOut) : std::string())},
            {"Difference that matters", smallestDifference()},
            {"Confidence", fmt::format("{}, {}", m_notation.percent(m_study.plan.aim.confidence),
                                       comparisonWords(m_study.plan.aim.comparison))}};
        if (!days.empty())
            facts.push_back({"Tested", *days.begin() == *days.rbegin()
                                           ? *days.begin()
                                           : *days.begin() + " to " + *days.rbegin()});
        facts.push_back({"Written", m_request.origin.writtenAt + ", from " + m_request.origin.project});
        return facts;
    }

    [[nodiscard]] std::string referenceTitle() const
    {
        const Condition *reference = findCondition(m_study, m_study.reference);
        return reference != nullptr ? distinctTitle(m_study, *reference) : std::string("none");
    }

    [[nodiscard]] std::string smallestDifference() const
    {
        if (m_study.plan.aim.absoluteDifference && !m_responses.empty())
            return propertyDifferenceText(m_responses.front().property, *m_study.plan.aim.absoluteDifference,
                                          1, m_notation);
        if (!m_responses.empty() && !isComparedAsRatio(m_responses.front().property))
            return "not said: a share says nothing of a temperature or a grade";
        return m_notation.percent(m_study.smallestDifference) + " of the reference";
    }

    /// Also fills what stands first: the headline of each response.
    std::vector<ReportSection> responseSections(ReportSection &says)
    {
        std::vector<ReportSection> sections;
        if (m_study.tests.size() > 1)
            says.say(responsesHeadline(m_study, responseTable(m_study, m_readings, m_notation)),
                     TextKind::Lead);
        for (const Response &response : m_responses) {
            const StudyComparison comparison =
                compareStudy(m_study, m_readings, response.property,
                             {.test = response.test, .detail = ComparisonDetail::Sentences});
            const bool any = std::any_of(comparison.rails.begin(), comparison.rails.end(),
                                         [](const RailComparison &rail) { return !rail.values.empty(); });
            if (!any)
                continue;
            const StudyVerdict verdict = verdictOf(m_study, comparison, m_notation);
            const bool isFirst = sections.empty() && m_study.tests.size() == 1;
            const std::string test =
                m_study.tests.size() > 1 ? capitalised(methodName(response.test)) + ": " : std::string();
            says.say(test + verdict.headline, isFirst ? TextKind::Lead : TextKind::Item);
            sections.push_back(responseSection(response, comparison, verdict));
        }
        if (sections.empty())
            says.say("Nothing was read yet: there is no record of any piece.", TextKind::Lead);
        for (const std::string &remark : m_request.remarks)
            says.say(remark, TextKind::Caution);
        for (const std::string &caution : resultCautions(m_study, m_workshop, &m_readings))
            says.say(m_notation.expand(caution), TextKind::Caution);
        return sections;
    }

    ReportSection responseSection(const Response &response, const StudyComparison &comparison,
                                  const StudyVerdict &verdict)
    {
        ReportSection section{
            fmt::format("{}: {}", capitalised(methodName(response.test)), response.property.label), {}};
        const std::vector<Drawing> rails = railsDrawings(m_study, comparison, m_notation);
        for (std::size_t i = 0; i < rails.size(); ++i)
            section.blocks.emplace_back(ReportPicture{
                rails[i], i + 1 == rails.size() ? railsKey(comparison, m_notation) : std::string()});
        for (const RailVerdict &rail : verdict.rails) {
            const std::string title = distinctTitle(m_study, *findCondition(m_study, rail.condition));
            if (!rail.sentence.empty())
                section.say(fmt::format("{}: {}{}{}", title, rail.sentence,
                                        rail.shareSentence.empty() ? "" : " ", rail.shareSentence),
                            TextKind::Item);
        }
        const bool isFirstOfTest = m_seen.insert(response.test).second;
        if (isFirstOfTest) {
            for (const Sentence &answer : studyAnswers({.study = &m_study,
                                          .readings = &m_readings,
                                          .property = response.property,
                                          .test = response.test,
                                          .workshop = &m_workshop,
                                          .all = m_request.all,
                                          .bought = m_request.bought,
                                          .withSchools = false},
                                                       comparison, m_notation))
                section.say(m_notation.expand(answer.text));
        }
        addTable(section, railsTable(m_study, comparison, verdict, m_notation));
        section.say(verdict.procedure);
        for (const ComparisonGraph kind : graphsFor(m_study, comparison)) {
            // Of rails that are only names, shares say more than the pegs only where bounds are among them.
            const bool isOfShares = kind == ComparisonGraph::Weibull || kind == ComparisonGraph::Survival;
            constexpr std::size_t kMostRails = 6; // more lines than that are no longer told apart
            if (isOfShares && comparison.rails.size() > kMostRails)
                continue;
            if (isOfShares && std::none_of(comparison.rails.begin(), comparison.rails.end(),
                                           [](const RailComparison &rail) { return rail.bounds > 0; }))
                continue;
            const Graph graph = comparisonGraph(kind, m_study, comparison, m_notation);
            if (graph.isEmpty())
                continue;
            section.blocks.emplace_back(ReportPicture{graphDrawing(graph, m_notation),
                                                      capitalised(graphName(kind)) + ". " + graph.sentence});
            break; // the one that fits the question best
        }
        if (isFirstOfTest) {
            addTradeOff(section, response.test, comparison);
            addCurves(section, response.test);
        }
        return section;
    }

    /// What a better value costs, where the rails do not all weigh the same.
    void addTradeOff(ReportSection &section, Method test, const StudyComparison &comparison) const
    {
        constexpr double kTellingSpread = 1.05;
        const std::vector<RailCost> costs = railCosts(m_study, test, CostKind::PieceMass, m_workshop);
        const auto [least, most] =
            std::minmax_element(costs.begin(), costs.end(),
                                [](const RailCost &a, const RailCost &b) { return a.perPiece < b.perPiece; });
        if (costs.empty() || most->perPiece < kTellingSpread * least->perPiece)
            return;
        const Graph graph =
            tradeOffGraph(m_study, comparison, costs,
                          costWords(CostKind::PieceMass, m_workshop.moneyUnit, m_notation), m_notation);
        if (!graph.isEmpty())
            section.blocks.emplace_back(
                ReportPicture{graphDrawing(graph, m_notation), "Against mass. " + graph.sentence});
    }

    void addCurves(ReportSection &section, Method test) const
    {
        CurvesDrawing curves = curvesDrawing(m_study, m_readings, test, m_notation);
        if (curves.drawing.isEmpty())
            return;
        std::string caption = "All records, rail by rail on one scale; dashed: left out.";
        if (curves.leftOut > 0)
            caption += fmt::format(" {} more rails found no room here.", curves.leftOut);
        section.blocks.emplace_back(ReportPicture{std::move(curves.drawing), std::move(caption)});
    }

    [[nodiscard]] ReportSection confounds() const
    {
        ReportSection section{"What else could be the cause", {}};
        for (const Confound &confound : loggedConfounds(m_study, m_workshop, &m_readings)) {
            section.say(m_notation.expand(confound.sentence),
                        confound.weight == Confound::Weight::Aliased ? TextKind::Caution : TextKind::Item);
            if (confound.control)
                section.say("It would be separated by: " + confound.control->label + '.');
        }
        if (section.blocks.empty())
            section.say("Nothing that is known moved together with what was changed.");
        section.say(lookedAtSentence(m_study, &m_readings));
        return section;
    }

    [[nodiscard]] ReportSection tested() const
    {
        ReportSection section{"How it was tested", {}};
        ReportTable table{"Tests",
                          {{"Test", false, 1.1},
                           {"Specimen", false, 2.0},
                           {"Standard of its shape", false, 1.5},
                           {"Rig", false, 1.3},
                           {"Usual speed and standard", false, 2.4},
                           {"Pieces a rail", true, 0.6}},
                          {}};
        for (const PlannedTest &test : plannedTests(m_study)) {
            const SpecimenShape &shape = test.shape;
            const bool isSaid = !test.setup.shape.key.empty();
            table.rows.push_back(
                {std::string(methodName(test.method)),
                 isSaid ? shapeText(shape) : fmt::format("not said; usual: {}", shape.name),
                 !isSaid                  ? std::string("not said")
                 : shape.standard.empty() ? std::string("none: our own shape")
                                          : shape.standard,
                 test.setup.rig.empty() ? std::string("not said") : test.setup.rig,
                 std::string(factsOf(test.method).speed),
                 ReportCell(std::to_string(test.piecesPerCondition), test.piecesPerCondition, 0)});
        }
        addTable(section, std::move(table));
        for (const PlannedTest &test : plannedTests(m_study)) {
            const std::string said = settingsSaid(test);
            section.say(said.empty()
                            ? said
                            : fmt::format("Said for the {} test: {}.", methodName(test.method), said));
        }
        addTable(section, definitionsTable(m_responses));
        addTable(section, brokenRulesTable(m_study, m_readings, m_notation));
        if (brokenRulesTable(m_study, m_readings, m_notation).rows.empty())
            section.say("Every record keeps the rules of its test.");
        addTable(section, gaugesTable(m_study));
        for (const RoomReading &room : m_study.log.rooms) {
            section.say(fmt::format("Room on {}: {}, {} % relative humidity. {}", room.when.substr(0, 10),
                                    m_notation.quantity(room.temperature_C, Dimension::Temperature, 3),
                                    m_notation.plain(room.humidity_percent, 3),
                                    m_notation.expand(roomSentence(room))),
                        TextKind::Item);
        }
        return section;
    }

    [[nodiscard]] std::string shapeText(const SpecimenShape &shape) const
    {
        std::string text = fmt::format("{}, {} × {}", shape.name, m_notation.measuredLength(shape.length_mm),
                                       m_notation.measuredLength(shape.width_mm));
        if (shape.thickness_mm > 0.0)
            text += " × " + m_notation.measuredLength(shape.thickness_mm);
        return text + ' ' + std::string(m_notation.unitOf(Dimension::Length).symbol);
    }

    [[nodiscard]] static std::string settingsSaid(const PlannedTest &test)
    {
        std::string said;
        for (const Parameter *parameter : saidParameters(test.method)) {
            std::string value{test.setup.settings.word(parameter->name)};
            if (const std::optional<double> number = test.setup.settings.number(parameter->name)) {
                const std::optional<Unit> unit = findUnit(parameter->unit);
                value = unit ? fmt::format("{:g} {}", unit->fromWorking(*number), unit->symbol)
                             : fmt::format("{:g}", *number);
            }
            if (!value.empty())
                said += fmt::format("{}{} {}", said.empty() ? "" : ", ", parameter->label, value);
        }
        return said;
    }

    [[nodiscard]] ReportSection printed() const
    {
        ReportSection section{"How it was printed", {}};
        ReportTable rails{"Rails",
                          {{"Rail", false, 2.4},
                           {"Printed", false, 0.8},
                           {"Material, lot", false, 2.2},
                           {"Pieces", true, 0.6}},
                          {}};
        for (const Condition &condition : m_study.conditions) {
            const auto pieces = piecesOf(m_study, condition.id).size();
            rails.rows.push_back({distinctTitle(m_study, condition) +
                                      (condition.id == m_study.reference ? " (reference)" : ""),
                                  std::string(orientationName(condition.orientation)), condition.material,
                                  ReportCell(std::to_string(pieces), static_cast<double>(pieces), 0)});
        }
        addTable(section, std::move(rails));
        for (const std::string &sentence : heldSentences(m_study))
            section.say(sentence);
        addTable(section, platesTable(m_study));
        for (const TimedStep &step : m_study.log.steps)
            section.say(stepText(step), TextKind::Item);
        return section;
    }

    [[nodiscard]] std::string stepText(const TimedStep &step) const
    {
        std::string text =
            fmt::format("{}{}", capitalised(stepName(step.kind)), step.skipped ? " was skipped" : "");
        if (!step.plates.empty()) {
            std::vector<std::string> plates;
            for (const int plate : step.plates)
                plates.push_back(std::to_string(plate));
            text += fmt::format(", plate{} {}", plates.size() == 1 ? "" : "s", listText(plates));
        }
        if (!step.start.empty())
            text +=
                fmt::format(", from {} to {}", step.start, step.end.empty() ? std::string("now") : step.end);
        if (step.temperature_C)
            text += ", at " + m_notation.quantity(*step.temperature_C, Dimension::Temperature, 3);
        if (step.humidity_percent)
            text += fmt::format(", {:g} % relative humidity", *step.humidity_percent);
        std::replace(text.begin(), text.end(), 'T', ' ');
        return text + (step.note.empty() ? "." : ": " + step.note);
    }

    [[nodiscard]] ReportSection decisions() const
    {
        ReportSection section{"Left out, voided, placed by hand", {}};
        addTable(section, decisionsTable(m_study));
        if (section.blocks.empty())
            section.say("Nothing was left out, and no marker was placed by hand.");
        return section;
    }

    [[nodiscard]] ReportSection pieces() const
    {
        ReportSection section{"Pieces", {}};
        for (const StudyTest &test : m_study.tests)
            addTable(section, piecesTable(m_study, m_readings, test.method, m_responses, m_notation));
        return section;
    }

    [[nodiscard]] ReportSection cautions() const
    {
        ReportSection section{"Cautions", {}};
        for (const Caution &caution : cautionsOf(m_study))
            section.say(std::string(caution.text), TextKind::Item);
        section.say("These results tell of specimens. They are no rating and release no part for service: "
                    "local codes, accredited "
                    "laboratories and licensed practice decide where people depend on it.");
        return section;
    }

    [[nodiscard]] ReportSection trace() const
    {
        ReportSection section{"Where the numbers come from", {}};
        std::vector<std::string> versions;
        for (const StudyTest &test : m_study.tests) {
            if (const Reduction *reduction = reductionOf(test.method))
                versions.push_back(fmt::format("{} {}", reduction->command, reduction->version));
        }
        section.say(fmt::format(
            "Read by Inch Peg {}{}. Every number follows again from the raw files below, which were never "
            "changed; "
            "the open data of this study hold them with a script that recomputes the first verdict.",
            m_request.origin.version, versions.empty() ? std::string() : ", methods " + listText(versions)));
        addTable(section, rawFilesTable(m_study, m_request.files));
        return section;
    }

    const StudyReportRequest &m_request;
    const Study &m_study;
    const PieceReadings &m_readings;
    const Workshop &m_workshop;
    const Notation &m_notation;
    std::vector<Response> m_responses;
    std::set<Method> m_seen; ///< tests that have said what is theirs alone
};

} // namespace

std::string footOf(const ReportOrigin &origin)
{
    return fmt::format("Inch Peg {} · {} · written {}", origin.version, origin.project, origin.writtenAt);
}

Report studyReport(const StudyReportRequest &request, const Notation &notation)
{
    return StudyReporter(request, notation).report();
}

} // namespace inchpeg
