// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/report/decision_report.h"

#include "core/decide/need_text.h"
#include "core/report/rails_drawing.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

constexpr double kNames = 220.0;
constexpr double kGateRow = 24.0;
constexpr double kHeads = 58.0;
constexpr double kSign = 5.0;
constexpr double kGateFont = 10.0;

void drawSign(Drawing &drawing, DrawnPoint at, const Gate &gate)
{
    switch (gate.state) {
    case GateState::Passes:
        drawing.shapes.emplace_back(DrawnCircle{at, kSign, 1.2, Ink::Black, Ink::Black});
        return;
    case GateState::Fails:
        drawing.line({at.x - kSign, at.y - kSign}, {at.x + kSign, at.y + kSign}, 2.0);
        drawing.line({at.x - kSign, at.y + kSign}, {at.x + kSign, at.y - kSign}, 2.0);
        return;
    case GateState::Unknown:
        drawing.shapes.emplace_back(DrawnCircle{at, kSign, 1.2, Ink::Black, Ink::White});
        return;
    }
}

Drawing gatesDrawing(const Decision &decision, std::size_t first, std::size_t end)
{
    const std::vector<Need> &needs = decision.needs.needs;
    Drawing drawing;
    drawing.width = kDrawingWidth;
    drawing.height = kHeads + kGateRow * static_cast<double>(end - first) + 6.0;
    const double each =
        (kDrawingWidth - kNames) / static_cast<double>(std::max<std::size_t>(1, needs.size()));
    for (std::size_t i = 0; i < needs.size(); ++i) {
        const double x = kNames + each * (static_cast<double>(i) + 0.5);
        const std::vector<std::string> lines = wrapped(needs[i].name, 9.0, each - 6.0, 4);
        double y = kHeads - 8.0 - 11.0 * static_cast<double>(lines.size() - 1);
        for (const std::string &line : lines) {
            drawing.shapes.emplace_back(DrawnText{{x, y}, line, 9.0, Anchor::Middle, needs[i].isMust});
            y += 11.0;
        }
        drawing.line({x, kHeads}, {x, drawing.height}, needs[i].isMust ? 1.2 : 0.6,
                     needs[i].isMust ? Ink::Grey : Ink::Pale);
    }
    for (std::size_t row = first; row < end; ++row) {
        const RankedCandidate &ranked = decision.order[row];
        const double y = kHeads + kGateRow * (static_cast<double>(row - first) + 0.5);
        drawing.line({kNames, y}, {kDrawingWidth, y}, 0.8, Ink::Grey);
        drawing.shapes.emplace_back(
            DrawnText{{0.0, y + 3.5}, fmt::format("{}.", row + 1), kGateFont, Anchor::Start, true});
        drawing.shapes.emplace_back(DrawnText{{22.0, y + 3.5},
                                              fitted(ranked.candidate.name, kGateFont, kNames - 30.0),
                                              kGateFont,
                                              Anchor::Start,
                                              row == 0});
        for (std::size_t i = 0; i < needs.size() && i < ranked.gates.size(); ++i)
            drawSign(drawing, {kNames + each * (static_cast<double>(i) + 0.5), y}, ranked.gates[i]);
    }
    return drawing;
}

ReportTable needsTable(const Decision &decision, const Notation &notation, const std::string &money)
{
    ReportTable table{"What the part has to do",
                      {{"Need", false, 1.8},
                       {"Gate", false, 1.6},
                       {"Must or wish", false, 0.9},
                       {"Answered by", false, 1.6}},
                      {}};
    for (const Need &need : decision.needs.needs) {
        const NeedTarget target = targetOf(need);
        table.rows.push_back({need.name, needGateText(need, notation, money),
                              need.isMust ? std::string("must")
                                          : fmt::format("wish, weight {}", notation.plain(need.weight, 3)),
                              target.test
                                  ? fmt::format("{}, {}", methodName(*target.test), target.property.label)
                                  : std::string("no test")});
    }
    return table;
}

ReportTable orderTable(const Decision &decision, const Notation &notation)
{
    ReportTable table{"Order of the candidates",
                      {{"Place", true, 0.5},
                       {"Candidate", false, 2.2},
                       {"Musts failed", true, 0.6},
                       {"Musts not known", true, 0.7},
                       {"Wishes met", true, 0.7},
                       {"First in so many cases", true, 0.8},
                       {"Why", false, 3.2}},
                      {}};
    const auto percent = [&](double share) {
        return ReportCell(notation.fixed(100.0 * share, 0) + " %", 100.0 * share, 0);
    };
    for (std::size_t i = 0; i < decision.order.size(); ++i) {
        const RankedCandidate &ranked = decision.order[i];
        table.rows.push_back({ReportCell(std::to_string(i + 1), static_cast<double>(i + 1), 0),
                              ranked.candidate.name,
                              ReportCell(std::to_string(ranked.fails), ranked.fails, 0),
                              ReportCell(std::to_string(ranked.unknown), ranked.unknown, 0),
                              percent(ranked.wishScore), percent(ranked.firstShare), ranked.why});
    }
    return table;
}

