// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/compare/sentence.h"
#include "core/decide/evidence.h"
#include "core/text/notation.h"

#include <span>
#include <string>
#include <vector>

namespace inchpeg
{

/// What all that is known says of a comparison, beyond each rail beside the reference.
struct AnswersRequest {
    const Study *study = nullptr;
    const PieceReadings *readings = nullptr;
    Property property;
    Method test = Method::Tension;
    const Workshop *workshop = nullptr;
    std::span<const StudyResults> all{};  ///< all studies of the project and its library
    std::span<const BoughtPart> bought{}; ///< with their prices
    bool withSchools = false;             ///< also what other schools would claim, and what only explains
};

/// Sentences in the order in which they matter: whether to go on breaking, the question's answers, what the
/// log explains, sheets, single pieces on which claims hang, what only this kind of test says, studies that
/// share a rail, own averages. comparison: of the property, with sentences at least.
std::vector<Sentence> studyAnswers(const AnswersRequest &request, const StudyComparison &comparison,
                                   const Notation &notation);

} // namespace inchpeg
