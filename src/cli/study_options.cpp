// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/study_options.h"

#include "service/local_day.h"
#include "service/project_report.h"

#include <fmt/format.h>

namespace inchpeg::cli
{

namespace
{

Result<StudyAtHand> studyIn(Result<std::unique_ptr<OpenProject>> opened, const Options &options)
{
    if (!opened)
        return opened.error();
    const Result<StudyId> study = studyNamed((*opened)->file(), options.required("study"));
    if (!study)
        return study.error();
    return StudyAtHand{std::move(*opened), *study};
}

} // namespace

Result<StudyAtHand> studyToEdit(const Options &options)
{
    if (options.isGiven("dry-run"))
        return studyToSee(options);
    return studyIn(OpenProject::open(options.positional().front(), personHere(options.value("by"))), options);
}

Result<StudyAtHand> studyToSee(const Options &options)
{
    return studyIn(OpenProject::openForReading(options.positional().front(), personHere(options.value("by"))),
                   options);
}

Status editOrTry(const Options &options, StudyAtHand &at, const std::string &what,
                 const std::function<Status(Study &)> &change)
{
    if (!options.isGiven("dry-run")) {
        const Result<Edited> edited = at.project->editor().edit(at.study, what, change);
        return edited ? ok() : Status(edited.error());
    }
    Result<Study> study = at.project->file().loadStudy(at.study);
    return study ? change(*study) : Status(study.error());
}

Result<std::optional<Method>> testNamed(const Options &options)
{
    const std::optional<std::string> name = options.value("test");
    if (!name)
        return std::optional<Method>();
    if (const std::optional<Method> known = methodFrom(*name))
        return known;
    std::string all;
    for (const MethodFacts &facts : allMethods()) {
        if (facts.reduction != nullptr && facts.reduction->command == *name)
            return std::optional(facts.method);
        all += (all.empty() ? "" : ", ") + std::string(facts.name);
    }
    return Error{
        ErrorCode::NotFound, fmt::format("--test: there is no test \"{}\"; known are {}", *name, all), {}};
}

Result<Method> testOf(const Options &options, const Study &study)
{
    const Result<std::optional<Method>> named = testNamed(options);
    if (!named)
        return named.error();
    const Method test = named->value_or(methodOf(study));
    if (findTest(study, test) != nullptr)
        return test;
    std::string all;
    for (const StudyTest &one : study.tests)
        all += (all.empty() ? "" : ", ") + std::string(methodName(one.method));
    return Error{ErrorCode::NotFound,
                 fmt::format("--test: the study has no test \"{}\"; it has {}", methodName(test), all),
                 {}};
}

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

std::string dayOf(const Person &person)
{
    return localDay(person.now()).toStdString();
}

Json refusalJson(const Error &error)
{
    Json json = {{"line", nullptr}, {"column", nullptr}, {"why", error.message}};
    if (error.position) {
        json["line"] = error.position->line;
        if (error.position->column)
            json["column"] = *error.position->column;
    }
    return json;
}

} // namespace inchpeg::cli
