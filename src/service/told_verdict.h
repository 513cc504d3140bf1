// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/responses.h"
#include "core/compare/sentence.h"
#include "service/project_results.h"

#include <optional>
#include <string>
#include <vector>

namespace inchpeg
{

/// What Compare says of one property, with the numbers behind it: the window, the report and the command line
/// say the same.
struct ToldVerdict {
    Response response;
    StudyComparison comparison;
    StudyVerdict verdict;
    std::vector<std::string> cautions;
    std::vector<Sentence> answers;
};

struct VerdictRequest {
    std::optional<Method> test{}; ///< empty: the study's first
    std::string property{};       ///< empty: the one that the study is judged by
};

/// The response that is asked for.
/// Errors: NotFound for a test that the study does not have, or a property that the test does not.
Result<Response> responseFor(const Study &study, const VerdictRequest &request);

/// Errors: those of responseFor(); NotFound where the study is not among the results.
Result<ToldVerdict> tellVerdict(const ProjectResults &all, const LibraryResults &library, StudyId study,
                                const VerdictRequest &request);

/// What is claimed of a rail beside the reference: "above", "below", "smaller-than-matters", "as-good",
/// "not-told-apart" or "none".
std::string_view claimName(const RailVerdict &rail);

} // namespace inchpeg
