// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// The peg proposed for each file, nothing where none fits or more than one would.
using FileMatches = std::vector<std::optional<PieceId>>;

/// Patterns offered to the person, the likeliest first. {code} is a piece's code, {level} a rail's level with
/// or without its unit, {n} the number of the piece on its rail, * anything.
std::span<const std::string_view> usualNamePatterns();

/// Matches file names (their endings are ignored, and case) by a pattern. test: empty for
/// the first of the study; only pieces of it get files. A peg that two files ask for is given to neither; a
/// peg that has a record already is not given away. Errors: InvalidArgument for a pattern without {code}, or
/// {level} and {n}.
Result<FileMatches> matchByName(const Study &study, std::span<const std::string> fileNames,
                                std::string_view pattern, const std::optional<Method> &test = {});

struct NameMatching {
    std::string pattern;
    FileMatches matches;
};

/// The usual pattern that places most files; nothing where none places any.
std::optional<NameMatching> bestNameMatching(const Study &study, std::span<const std::string> fileNames,
                                             const std::optional<Method> &test = {});

/// Files in their natural order ("2" before "10") onto the pegs without a record, rail by rail.
FileMatches matchByOrder(const Study &study, std::span<const std::string> fileNames,
                         const std::optional<Method> &test = {});

/// True where a goes before b, runs of digits compared as numbers.
bool naturallyBefore(std::string_view a, std::string_view b);

} // namespace inchpeg
