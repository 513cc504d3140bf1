// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study_test.h"
#include "core/units/quantity.h"

#include <optional>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How all records of a study were read, as projects up to format 4 and exports up to version 3 kept it:
/// once, for its own test and for the further ones of its plan.
struct FormerRules {
    std::optional<Length> gaugeLength;
    std::optional<Length> gripDistance;
    std::optional<Force> capacity;
    bool toeCorrection = true;
    double lowStrain = 0.0005;
    double highStrain = 0.0025;
    double offsetStrain = 0.002;
    double breakDrop = 0.5;
};

/// The list of tests out of a plan that holds the setup of the study's own test as "test" and others as
/// "further_tests". Each test takes over those rules that it has parameters for and that are not usual.
/// Errors: BadInput as of testsFromText().
Result<std::vector<StudyTest>> testsOfFormerPlan(Method own, int piecesPerCondition,
                                                 std::string_view planText, const FormerRules &rules = {});

} // namespace inchpeg
