// SPDX-License-Identifier: GPL-3.0-or-later
// The calls that change a study of a project: each is one edit of the open project, under its lock, with who.
#include "cli/command.h"
#include "cli/data_file.h"
#include "cli/study_options.h"
#include "core/compare/comparison.h"
#include "core/intake/study_keys.h"
#include "core/logbook/log_table.h"
#include "core/logbook/record_tables.h"
#include "core/model/study_edit.h"
#include "service/project_results.h"

#include <fmt/format.h>

namespace inchpeg::cli
{

namespace
{

Json exclusionJson(const std::optional<Exclusion> &exclusion)
{
    if (!exclusion)
        return nullptr;
    return {{"reason", exclusion->reason}, {"who", exclusion->who}, {"when", exclusion->when}};
}

/// Changes one piece's place among what counts, and tells what was and is.
Result<Outcome> editPiece(const Options &options, const std::string &what,
                          const std::function<Status(Piece &, const Person &)> &change)
{
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    Json result = {{"study", at->study.value}, {"piece", options.required("piece")}};
    const Result<Edited> edited = at->project->editor().edit(at->study, what, [&](Study &changed) -> Status {
        const Result<Piece *> piece = pieceNamed(changed, options.required("piece"));
        if (!piece)
            return piece.error();
        result["was"] = exclusionJson((*piece)->exclusion);
        const Status status = change(**piece, at->project->editor().person());
        result["is"] = exclusionJson((*piece)->exclusion);
        return status;
    });
    if (!edited)
        return edited.error();
    return Outcome{result, {}, false};
}

Result<Outcome> leaveOutPiece(const Options &options)
{
    return editPiece(options, "leave a piece out", [&](Piece &piece, const Person &person) {
        return leaveOut(piece, {options.required("reason"), person.name, person.now()});
    });
}

Result<Outcome> takeBackPiece(const Options &options)
{
    return editPiece(options, "take a piece back in", [](Piece &piece, const Person &) {
        piece.exclusion.reset();
        return ok();
    });
}

// --- project log -------------------------------------------------------------------------------------------

enum class LogTableKind { Pieces, Plates, Steps };

/// By its first line: "plate,about,…" and "step,…" are tables of their own.
LogTableKind kindOfLogTable(std::string_view text)
{
    const std::string_view heading = text.substr(0, text.find_first_of("\r\n"));
    const auto has = [&](std::string_view word) { return heading.find(word) != std::string_view::npos; };
    if (has("plate") && has("about"))
        return LogTableKind::Plates;
    return has("step") && has("start") ? LogTableKind::Steps : LogTableKind::Pieces;
}

struct LogTaken {
    std::size_t changed = 0;
    std::size_t same = 0;
    Json refused = Json::array();
};

Status takePieceTable(Study &study, std::string_view text, bool replace, const Workshop &workshop,
                      const std::string &day, LogTaken &taken)
{
    Result<TakenTable> table = readLogTable(study, text, workshop.labPrefix);
    if (!table)
        return table.error();
    taken.same = table->unchanged;
    for (const Error &problem : table->problems)
        taken.refused.push_back(refusalJson(problem));
    for (const TakenValue &value : table->values) {
        if (value.overwrites() && !replace)
            taken.refused.push_back(refusalJson(
                badInput(fmt::format("{} of piece {} is {} already; --replace yes puts {} in its place",
                                     placeName(study.log.measuring, value.place),
                                     findPiece(study, value.piece)->code, value.before, value.after),
                         value.at)));
        else
            ++taken.changed;
    }
    return takeLogTable(study, *table, replace, measuringGauges(study.log.measuring, workshop, day));
}

Result<Outcome> logTable(const Options &options)
{
    const std::string replaceText = options.value("replace").value_or("no");
    if (replaceText != "yes" && replaceText != "no")
        return invalidArgument(fmt::format("--replace is \"{}\"; yes or no is wanted", replaceText));
    const Result<DecodedText> text = readDataText(options.required("data"));
    if (!text)
        return text.error();
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    LogTaken taken;
    const Workshop &workshop = at->project->editor().workshop();
    const std::string day = dayOf(at->project->editor().person());
    const auto change = [&](Study &study) -> Status {
        const Study before = study;
        Status status = ok();
        if (const LogTableKind kind = kindOfLogTable(text->utf8); kind == LogTableKind::Plates) {
            const Result<std::vector<PlateRecord>> records = readPlateTable(text->utf8);
            status = records ? takePlateRecords(study, *records) : Status(records.error());
            taken.changed = records && !(study.log.plates == before.log.plates) ? records->size() : 0;
            taken.same = records ? records->size() - taken.changed : 0;
        } else if (kind == LogTableKind::Steps) {
            const Result<std::vector<TimedStep>> steps = readStepTable(text->utf8);
            status = steps ? takeSteps(study, *steps) : Status(steps.error());
            taken.changed = steps && !(study.log.steps == before.log.steps) ? steps->size() : 0;
            taken.same = steps ? steps->size() - taken.changed : 0;
        } else {
            status = takePieceTable(study, text->utf8, replaceText == "yes", workshop, day, taken);
        }
        return status ? ok() : Status(inFile(options.required("data"), status.error()));
    };
    if (const Status done = editOrTry(options, *at, "take a table", change); !done)
        return done.error();
    const bool anyRefused = !taken.refused.empty();
    return Outcome{{{"study", at->study.value},
                    {"changed", taken.changed},
                    {"same", taken.same},
                    {"refused", taken.refused}},
                   {},
                   anyRefused};
}

// --- project set -------------------------------------------------------------------------------------------

/// What the reference reaches, for a difference that is typed as a value. Only read where it is needed.
std::optional<double> referenceMean(ProjectFile &project, StudyId id, Method test)
{
    const Result<ProjectResults> all = readStudyResults(project, id, Keeping::No);
    if (!all)
        return std::nullopt;
    const Result<StudyResults> own = all->of(id);
    if (!own)
        return std::nullopt;
    const StudyTest *planned = findTest(*own->study, test);
    const Reduction *reduction = reductionOf(test);
    const Result<Property> property =
        planned == nullptr || reduction == nullptr || planned->setup.property.empty()
            ? Result<Property>(usualProperty(test))
            : findProperty(*reduction, planned->setup.property);
    if (!property)
        return std::nullopt;
    const StudyComparison comparison = compareStudy(*own->study, *own->readings, *property,
                                                    {.test = test, .detail = ComparisonDetail::Values});
    for (const RailComparison &rail : comparison.rails) {
        if (rail.isReference && rail.summary.n > 0)
            return rail.summary.mean;
    }
    return planned != nullptr ? planned->setup.expected : std::nullopt;
}

Result<Outcome> setKeys(const Options &options)
{
    const std::vector<std::string> pairs(options.positional().begin() + 1, options.positional().end());
    if (pairs.empty())
        return invalidArgument("project set wants KEY=VALUE, such as confidence=0.99");
    for (const std::string &pair : pairs) {
        if (pair.find('=') == std::string::npos)
            return invalidArgument(fmt::format("\"{}\": KEY=VALUE is wanted, such as confidence=0.99", pair));
    }
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    Json keys = Json::array();
    Method method = Method::Tension;
    const auto change = [&](Study &study) -> Status {
        const Result<Method> test = testOf(options, study);
        if (!test)
            return test.error();
        method = *test;
        const auto isValue = [](const std::string &pair) { return pair.starts_with("smallest_difference="); };
        const std::optional<double> expected = std::any_of(pairs.begin(), pairs.end(), isValue)
                                                   ? referenceMean(at->project->file(), at->study, *test)
                                                   : std::nullopt;
        for (const std::string &pair : pairs) {
            const std::string key = pair.substr(0, pair.find('='));
            const Result<std::string> was = studyKeyText(study, *test, key);
            if (!was)
                return was.error();
            if (const Status set = setStudyKey(study, *test, key, pair.substr(pair.find('=') + 1),
                                               at->project->editor().workshop(), expected);
                !set)
                return set;
            const Result<std::string> is = studyKeyText(study, *test, key);
            keys.push_back({{"key", key}, {"was", *was}, {"is", is ? *is : std::string()}});
        }
        return ok();
    };
    if (const Status done = editOrTry(options, *at, "set rules", change); !done)
        return done.error();
    return Outcome{{{"study", at->study.value}, {"test", methodName(method)}, {"set", keys}}, {}, false};
}

} // namespace

std::vector<Command> editCommands()
{
    return {
        {"project",
         "leave-out",
         "PROJECT",
         "leave a piece out of what is compared, with the reason",
         {kStudyOption,
          kPieceOption,
          {"reason", "TEXT", "why; kept with the piece", false, true},
          kPersonOption},
         1,
         leaveOutPiece},
        {"project",
         "take-back",
         "PROJECT",
         "take a piece that was left out in again",
         {kStudyOption, kPieceOption, kPersonOption},
         1,
         takeBackPiece},
        {"project",
         "log",
         "PROJECT",
         "take a table of sizes, masses and notes, of plates or of steps into the log",
         {kStudyOption,
          kDataOption,
          {"replace", "yes|no", "also where other values stand; no unless given"},
          kDryRunOption,
          kPersonOption},
         1,
         logTable},
        {"project",
         "set",
         "PROJECT KEY=VALUE…",
         "rules of reading, setup of a test, confidence, difference, reference, looks",
         {kStudyOption, kTestOption, kDryRunOption, kPersonOption},
         1,
         setKeys,
         true},
    };
}

} // namespace inchpeg::cli
