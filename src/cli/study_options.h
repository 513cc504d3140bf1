// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/command.h"
#include "service/project/open_project.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace inchpeg::cli
{

/// What the calls on a study of a project share.

inline constexpr OptionSpec kStudyOption{"study", "STUDY", "its question, how that begins, or its number",
                                         false, true};
inline constexpr OptionSpec kPieceOption{"piece", "CODE", "the piece's code, such as A3", false, true};
inline constexpr OptionSpec kPersonOption{"by", "NAME",
                                          "kept with the change; your account's name unless given"};
inline constexpr OptionSpec kTestOption{"test", "TEST", "one of the study's tests; the first unless given"};
inline constexpr OptionSpec kDryRunOption{"dry-run", "", "say what would happen, and change nothing"};

/// A project that is open for writing, and the study that is meant.
struct StudyAtHand {
    std::unique_ptr<OpenProject> project;
    StudyId study;
};
/// Under its lock and in the name of --by; for reading alone with --dry-run.
/// Errors: those of OpenProject::open() and studyNamed().
Result<StudyAtHand> studyToEdit(const Options &options);

/// The same for reading alone, whatever the options say.
Result<StudyAtHand> studyToSee(const Options &options);

/// The edit as one step, or with --dry-run on a copy that nobody keeps. Errors: those of change and of the
/// editor.
Status editOrTry(const Options &options, StudyAtHand &at, const std::string &what,
                 const std::function<Status(Study &)> &change);

/// The test that --test names. Errors: NotFound for one that the study does not have.
Result<Method> testOf(const Options &options, const Study &study);
/// The test of a name that --test gives; nothing where it is not given. Errors: NotFound with the names.
Result<std::optional<Method>> testNamed(const Options &options);

/// The piece of this code. Errors: NotFound, with the codes there are.
Result<Piece *> pieceNamed(Study &study, const std::string &code);

/// The workshop's own day.
std::string dayOf(const Person &person);

/// {line, column, why} of an error.
Json refusalJson(const Error &error);

} // namespace inchpeg::cli
