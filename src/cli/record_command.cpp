// SPDX-License-Identifier: GPL-3.0-or-later
// The calls that bring records and results into a project.
#include "cli/command.h"
#include "cli/data_file.h"
#include "cli/study_options.h"
#include "core/intake/given_results.h"
#include "disk/file_bytes.h"
#include "service/intake/bring_in.h"
#include "service/intake/folder_watch.h"
#include "service/intake/study_from_files.h"

#include <fmt/format.h>

#include <algorithm>
#include <csignal>
#include <filesystem>
#include <iostream>
#include <set>

namespace inchpeg::cli
{

namespace
{

/// "COLUMN=MEANING" or "COLUMN=MEANING:UNIT"; a heading may hold an equals sign or a colon itself.
struct SaidPair {
    std::string column;
    std::string meaning;
    std::string unit;
};
Result<SaidPair> saidPair(const std::string &option, const std::string &text)
{
    const std::size_t equals = text.rfind('=');
    if (equals == std::string::npos || equals == 0 || equals + 1 == text.size())
        return invalidArgument(
            fmt::format("--{} {}: COLUMN=MEANING or COLUMN=MEANING:UNIT is wanted", option, text));
    SaidPair pair{text.substr(0, equals), text.substr(equals + 1), {}};
    if (const std::size_t colon = pair.meaning.find(':'); colon != std::string::npos) {
        pair.unit = pair.meaning.substr(colon + 1);
        pair.meaning.resize(colon);
    }
    return pair;
}

/// "NAME=PART" or "NAME:UNIT=PART".
Result<NamedFactor> namedFactor(const std::string &text)
{
    const std::size_t equals = text.find('=');
    if (equals == std::string::npos || equals == 0 || equals + 1 == text.size())
        return invalidArgument(fmt::format(
            "--factor {}: NAME=PART or NAME:UNIT=PART is wanted, such as \"nozzle temperature:°C=1\"", text));
    NamedFactor factor{text.substr(equals + 1), text.substr(0, equals), {}};
    if (const std::size_t colon = factor.name.find(':'); colon != std::string::npos) {
        factor.unit = factor.name.substr(colon + 1);
        factor.name.resize(colon);
    }
    return factor;
}

Json refusedFile(const std::string &file, const Error &why)
{
    Json json = {{"file", file}};
    json.update(refusalJson(why));
    return json;
}

// --- bring-in ----------------------------------------------------------------------------------------------

Result<BringInRequest> bringInRequest(const Options &options, const Study &study)
{
    BringInRequest request;
    request.study = study.id;
    if (options.value("test")) {
        const Result<Method> test = testOf(options, study);
        if (!test)
            return test.error();
        request.test = *test;
    }
    const Result<std::optional<std::size_t>> table = tableNumberOf(options);
    if (!table)
        return table.error();
    request.table = *table;
    request.pattern = options.value("pattern").value_or(std::string());
    request.inOrder = options.isGiven("in-order");
    request.piece = options.value("piece").value_or(std::string());
    request.isDryRun = options.isGiven("dry-run");
    for (const std::string &text : options.all("map")) {
        const Result<SaidPair> pair = saidPair("map", text);
        if (!pair)
            return pair.error();
        request.columns.push_back({pair->column, pair->meaning, pair->unit});
    }
    const int ways =
        (request.pattern.empty() ? 0 : 1) + (request.inOrder ? 1 : 0) + (request.piece.empty() ? 0 : 1);
    if (ways > 1)
        return invalidArgument(
            "--pattern, --in-order and --piece each say where records go; one of them is wanted");
    return request;
}

Json placedJson(const BroughtIn::Placed &placed)
{
    Json json = {
        {"file", placed.file}, {"sha256", placed.sha256}, {"piece", placed.piece}, {"how", placed.how}};
    if (!placed.beside.empty())
        json["beside"] = placed.beside;
    return json;
}

Outcome broughtInOutcome(const BroughtIn &brought)
{
    Json placed = Json::array();
    for (const BroughtIn::Placed &one : brought.placed)
        placed.push_back(placedJson(one));
    Json waiting = Json::array();
    for (const BroughtIn::Waiting &one : brought.waiting)
        waiting.push_back({{"file", one.file}, {"why", one.why}});
    Json refused = Json::array();
    Outcome outcome;
    for (const BroughtIn::Refused &one : brought.refused) {
        refused.push_back(refusedFile(one.file, one.why));
        outcome.messages.push_back(one.file + ": " + errorSentence(one.why));
    }
    outcome.result = {{"placed", placed}, {"waiting", waiting}, {"refused", refused}};
    outcome.someFailed = !brought.refused.empty();
    return outcome;
}

/// Files into the study that the options name, as they say.
Result<BroughtIn> bringPathsIn(const Options &options, std::vector<std::string> paths, bool isForBench)
{
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    const Result<Study> study = at->project->file().loadStudy(at->study);
    if (!study)
        return study.error();
    Result<BringInRequest> request = bringInRequest(options, *study);
    if (!request)
        return request.error();
    request->paths = std::move(paths);
    request->nextAtBench = isForBench && request->pattern.empty() && !request->inOrder;
    return bringIn(*at->project, *request);
}

Result<Outcome> bringInFiles(const Options &options)
{
    const Result<BroughtIn> brought =
        bringPathsIn(options, {options.positional().begin() + 1, options.positional().end()}, false);
    if (!brought)
        return brought.error();
    return broughtInOutcome(*brought);
}

// --- results -----------------------------------------------------------------------------------------------

Result<std::vector<SaidColumn>> saidColumns(const Options &options)
{
    std::vector<SaidColumn> said;
    for (const std::string &text : options.all("map")) {
        const Result<SaidPair> pair = saidPair("map", text);
        if (!pair)
            return pair.error();
        if (!pair->unit.empty() && !findUnit(pair->unit))
            return invalidArgument(
                fmt::format("--map {}: \"{}\" is no unit that is known", text, pair->unit));
        said.push_back({pair->column, pair->meaning, pair->unit});
    }
    return said;
}

Json boundJson(bool isAtLeast)
{
    return isAtLeast ? Json("at least") : Json(nullptr);
}

Json takenJson(const Study &study, const GivenResults &results)
{
    Json taken = Json::array();
    for (const TakenResult &one : results.taken)
        taken.push_back({{"piece", findPiece(study, one.piece)->code},
                         {"property", one.value.property},
                         {"value", one.value.number},
                         {"unit", symbolInFiles(one.dimension)},
                         {"bound", boundJson(one.value.isAtLeast)}});
    return taken;
}

Json refusedCells(const std::vector<RefusedCell> &cells)
{
    Json refused = Json::array();
    for (const RefusedCell &cell : cells)
        refused.push_back({{"line", cell.line}, {"column", cell.column}, {"why", cell.why}});
    return refused;
}

/// The test of the study of which the table's columns speak most.
Result<ResultsTable> resultsFor(const Study &study, std::string_view text, ResultsRequest request)
{
    if (request.test)
        return understandResults(text, request);
    std::optional<ResultsTable> best;
    std::size_t most = 0;
    std::optional<Error> failure;
    for (const StudyTest &test : study.tests) {
        if (reductionOf(test.method) == nullptr)
            continue;
        request.test = test.method;
        Result<ResultsTable> table = understandResults(text, request);
        if (!table) {
            failure = table.error();
            continue;
        }
        const auto properties = static_cast<std::size_t>(
            std::count_if(table->columns.begin(), table->columns.end(), [](const ResultsColumn &column) {
                return column.role == ResultsColumn::Role::Property;
            }));
        if (!best || properties > most) {
            most = properties;
            best = std::move(*table);
        }
    }
    if (best)
        return std::move(*best);
    return failure ? *failure : invalidArgument("none of the study's tests can be read");
}

Status checkQuestions(const ResultsTable &table)
{
    bool anyProperty = false;
    for (const ResultsColumn &column : table.columns) {
        anyProperty = anyProperty || column.role == ResultsColumn::Role::Property;
        if (!column.question.empty())
            return invalidArgument(
                fmt::format("\"{}\": {}; say --map \"{}={}:UNIT\"{}", column.heading, column.question,
                            column.heading, column.property.empty() ? "PROPERTY" : column.property,
                            column.choices.empty() ? std::string()
                                                   : fmt::format(" ({})", fmt::join(column.choices, ", "))));
    }
    if (!anyProperty) {
        std::string known;
        for (const Property &property : reductionOf(table.test)->properties)
            known += (known.empty() ? "" : ", ") + std::string(property.name);
        return invalidArgument(fmt::format("no column of the table is a property of {}; name one with --map "
                                           "COLUMN=PROPERTY:UNIT; its properties are {}",
                                           methodName(table.test), known));
    }
    return ok();
}

Result<Outcome> takeResultsTable(const Options &options)
{
    const std::string path = options.required("data");
    const Result<std::string> bytes = readFileBytes(path);
    if (!bytes)
        return bytes.error();
    const Result<DecodedText> text = decodeText(*bytes);
    if (!text)
        return inFile(path, text.error());
    const Result<std::vector<SaidColumn>> said = saidColumns(options);
    if (!said)
        return said.error();
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    Result<Study> study = at->project->file().loadStudy(at->study);
    if (!study)
        return study.error();
    ResultsRequest request{{}, *said, {}, options.value("code").value_or(std::string())};
    if (options.value("test")) {
        const Result<Method> test = testOf(options, *study);
        if (!test)
            return test.error();
        request.test = *test;
    }
    const Result<ResultsTable> table = resultsFor(*study, text->utf8, request);
    if (!table)
        return inFile(path, inSheet(*text, table.error()));
    if (const Status clear = checkQuestions(*table); !clear)
        return inFile(path, clear.error());
    const StudyEditor &editor = at->project->editor();
    const Result<GivenResults> results =
        resultsForPieces(*study, *table, editor.workshop().labPrefix, options.value("replace") == "yes");
    if (!results)
        return inFile(path, results.error());
    const MeasuringGauges gauges =
        measuringGauges(study->log.measuring, editor.workshop(), dayOf(editor.person()));
    if (!options.isGiven("dry-run") && !results->rows.empty()) {
        ProjectFile &file = at->project->file();
        const Status done = file.together([&]() -> Status {
            const Result<AddedRawFile> kept =
                file.addRawFile(path == "-" ? std::string("standard input") : fileNameOf(path), *bytes);
            if (!kept)
                return kept.error();
            const Result<Edited> edited = at->project->editor().edit(
                at->study, fmt::format("take results of {} pieces", results->rows.size()),
                [&](Study &changed) { return takeResults(changed, *table, *results, kept->id, gauges); });
            return edited ? ok() : Status(edited.error());
        });
        if (!done)
            return done.error();
    }
    Json aside = Json::array();
    for (const ResultsColumn &column : table->columns) {
        if (column.role == ResultsColumn::Role::Aside)
            aside.push_back(column.heading);
    }
    Json waiting = Json::array();
    for (const GivenResults::WaitingRow &row : results->waiting)
        waiting.push_back({{"line", row.line}, {"piece", row.code}, {"why", row.why}});
    return Outcome{{{"study", at->study.value},
                    {"test", methodName(table->test)},
                    {"taken", takenJson(*study, *results)},
                    {"waiting", waiting},
                    {"aside", aside},
                    {"refused", refusedCells(results->refused)}},
                   table->warnings,
                   !results->refused.empty()};
}

// --- from --------------------------------------------------------------------------------------------------

Json partsJson(const StudyProposal &proposal)
{
    Json parts = Json::array();
    for (const PartUse &part : proposal.parts)
        parts.push_back({{"part", part.number}, {"name", part.name}, {"is", part.meaning}});
    return parts;
}

Json railsJson(const Study &study)
{
    Json rails = Json::array();
    for (const Condition &condition : study.conditions) {
        Json levels = Json::object();
        for (std::size_t f = 0; f < study.factors.size(); ++f) {
            const std::optional<double> number = parseTypedNumber(condition.levels[f]);
            levels[study.factors[f].name] = number ? Json(*number) : Json(condition.levels[f]);
        }
        Json pieces = Json::array();
        for (const Piece *piece : piecesOf(study, condition.id))
            pieces.push_back(piece->code);
        rails.push_back({{"rail", distinctTitle(study, condition)},
                         {"levels", levels},
                         {"orientation", orientationName(condition.orientation)},
                         {"material", condition.material.empty() ? Json(nullptr) : Json(condition.material)},
                         {"pieces", pieces}});
    }
    return rails;
}

Outcome askedOutcome(const FoundStudy &found)
{
    Json ask = Json::array();
    Outcome outcome;
    for (const OpenQuestion &question : found.proposal.open) {
        ask.push_back({{"about", question.about}, {"choices", question.choices}});
        outcome.messages.push_back(question.about +
                                   (question.choices.empty()
                                        ? std::string()
                                        : fmt::format(" ({})", fmt::join(question.choices, "; "))));
    }
    outcome.result = {{"ask", ask}, {"parts", partsJson(found.proposal)}};
    outcome.someFailed = true;
    return outcome;
}

Result<StudyFromFiles> studyFromRequest(const Options &options)
{
    StudyFromFiles request;
    request.paths.assign(options.positional().begin() + 1, options.positional().end());
    request.pattern = options.value("pattern").value_or(std::string());
    request.codeColumn = options.value("code").value_or(std::string());
    const Result<std::optional<Method>> test = testNamed(options);
    if (!test)
        return test.error();
    request.test = *test;
    if (request.test && reductionOf(*request.test) == nullptr)
        return invalidArgument(
            fmt::format("--test: records of {} cannot be read", methodName(*request.test)));
    for (const std::string &text : options.all("factor")) {
        const Result<NamedFactor> factor = namedFactor(text);
        if (!factor)
            return factor.error();
        request.factors.push_back(*factor);
    }
    const Result<std::vector<SaidColumn>> said = saidColumns(options);
    if (!said)
        return said.error();
    request.columns = *said;
    return request;
}

Result<Outcome> studyFrom(const Options &options)
{
    const Result<StudyFromFiles> request = studyFromRequest(options);
    if (!request)
        return request.error();
    const std::string question = options.required("question");
    if (trimmed(question).empty())
        return invalidArgument("--question: a question in words is wanted");
    const Result<FoundStudy> found = findStudy(*request);
    if (!found)
        return found.error();
    if (!found->proposal.open.empty())
        return askedOutcome(*found);
    const std::string &path = options.positional().front();
    const Person person = personHere(options.value("by"));
    std::error_code failure;
    const bool isThere = std::filesystem::exists(path, failure);
    Result<std::unique_ptr<OpenProject>> opened =
        isThere ? OpenProject::open(path, person) : OpenProject::create(path, person);
    if (!opened)
        return opened.error();
    const Result<MadeStudy> made = makeFoundStudy(**opened, *found, question);
    if (!made) {
        if (!isThere) {
            opened->reset();
            std::filesystem::remove(path, failure);
        }
        return made.error();
    }
    const Result<Study> study = (*opened)->file().loadStudy(made->study);
    if (!study)
        return study.error();
    Json factors = Json::array();
    for (const Factor &factor : study->factors)
        factors.push_back(
            {{"name", factor.name}, {"unit", factor.unit.empty() ? Json(nullptr) : Json(factor.unit)}});
    Json placed = Json::array();
    for (const MadeStudy::Placed &one : made->placed)
        placed.push_back(
            {{"file", one.file}, {"sha256", one.sha256}, {"piece", one.piece}, {"how", "by name"}});
    Json waiting = Json::array();
    for (const StudyProposal::Waiting &one : found->proposal.waiting) {
        if (found->results)
            waiting.push_back({{"line", found->results->rows[one.source].line}, {"why", one.why}});
        else
            waiting.push_back({{"file", found->files[one.source].path}, {"why", one.why}});
    }
    Outcome outcome;
    outcome.messages = found->assumed;
    Json refused = refusedCells(made->given.refused);
    for (const FoundStudy::Refused &one : found->refused) {
        refused.push_back(refusedFile(one.file, one.why));
        outcome.messages.push_back(one.file + ": " + errorSentence(one.why));
    }
    outcome.someFailed = !refused.empty();
    outcome.result = {{"study", made->study.value}, {"test", methodName(found->test)},
                      {"factors", factors},         {"rails", railsJson(*study)},
                      {"placed", placed},           {"taken", takenJson(*study, made->given)},
                      {"waiting", waiting},         {"refused", refused},
                      {"assumed", found->assumed},  {"parts", partsJson(found->proposal)}};
    return outcome;
}

// --- watch -------------------------------------------------------------------------------------------------

volatile std::sig_atomic_t isToStop = 0;

void stopWatching(int)
{
    isToStop = 1;
}

void printLine(const Json &line)
{
    std::cout << line.dump(-1, ' ', false, Json::error_handler_t::replace) << '\n' << std::flush;
}

/// One finished file: under the lock for as long as it takes. False where it was refused.
Result<bool> bringOneIn(const Options &options, const std::string &path)
{
    const Result<BroughtIn> brought = bringPathsIn(options, {path}, true);
    if (!brought)
        return brought.error();
    for (const BroughtIn::Placed &one : brought->placed)
        printLine(placedJson(one));
    for (const BroughtIn::Waiting &one : brought->waiting)
        printLine({{"file", one.file}, {"why", one.why}});
    for (const BroughtIn::Refused &one : brought->refused)
        printLine(refusedFile(one.file, one.why));
    return brought->refused.empty();
}

Result<Outcome> watchFolder(const Options &options)
{
    const std::string folder = options.required("folder");
    const bool isOnce = options.isGiven("once");
    std::error_code failure;
    if (!std::filesystem::is_directory(folder, failure) && isOnce)
        return Error{ErrorCode::NotFound, fmt::format("{}: there is no such folder", folder), {}};
    {
        // Wrong options are told before anything is waited for.
        const Result<std::unique_ptr<OpenProject>> opened =
            OpenProject::openForReading(options.positional().front(), personHere());
        if (!opened)
            return opened.error();
    }
    std::signal(SIGINT, stopWatching);
    std::signal(SIGTERM, stopWatching);
    FolderWatch watch(folder);
    std::vector<std::string> waiting; ///< while another holds the project
    bool anyRefused = false;
    while (isToStop == 0) {
        constexpr std::chrono::milliseconds kPatience{1000};
        for (std::string &path : watch.finished(kPatience))
            waiting.push_back(std::move(path));
        std::vector<std::string> again;
        for (const std::string &path : waiting) {
            const Result<bool> done = bringOneIn(options, path);
            if (!done && done.error().code == ErrorCode::Busy) {
                again.push_back(path);
                continue;
            }
            if (!done) {
                printLine(refusedFile(path, done.error()));
                anyRefused = true;
            } else {
                anyRefused = anyRefused || !*done;
            }
        }
        waiting = std::move(again);
        if (isOnce && waiting.empty() && !watch.isAnyGrowing())
            break;
    }
    Outcome outcome;
    outcome.isPrinted = true;
    outcome.someFailed = anyRefused;
    return outcome;
}

} // namespace

std::vector<Command> recordCommands()
{
    constexpr OptionSpec kPattern{"pattern", "P",
                                  "how names of files say what they are for: {level}_{n}, *_{code}"};
    constexpr OptionSpec kMapResults{"map", "COLUMN=PROPERTY:UNIT", "what a column holds; may be repeated",
                                     true};
    return {
        {"project",
         "bring-in",
         "PROJECT PATH…",
         "bring records in; folders are walked, - reads standard input",
         {kStudyOption,
          kTestOption,
          kPattern,
          {"in-order", "", "in the order of their names onto the pegs without a record"},
          {"piece", "CODE", "the one record is this piece's"},
          kTableOption,
          {"map", "COLUMN=QUANTITY:UNIT", "what a column holds, or -; may be repeated", true},
          kDryRunOption,
          kPersonOption},
         2,
         bringInFiles,
         true},
        {"project",
         "results",
         "PROJECT",
         "take values that come without their record, a row a piece",
         {kStudyOption,
          kDataOption,
          kTestOption,
          {"code", "COLUMN", "that names the pieces"},
          kMapResults,
          {"replace", "yes|no", "also where other values are given already; no unless given"},
          kDryRunOption,
          kPersonOption},
         1,
         takeResultsTable},
        {"project",
         "from",
         "PROJECT PATH…",
         "make a study of records, or of a table of results, that are there already",
         {{"question", "TEXT", "what is asked", false, true},
          {"test", "TEST", "of which they are; found where names, heads or columns tell it"},
          {"pattern", "P", "of the names: {material}_{n}"},
          {"factor", "NAME:UNIT=PART",
           "the factor that a part of the names, or a column, is; may be repeated", true},
          {"code", "COLUMN", "of a table: it names the pieces"},
          kMapResults,
          kPersonOption},
         2,
         studyFrom,
         true},
        {"project",
         "watch",
         "PROJECT",
         "bring each new file of a rig in as it comes, until Ctrl+C",
         {kStudyOption,
          {"folder", "DIR", "in which the rig leaves its files", false, true},
          {"once", "", "take what is there, and end"},
          kTestOption,
          kPattern,
          {"in-order", "", "in the order of their names"},
          kTableOption,
          {"map", "COLUMN=QUANTITY:UNIT", "what a column holds; may be repeated", true},
          kPersonOption},
         1,
         watchFolder},
    };
}

} // namespace inchpeg::cli