ReportTable evidenceTable(const Decision &decision, std::size_t place, const Notation &notation,
                          const std::string &money)
{
    const Need &need = decision.needs.needs[place];
    ReportTable table{fmt::format("{} ({})", need.name, needGateText(need, notation, money)),
                      {{"Candidate", false, 2.0},
                       {"State", false, 0.7},
                       {"Known value", false, 1.1},
                       {"Evidence", false, 1.0},
                       {"n", true, 0.4},
                       {"Why", false, 3.4}},
                      {}};
    for (const RankedCandidate &ranked : decision.order) {
        const Gate &gate = ranked.gates[place];
        const Evidence &evidence = gate.evidence;
        const std::string value = evidence.value ? (evidence.isBound ? "≥ " : "") +
                                                       needValueText(need, *evidence.value, notation, money)
                                                 : std::string();
        table.rows.push_back({ranked.candidate.name, std::string(gateStateName(gate.state)), value,
                              evidence.kind == EvidenceKind::None ? std::string("nothing")
                                                                  : std::string(evidenceName(evidence.kind)),
                              evidence.n > 0
                                  ? ReportCell(std::to_string(evidence.n), static_cast<double>(evidence.n), 0)
                                  : ReportCell(),
                              gate.why});
    }
    return table;
}

ReportTable settleTable(const Decision &decision)
{
    ReportTable table{"What to test next",
                      {{"Need", false, 1.4},
                       {"Candidate", false, 2.0},
                       {"Test", false, 1.0},
                       {"Pieces", true, 0.5},
                       {"Why", false, 3.0}},
                      {}};
    for (const Settling &one : decision.settle)
        table.rows.push_back(
            {decision.needs.needs[one.need].name, decision.order[one.candidate].candidate.name,
             one.test ? std::string(methodName(*one.test)) : std::string("no test"),
             one.pieces > 0 ? ReportCell(std::to_string(one.pieces), one.pieces, 0) : ReportCell(), one.why});
    return table;
}

} // namespace

std::vector<Drawing> gatesDrawings(const Decision &decision, std::size_t candidatesEach)
{
    std::vector<Drawing> drawings;
    for (std::size_t first = 0; !decision.needs.needs.empty() && first < decision.order.size();
         first += candidatesEach)
        drawings.push_back(
            gatesDrawing(decision, first, std::min(first + candidatesEach, decision.order.size())));
    return drawings;
}

Report decisionReport(const Decision &decision, const ReportOrigin &origin, const Notation &notation,
                      const std::string &money)
{
    const std::size_t musts =
        static_cast<std::size_t>(std::count_if(decision.needs.needs.begin(), decision.needs.needs.end(),
                                               [](const Need &need) { return need.isMust; }));
    Report report{"Decision",
                  decision.needs.part.empty() ? std::string("A part") : decision.needs.part,
                  {{"Needs", fmt::format("{} musts, {} wishes", musts, decision.needs.needs.size() - musts)},
                   {"Candidates", std::to_string(decision.order.size())},
                   {"Written", origin.writtenAt + ", from " + origin.project}},
                  {},
                  footOf(origin)};
    ReportSection says{"What it says", {}};
    says.say(decision.headline, TextKind::Lead);
    const std::vector<Drawing> drawings = gatesDrawings(decision);
    for (std::size_t i = 0; i < drawings.size(); ++i)
        says.blocks.emplace_back(ReportPicture{
            drawings[i], i + 1 == drawings.size()
                             ? "Filled: passes. Crossed: fails. Hollow: not known. Musts are bold."
                             : ""});
    for (const std::string &sentence : decision.sentences)
        says.say(sentence);
    report.sections.push_back(std::move(says));
    report.sections.push_back({"The part", {needsTable(decision, notation, money)}});
    if (!decision.order.empty())
        report.sections.push_back({"The order, and why", {orderTable(decision, notation)}});
    ReportSection evidence{"What is known", {}};
    evidence.say("Own results go before a data sheet, a sheet before what is usual for the polymer; two "
                 "kinds are never mixed into one number.");
    for (std::size_t i = 0; !decision.order.empty() && i < decision.needs.needs.size(); ++i)
        evidence.blocks.emplace_back(evidenceTable(decision, i, notation, money));
    report.sections.push_back(std::move(evidence));
    if (!decision.settle.empty())
        report.sections.push_back({"What to test next", {settleTable(decision)}});
    ReportSection cautions{"Cautions", {}};
    cautions.say("These results tell of specimens, not of the part in its place. Food, skin, flame and "
                 "whatever people's safety depends on "
                 "are not answered here: local codes, accredited laboratories and licensed practice decide.");
    report.sections.push_back(std::move(cautions));
    return report;
}

} // namespace inchpeg
