// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/intake/study_proposal.h"

#include <map>
#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// The fields of the heads of files, one map a file: "material" → "PETG".
using HeadFields = std::vector<std::map<std::string, std::string>>;

struct NamesRequest {
    std::span<const std::string> names; ///< paths below the folder that was given
    HeadFields heads{};                 ///< of each, or empty
    std::vector<NamedFactor> factors{}; ///< as a person says; parts that are not named are found
    std::string pattern{}; ///< "{material}_{n}": names the parts itself; "{n}" counts, * is nothing
};

/// Factors, rails and pieces from names alone: which part counts the pieces, which are the factors, which
/// mean nothing. What may be read in two ways is a question, never a guess: docs/methods.md, "A study from
/// names".
StudyProposal proposeFromNames(const NamesRequest &request);

} // namespace inchpeg
