// SPDX-License-Identifier: GPL-3.0-or-later
// The calls for what a page of the window has a place of its own: the drawn order, plates that are printed,
// pieces tested or printed again, what is known of a rail without its pieces, photos.
#include "cli/command.h"
#include "cli/data_file.h"
#include "cli/study_options.h"
#include "core/intake/study_keys.h"
#include "core/logbook/bench_plan.h"
#include "core/model/print_state.h"
#include "core/model/rail_summary.h"
#include "core/planning/plates.h"
#include "disk/file_bytes.h"
#include "service/intake/files_below.h"
#include "store/project_file.h"

#include <fmt/format.h>

#include <algorithm>

namespace inchpeg::cli
{

namespace
{

// --- the drawn order ---------------------------------------------------------------------------------------

Json codesOf(const Study &study, const std::vector<PieceId> &pieces)
{
    Json codes = Json::array();
    for (const PieceId id : pieces)
        codes.push_back(findPiece(study, id)->code);
    return codes;
}

Json orderJson(const Study &study, const Workshop &workshop, Method test)
{
    const PlateLayout layout = layOutPlates(study, workshop);
    Json plates = Json::array();
    for (const Plate &plate : layout.plates) {
        Json pieces = Json::array();
        for (const PlacedPiece &placed : plate.pieces)
            pieces.push_back(findPiece(study, placed.piece)->code);
        plates.push_back({{"plate", plate.number},
                          {"round", plate.round},
                          {"printed", !plate.printedAt.empty()},
                          {"pieces", pieces}});
    }
    return {{"study", study.id.value},
            {"test", methodName(test)},
            {"seed", study.plan.print.seed},
            {"plates", plates},
            {"unplaced", codesOf(study, layout.unplaced)},
            {"next", codesOf(study, benchOrder(study, test))}};
}

Result<Outcome> drawnOrder(const Options &options)
{
    const bool again = options.isGiven("draw-again");
    Result<StudyAtHand> at = again ? studyToEdit(options) : studyToSee(options);
    if (!at)
        return at.error();
    StudyEditor &editor = at->project->editor();
    if (again) {
        const Result<Edited> drawn = editor.edit(at->study, "draw the order again", [](Study &study) {
            ++study.plan.print.seed;
            return ok();
        });
        if (!drawn)
            return drawn.error();
    }
    const Result<Study> study = at->project->file().loadStudy(at->study);
    if (!study)
        return study.error();
    const Result<Method> test = testOf(options, *study);
    if (!test)
        return test.error();
    return Outcome{orderJson(*study, editor.workshop(), *test), {}, false};
}

Result<Outcome> platePrinted(const Options &options)
{
    const Result<std::optional<double>> number = options.number("plate", 1.0, 1e6);
    if (!number)
        return number.error();
    const int plate = static_cast<int>(number->value_or(0.0));
    if (plate != number->value_or(0.0))
        return invalidArgument(fmt::format("--plate {:g}: the number of a plate is wanted", **number));
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    const StudyEditor &editor = at->project->editor();
    const bool takeBack = options.isGiven("not");
    const std::string what = takeBack ? fmt::format("plate {} is not printed", plate)
                                      : fmt::format("mark plate {} as printed", plate);
    Json printed = Json::array();
    const Status done = editOrTry(options, *at, what, [&](Study &study) -> Status {
        Status status = takeBack ? unmarkPrinted(study, plate)
                                 : markPrinted(study, layOutPlates(study, editor.workshop()), plate,
                                               editor.person().now());
        for (const PrintedPlate &one : study.plan.print.printed)
            printed.push_back(one.number);
        return status;
    });
    if (!done)
        return done.error();
    return Outcome{{{"study", at->study.value}, {"printed", printed}}, {}, false};
}

Result<Outcome> onceMore(const Options &options)
{
    const std::string what = options.required("what");
    if (what != "test" && what != "print")
        return invalidArgument(fmt::format("--what is \"{}\"; test or print is wanted", what));
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    const Person &person = at->project->editor().person();
    const std::string code = options.required("piece");
    const std::string reason = options.required("reason");
    const auto change = [&](Study &study) -> Status {
        const Result<Piece *> piece = pieceNamed(study, code);
        if (!piece)
            return piece.error();
        return what == "test" ? testAgain(**piece, reason, dayOf(person))
                              : printAgain(study, (*piece)->id, reason, person.name, person.now());
    };
    if (const Status done = editOrTry(options, *at, what + " a piece again", change); !done)
        return done.error();
    return Outcome{{{"study", at->study.value}, {"piece", code}, {"again", what}}, {}, false};
}

// --- summaries ---------------------------------------------------------------------------------------------

/// What the options say of a rail whose pieces are not here.
Result<RailSummary> summaryOf(const Options &options, Method test, const Property &property,
                              const Person &person)
{
    RailSummary summary{test, std::string(property.name), 0.0, {}, {}, {}, person.name, person.now()};
    const Result<double> mean = parseQuantity(options.required("mean"), workingUnit(property.dimension));
    if (!mean)
        return invalidArgument("--mean: " + mean.error().message);
    summary.mean = *mean;
    if (const std::optional<std::string> text = options.value("sd")) {
        const Result<double> sd = parseQuantity(*text, workingUnit(differenceOf(property.dimension)));
        if (!sd)
            return invalidArgument("--sd: " + sd.error().message);
        summary.sd = *sd;
    }
    const Result<std::optional<double>> pieces = options.number("pieces", 1.0, 1e6);
    if (!pieces)
        return pieces.error();
    if (*pieces)
        summary.pieces = static_cast<int>(**pieces);
    summary.source = options.value("source").value_or(std::string());
    return summary;
}

Json summariesJson(const Study &study)
{
    Json rails = Json::array();
    for (const Condition &condition : study.conditions) {
        for (const RailSummary &summary : condition.summaries)
            rails.push_back({{"rail", distinctTitle(study, condition)},
                             {"test", methodName(summary.test)},
                             {"property", summary.property},
                             {"mean", summary.mean},
                             {"sd", orNull(summary.sd)},
                             {"pieces", summary.pieces ? Json(*summary.pieces) : Json(nullptr)},
                             {"source", summary.source}});
    }
    return rails;
}

Result<Outcome> railSummary(const Options &options)
{
    const bool takesAway = options.isGiven("take-away");
    if (!takesAway && !options.value("mean"))
        return invalidArgument("project summary wants --mean VALUE, or --take-away");
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    Json kept;
    const auto change = [&](Study &study) -> Status {
        const Result<Method> test = testOf(options, study);
        if (!test)
            return test.error();
        const Result<ConditionId> rail = railNamed(study, options.required("rail"));
        if (!rail)
            return rail.error();
        const Result<Property> property = findProperty(*reductionOf(*test), options.required("property"));
        if (!property)
            return property.error();
        const Result<RailSummary> summary =
            takesAway ? Result<RailSummary>(RailSummary{})
                      : summaryOf(options, *test, *property, at->project->editor().person());
        if (!summary)
            return summary.error();
        const Status status = takesAway ? clearSummary(study, *rail, *test, property->name)
                                        : setSummary(study, *rail, *summary);
        kept = summariesJson(study);
        return status;
    };
    const std::string what = takesAway ? "take a summary away" : "summary of a rail";
    if (const Status done = editOrTry(options, *at, what, change); !done)
        return done.error();
    return Outcome{{{"study", at->study.value}, {"summaries", kept}}, {}, false};
}

// --- photos ------------------------------------------------------------------------------------------------

struct ReadPhoto {
    std::string name;
    std::string bytes;
};

Result<std::vector<ReadPhoto>> readPhotos(const Options &options)
{
    const Result<std::vector<FileBelow>> files =
        filesBelow({options.positional().begin() + 1, options.positional().end()});
    if (!files)
        return files.error();
    std::vector<ReadPhoto> photos;
    for (const FileBelow &file : *files) {
        const std::string name = fileNameOf(file.path);
        if (!isPhotoName(name))
            return invalidArgument(fmt::format("{}: no picture; one of {} is wanted", file.path,
                                               fmt::join(kPhotoEndings, ", ")));
        Result<std::string> bytes = readFileBytes(file.path);
        if (!bytes)
            return bytes.error();
        photos.push_back({name, std::move(*bytes)});
    }
    return photos;
}

Result<Outcome> addPhotos(const Options &options)
{
    const Result<std::vector<ReadPhoto>> photos = readPhotos(options);
    if (!photos)
        return photos.error();
    Result<StudyAtHand> at = studyToEdit(options);
    if (!at)
        return at.error();
    ProjectFile &file = at->project->file();
    const Person &person = at->project->editor().person();
    const std::string code = options.required("piece");
    Json added = Json::array();
    const auto give = [&](bool isKept) -> Status {
        std::vector<Photo> kept;
        for (const ReadPhoto &photo : *photos) {
            const Result<AddedRawFile> stored =
                isKept ? file.addRawFile(photo.name, photo.bytes) : AddedRawFile{};
            if (!stored)
                return stored.error();
            kept.push_back({stored->id, photo.name, person.name, person.now()});
            added.push_back({{"photo", photo.name}, {"sha256", sha256Of(photo.bytes)}});
        }
        return editOrTry(
            options, *at, fmt::format("add {} photos", kept.size()), [&](Study &study) -> Status {
                const Result<Piece *> piece = pieceNamed(study, code);
                if (!piece)
                    return piece.error();
                (*piece)->log.photos.insert((*piece)->log.photos.end(), kept.begin(), kept.end());
                return ok();
            });
    };
    const bool isDry = options.isGiven("dry-run");
    if (const Status done = isDry ? give(false) : file.together([&] { return give(true); }); !done)
        return done.error();
    return Outcome{{{"study", at->study.value}, {"piece", code}, {"added", added}}, {}, false};
}

} // namespace

std::vector<Command> studyCommands()
{
    return {
        {"project",
         "order",
         "PROJECT",
         "the drawn order: plates to print, and the pieces that are tested next",
         {kStudyOption,
          kTestOption,
          {"draw-again", "", "draw what is not printed or tested yet anew"},
          kPersonOption},
         1,
         drawnOrder},
        {"project",
         "printed",
         "PROJECT",
         "a plate is printed, and those before it",
         {kStudyOption,
          {"plate", "N", "its number in the drawn order", false, true},
          {"not", "", "it is not printed after all"},
          kDryRunOption,
          kPersonOption},
         1,
         platePrinted},
        {"project",
         "again",
         "PROJECT",
         "a piece is tested or printed once more",
         {kStudyOption,
          kPieceOption,
          {"what", "test|print", "its record comes off it, or it is laid out on a new plate", false, true},
          {"reason", "TEXT", "why; kept with the piece", false, true},
          kDryRunOption,
          kPersonOption},
         1,
         onceMore},
        {"project",
         "summary",
         "PROJECT",
         "what is known of a rail without its pieces: a sheet, a paper",
         {kStudyOption,
          kTestOption,
          {"rail", "RAIL", "its title, or its number from 1", false, true},
          {"property", "NAME", "of the test, as project verdict names it", false, true},
          {"mean", "VALUE", "with its unit: 52.1 MPa"},
          {"sd", "VALUE", "standard deviation of single pieces; tested only with it and --pieces"},
          {"pieces", "N", "how many it is the mean of"},
          {"source", "TEXT", "where it comes from; said with every sentence"},
          {"take-away", "", "the rail has no such summary"},
          kDryRunOption,
          kPersonOption},
         1,
         railSummary},
        {"project",
         "photo",
         "PROJECT PATH…",
         "add pictures of a piece; folders are walked",
         {kStudyOption, kPieceOption, kDryRunOption, kPersonOption},
         2,
         addPhotos,
         true},
    };
}

} // namespace inchpeg::cli
