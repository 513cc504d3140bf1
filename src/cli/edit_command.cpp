// SPDX-License-Identifier: GPL-3.0-or-later
// The calls that change a study of a project: each is one edit of the open project, under its lock, with who.
#include "cli/command.h"
#include "core/model/study_edit.h"
#include "service/project/open_project.h"
#include "service/project_report.h"

#include <fmt/format.h>

namespace inchpeg::cli
{

namespace
{

constexpr OptionSpec kStudyOption{"study", "STUDY", "its question, how that begins, or its number", false,
                                  true};
constexpr OptionSpec kPieceOption{"piece", "CODE", "the piece's code, such as A3", false, true};
constexpr OptionSpec kByOption{"by", "NAME", "kept with the change; your account's name unless given"};

/// The piece of this code. Errors: NotFound, with the codes there are.
Result<Piece *> pieceNamed(Study &study, const std::string &code)
{
    std::string known;
    for (Piece &piece : study.pieces) {
        if (piece.code == code)
            return &piece;
        known += (known.empty() ? "" : ", ") + piece.code;
    }
    return Error{ErrorCode::NotFound,
                 fmt::format("there is no piece \"{}\" in the study; {}", code,
                             known.empty() ? std::string("it has none") : "there are " + known),
                 {}};
}

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
    Result<std::unique_ptr<OpenProject>> opened =
        OpenProject::open(options.positional().front(), personHere(options.value("by")));
    if (!opened)
        return opened.error();
    OpenProject &project = **opened;
    const Result<StudyId> study = studyNamed(project.file(), options.required("study"));
    if (!study)
        return study.error();
    Json result = {{"study", study->value}, {"piece", options.required("piece")}};
    const Result<Edited> edited = project.editor().edit(*study, what, [&](Study &changed) -> Status {
        const Result<Piece *> piece = pieceNamed(changed, options.required("piece"));
        if (!piece)
            return piece.error();
        result["was"] = exclusionJson((*piece)->exclusion);
        const Status status = change(**piece, project.editor().person());
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

} // namespace

std::vector<Command> editCommands()
{
    return {
        {"project",
         "leave-out",
         "PROJECT",
         "leave a piece out of what is compared, with the reason",
         {kStudyOption, kPieceOption, {"reason", "TEXT", "why; kept with the piece", false, true}, kByOption},
         1,
         leaveOutPiece},
        {"project",
         "take-back",
         "PROJECT",
         "take a piece that was left out in again",
         {kStudyOption, kPieceOption, kByOption},
         1,
         takeBackPiece},
    };
}

} // namespace inchpeg::cli
