// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/polymer.h"
#include "core/model/study.h"
#include "core/model/workshop.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// One kind of test of a study with everything that is settled or usual about it.
struct PlannedTest {
    Method method = Method::Tension;
    int piecesPerCondition = 0;
    SpecimenShape shape; ///< the chosen one, or the usual one of the method
    PlannedProperty property;
    TestSetup setup;
};

/// In the order of the study's tests.
std::vector<PlannedTest> plannedTests(const Study &study);
/// The planned test that a piece is made for.
const PlannedTest &testOfPiece(const std::vector<PlannedTest> &tests, const Piece &piece);
/// The planned test of a method; the first where there is none.
const PlannedTest &testOfMethod(const std::vector<PlannedTest> &tests, Method method);
/// The setup of a test, for changing it. method: of one of the study's tests.
TestSetup &setupOf(Study &study, Method method);

/// Parameters of a test that are said for it, as opposed to those that its pieces, its shape or its load
/// give.
std::vector<const Parameter *> saidParameters(Method method);
/// Takes what a person typed for one of them; an empty text takes it back to what is usual.
/// Errors: NotFound for a name that the test does not have; those of setTyped().
Status setTestParameter(Study &study, Method method, std::string_view name, std::string_view text);

/// What a setting is in a condition: the level of a factor of that name, else the locked value; nothing where
/// neither says.
std::optional<std::string> settingOf(const Study &study, const Condition &condition, std::string_view name);
/// Whether its pieces were annealed, by what the setting says: "none", "as printed" or 0 h are not.
bool isAnnealed(const Study &study, const Condition &condition);
/// The same as a number, its unit or a percent sign taken off.
std::optional<double> numberSetting(const Study &study, const Condition &condition, std::string_view name);

/// The polymer of a condition, from its material or its level of a factor called material; the usual one
/// where neither names a known polymer.
PolymerGuess polymerOf(const Study &study, const Condition &condition);

/// Mean and scatter of the same property in own earlier work.
struct OwnResults {
    std::optional<double> mean; ///< of the reference, or of the same material elsewhere, in working units
    std::optional<double> cv;
    std::string source; ///< "the pieces of this study"
};

/// How widely single values are expected to scatter, as a fraction, and why.
struct ExpectedScatter {
    double cv = 0.0;
    std::string source;
};
ExpectedScatter expectedScatter(const Study &study, const OwnResults &own);

/// The property by which the pieces of a test give way; "" for tests without one.
std::string_view strengthName(Method method);

/// What pieces of a condition are expected to reach, in the property's unit; nothing for a property of which
/// nothing is known. What is typed, or known from own work, is of the reference; another polymer or
/// orientation gets it times the ratio that is usual between the two.
struct ExpectedValue {
    double value = 0.0;
    std::string source;
};
std::optional<ExpectedValue> expectedValue(const Study &study, const PlannedTest &test,
                                           const Condition &condition, const OwnResults &own);

} // namespace inchpeg
