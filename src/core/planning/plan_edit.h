// SPDX-License-Identifier: GPL-3.0-or-later
// What a person may change about a plan, with the rules that hold then: for the window and the command line
// alike. A refusal changes nothing.
#pragma once

#include "core/model/study_edit.h"
#include "core/model/workshop.h"
#include "core/planning/moment.h"
#include "core/planning/planned_test.h"

#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// Errors: InvalidArgument for a question without words.
Status setQuestion(Study &study, std::string_view question);

/// Asks the question of another test. One that the study has is moved to the front; else the first test
/// becomes this one with its pieces, and what was set up for the old one goes: another test has another rig
/// and other answers. Scatter and difference that were set for the old test go either way.
Status setMethod(Study &study, Method method);

/// Plans a further test on the same rails. Errors: InvalidArgument for a test that is planned already.
Status addTest(Study &study, Method method, const IdSource &ids);
/// Errors: InvalidArgument for the first test, and where pieces of it are printed or hold data.
Status removeTest(Study &study, Method method, const IdSource &ids);

/// An expected value of another property does not hold.
void setProperty(Study &study, Method method, std::string_view property);

/// The smallest difference that would change the decision: a share of the reference ("10 %", "10"), or a
/// value with its unit. expected: what the reference reaches, in the working unit. Errors: InvalidArgument
/// for a share of a temperature, a value without an expected one, and what is not above zero; those of
/// parseQuantity().
Status setDifference(Study &study, const PlannedProperty &property, std::string_view typed,
                     const std::optional<double> &expected);

/// Holds a setting in all conditions; an empty value lets go of it.
/// Errors: InvalidArgument without a name, or for one that is varied.
Status lockSetting(Study &study, std::string_view name, std::string_view value);

/// Errors: InvalidArgument for fewer than none, or as many as there are pieces.
Status setSpares(Study &study, int count);

/// Of the first test it decides how sections are measured. Errors: those of checkShape().
Status setShape(Study &study, Method method, const SpecimenShape &shape);

/// The range of a force gauge is what makes a reading "at least".
void setRig(Study &study, Method method, const Workshop &workshop, std::string_view name);

/// What the slicer says of a piece of a rail; without both it is estimated again.
/// Errors: InvalidArgument for what is not above zero.
Status setSlicer(Study &study, ConditionId rail, const SlicerFigure &figure);

/// day: "2026-11-30"; empty: not dated. Errors: InvalidArgument for anything else.
Status setStart(Study &study, std::string_view day);

/// Rails of a design; new ones are printed as their test usually is, unless the orientation is a factor.
/// Errors: those of applyDesign().
Status makeRails(Study &study, DesignKind design, const std::vector<std::vector<std::string>> &levels,
                 const IdSource &ids);

/// Nothing takes a confirmation back.
void confirmCaution(Study &study, std::string_view caution, const std::optional<Confirmation> &by);

} // namespace inchpeg
