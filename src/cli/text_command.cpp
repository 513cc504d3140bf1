// SPDX-License-Identifier: GPL-3.0-or-later
// What a project holds as one JSON text each, out and back: a study, the workshop, what a part has to do.
#include "cli/command.h"
#include "cli/data_file.h"
#include "cli/study_options.h"
#include "core/base/json_text.h"
#include "core/decide/needs.h"
#include "core/model/study_edit.h"
#include "service/project_results.h"
#include "service/project_text.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

// --- the project's own texts -------------------------------------------------------------------------------

/// Opened for writing where --data is given and is not tried out only.
Result<std::unique_ptr<OpenProject>> projectToSee(const Options &options)
{
    const std::string &path = options.positional().front();
    const Person person = personHere(options.value("by"));
    const bool writes = options.value("data") && !options.isGiven("dry-run");
    return writes ? OpenProject::open(path, person) : OpenProject::openForReading(path, person);
}

Result<Outcome> workshopCards(const Options &options)
{
    const Result<std::unique_ptr<OpenProject>> project = projectToSee(options);
    if (!project)
        return project.error();
    StudyEditor &editor = (*project)->editor();
    std::optional<Workshop> wanted;
    if (const std::optional<std::string> path = options.value("data")) {
        const Result<DecodedText> text = readDataText(*path);
        if (!text)
            return text.error();
        Result<Workshop> read = workshopFromText(text->utf8);
        const Status status = read ? checkWorkshop(*read) : Status(read.error());
        if (!status)
            return inFile(*path, status.error());
        wanted = std::move(*read);
    }
    if (wanted && !options.isGiven("dry-run")) {
        const Result<Edited> edited = editor.editWorkshop("change the workshop", [&](Workshop &workshop) {
            workshop = *wanted;
            return ok();
        });
        if (!edited)
            return edited.error();
    }
    return Outcome{parsedJson(workshopText(wanted.value_or(editor.workshop()))), {}, false};
}

Result<Outcome> partNeeds(const Options &options)
{
    const Result<std::unique_ptr<OpenProject>> project = projectToSee(options);
    if (!project)
        return project.error();
    StudyEditor &editor = (*project)->editor();
    std::string kept = editor.keptText(kNeedsSetting);
    if (const std::optional<std::string> path = options.value("data")) {
        const Result<DecodedText> text = readDataText(*path);
        if (!text)
            return text.error();
        const Result<Needs> needs = needsFromText(text->utf8);
        if (!needs)
            return inFile(*path, needs.error());
        kept = *needs == Needs{} ? std::string() : needsText(*needs);
        if (!options.isGiven("dry-run")) {
            const Result<Edited> edited =
                editor.keepText("change what the part has to do", kNeedsSetting, kept);
            if (!edited)
                return edited.error();
        }
    }
    const Result<Needs> needs = kept.empty() ? Result<Needs>(Needs{}) : needsFromText(kept);
    if (!needs)
        return needs.error();
    return Outcome{parsedJson(needsText(*needs)), {}, false};
}

// --- a study as a whole ------------------------------------------------------------------------------------

/// Nothing that was printed, measured or broken goes, and raw data are known by the project.
Status checkNothingIsLost(const Study &before, const Study &after, ProjectFile &file)
{
    for (const Piece &piece : before.pieces) {
        if (findPiece(after, piece.id) == nullptr && (!isUntouched(piece) || isPrinted(before, piece.id)))
            return invalidArgument(
                fmt::format("piece {} is printed, measured or broken and would go; leave it "
                            "out with a reason (\"left_out\") instead",
                            piece.code));
    }
    const auto known = [&](RawFileId id) { return file.rawFileInfo(id).has_value(); };
    for (const Piece &piece : after.pieces) {
        const bool isKnown = (!piece.recording || known(piece.recording->file)) &&
                             std::all_of(piece.log.photos.begin(), piece.log.photos.end(),
                                         [&](const Photo &photo) { return known(photo.file); });
        if (!isKnown)
            return invalidArgument(
                fmt::format("piece {} names a raw file that the project does not hold; bring it in first "
                            "(project bring-in, project photo)",
                            piece.code));
    }
    return ok();
}

Result<Outcome> wholeStudy(const Options &options)
{
    const std::optional<std::string> path = options.value("data");
    Result<DecodedText> text = path ? readDataText(*path) : Result<DecodedText>(DecodedText{});
    if (!text)
        return text.error();
    Result<StudyAtHand> at = path ? studyToEdit(options) : studyToSee(options);
    if (!at)
        return at.error();
    ProjectFile &file = at->project->file();
    Study shown;
    if (path) {
        const bool isDry = options.isGiven("dry-run");
        std::int64_t tried = std::int64_t{1} << 40U; // ids that nobody keeps
        const Status done = editOrTry(options, *at, "change a study", [&](Study &study) -> Status {
            const Result<Study> wanted =
                studyFromText(text->utf8, study, [&] { return isDry ? ++tried : file.takeId(); });
            if (!wanted)
                return inFile(*path, wanted.error());
            if (const Status safe = checkNothingIsLost(study, *wanted, file); !safe)
                return inFile(*path, safe.error());
            study = shown = *wanted;
            return ok();
        });
        if (!done)
            return done.error();
    } else {
        Result<Study> study = file.loadStudy(at->study);
        if (!study)
            return study.error();
        shown = std::move(*study);
    }
    return Outcome{parsedJson(studyText(shown)), {}, false};
}

} // namespace

std::vector<Command> textCommands()
{
    constexpr OptionSpec kTakenData{"data", "FILE", "takes this in its place; - reads standard input"};
    return {
        {"project",
         "study",
         "PROJECT",
         "a study as JSON: question, tests, rails, pieces, plan, log; and back",
         {kStudyOption, kTakenData, kDryRunOption, kPersonOption},
         1,
         wholeStudy},
        {"project",
         "workshop",
         "PROJECT",
         "rigs, gauges, printers, spools and hours as JSON; and back",
         {kTakenData, kDryRunOption, kPersonOption},
         1,
         workshopCards},
        {"project",
         "needs",
         "PROJECT",
         "what a part has to do as JSON, as decide reads it; and back",
         {kTakenData, kDryRunOption, kPersonOption},
         1,
         partNeeds},
    };
}

} // namespace inchpeg::cli
