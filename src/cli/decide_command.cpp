// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/command.h"
#include "cli/open_project.h"
#include "core/decide/decision.h"
#include "disk/file_bytes.h"
#include "service/project_results.h"

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

Json evidenceJson(const Evidence &evidence)
{
    return {{"kind", evidenceName(evidence.kind)},
            {"study", evidence.study.empty() ? Json(nullptr) : Json(evidence.study)},
            {"method", evidence.method.empty() ? Json(nullptr) : Json(evidence.method)},
            {"n", evidence.n > 0 ? Json(evidence.n) : Json(nullptr)},
            {"ci", orNull(evidence.ci)},
            {"sure", orNull(evidence.sure)},
            {"at_least", evidence.isBound},
            {"beyond_data", evidence.isBeyondData},
            {"source", evidence.note.empty() ? Json(nullptr) : Json(evidence.note)}};
}

Json gateJson(const Need &need, const Gate &gate)
{
    const NeedTarget target = targetOf(need);
    const bool hasLimit = need.kind != NeedKind::Printer && need.kind != NeedKind::Never;
    return {{"need", need.name},
            {"must", need.isMust},
            {"state", gateStateName(gate.state)},
            {"value", orNull(gate.evidence.value)},
            {"unit", symbolInFiles(target.property.dimension)},
            {"limit", hasLimit ? Json(need.gate()) : Json(nullptr)},
            {"margin", orNull(gate.margin)},
            {"why", gate.why},
            {"evidence", evidenceJson(gate.evidence)}};
}

Json decisionJson(const Decision &decision)
{
    Json candidates = Json::array();
    for (std::size_t rank = 0; rank < decision.order.size(); ++rank) {
        const RankedCandidate &ranked = decision.order[rank];
        Json gates = Json::array();
        for (std::size_t i = 0; i < ranked.gates.size(); ++i)
            gates.push_back(gateJson(decision.needs.needs[i], ranked.gates[i]));
        candidates.push_back({{"candidate", ranked.candidate.name},
                              {"passes_all", ranked.fails == 0 && ranked.unknown == 0},
                              {"rank", rank + 1},
                              {"wish_score", ranked.wishScore},
                              {"first_share", ranked.firstShare},
                              {"why", ranked.why},
                              {"gates", gates}});
    }
    Json settle = Json::array();
    for (const Settling &one : decision.settle)
        settle.push_back({{"need", decision.needs.needs[one.need].name},
                          {"candidate", decision.order[one.candidate].candidate.name},
                          {"test", one.test ? Json(methodName(*one.test)) : Json(nullptr)},
                          {"pieces", one.pieces > 0 ? Json(one.pieces) : Json(nullptr)},
                          {"why", one.why}});
    return {{"part", decision.needs.part},
            {"headline", decision.headline},
            {"sentences", decision.sentences},
            {"candidates", candidates},
            {"settle", settle}};
}

Result<Outcome> run(const Options &options, const DecisionTeller &tell)
{
    const std::string path = options.required("needs");
    const Result<std::string> text = readFileBytes(path);
    if (!text)
        return text.error();
    Result<Needs> needs = needsFromText(*text);
    if (!needs) {
        Error error = needs.error();
        error.message = path + ": " + error.message;
        return error;
    }
    const Result<std::optional<double>> draws = options.number("draws", 0.0, 1e6);
    const Result<std::optional<double>> seed = options.number("seed", 0.0, 1e15);
    if (!draws || !seed)
        return draws ? seed.error() : draws.error();
    Result<ProjectFile> project = openToRead(options.required("project"));
    if (!project)
        return project.error();
    const Result<ProjectResults> all = readProjectResults(*project);
    if (!all)
        return all.error();
    const std::vector<StudyResults> results = all->results();
    std::string unknown;
    const std::vector<Candidate> known = candidatesOf(results, {{}, {}, {}, needs->materials, needs->bought});
    for (const std::string &name : needs->candidates) {
        if (std::none_of(known.begin(), known.end(), [&](const Candidate &one) { return one.name == name; }))
            unknown = name;
    }
    if (!unknown.empty()) {
        std::string names;
        for (const Candidate &one : known)
            names += (names.empty() ? "" : "; ") + one.name;
        return invalidArgument(path + ": there is no candidate \"" + unknown + "\"; known are " + names);
    }
    const Decision decision = decide({.results = results,
                                      .workshop = &all->workshop,
                                      .needs = std::move(*needs),
                                      .draws = static_cast<int>(draws->value_or(4000.0)),
                                      .seed = static_cast<std::uint64_t>(seed->value_or(1.0))});
    if (tell && options.value("to")) {
        if (const Status told = tell(options, decision, *project, all->workshop.moneyUnit); !told)
            return told.error();
    }
    return Outcome{decisionJson(decision), {}, false};
}

} // namespace

std::vector<Command> decideCommands(const DecisionTeller &tell)
{
    return {{"decide",
             "",
             "",
             "hold the candidates of a project against the needs of a part",
             {{"project", "FILE", "the project", false, true},
              {"needs", "FILE", "what the part has to do, in JSON: docs/needs_format.md", false, true},
              {"draws", "N", "cases drawn to tell how sure the first place is, 4000 unless given"},
              {"seed", "N", "of the draws, 1 unless given"},
              {"to", "OUT", "also as a report: ends in .pdf, .html or .xlsx"},
              {"paper", "NAME", "of a PDF: A4 (unless given) or Letter"}},
             0,
             [tell](const Options &options) { return run(options, tell); }}};
}

} // namespace inchpeg::cli
