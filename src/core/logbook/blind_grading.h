// SPDX-License-Identifier: GPL-3.0-or-later
// Grading pieces by feel without knowing what they are: every piece once in a drawn order, then all of them
// again in another. docs/methods.md, "At the bench".
#pragma once

#include "core/base/ids.h"
#include "core/base/result.h"

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

struct GivenGrade {
    PieceId piece;
    bool isAgain = false;
    int grade = 0; ///< 1 to 5
    bool operator==(const GivenGrade &) const = default;
};

/// A round of grading. What was given is kept grade by grade, so that nothing is lost when the program ends.
struct BlindGrading {
    std::vector<PieceId> first; ///< in the drawn order
    std::vector<PieceId> again;
    std::vector<GivenGrade> given; ///< in the order in which they were
    bool operator==(const BlindGrading &) const = default;
};

/// Both orders are drawn: see twoRounds().
BlindGrading drawBlindGrading(std::vector<PieceId> pieces, std::uint64_t seed);

/// The piece that is graded next; nothing once all are graded twice.
std::optional<GivenGrade> nextGrade(const BlindGrading &grading);
/// How many are to be given in all.
std::size_t gradesWanted(const BlindGrading &grading);
/// Both grades of a piece; 0 where it has none yet.
struct BothGrades {
    int first = 0;
    int again = 0;
};
BothGrades gradesOf(const BlindGrading &grading, PieceId piece);

/// Takes the pieces out that cannot be graded any more: they were voided or have their record.
void keepOnly(BlindGrading &grading, const std::function<bool(PieceId)> &isStillThere);

/// As one JSON object, kept as a setting of the project: docs/project_format.md.
std::string blindGradingText(const BlindGrading &grading);
/// Errors: BadInput.
Result<BlindGrading> blindGradingFromText(std::string_view text);

} // namespace inchpeg
