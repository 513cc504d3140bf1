// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/planned_test.h"

namespace inchpeg
{

/// What a piece is expected to ask of the rig, in the unit of its kind: N, J, N·m or kg.
struct ExpectedLoad {
    LoadKind kind = LoadKind::None;
    double value = 0.0;
    std::string source; ///< of the strength behind it
};

/// From the expected strength and the section; the dead mass of a stress for tests under a constant load.
/// Formulas: docs/methods.md, "Can the rig do it". Nothing where nothing is known of the strength.
std::optional<ExpectedLoad> expectedLoad(const Study &study, const PlannedTest &test,
                                         const Condition &condition, const OwnResults &own);

/// A bar carries a load that is put on, and is not pressed until it gives way.
bool isUnderDeadLoad(Method method);

/// As in core/model/plan.h.
double bentLength_mm(const PlannedTest &test);

/// How a load lies in a rig's range.
enum class RigFit {
    Unknown,   ///< no rig chosen, or no expectation
    WrongKind, ///< the rig reads something else
    TooSmall,  ///< too few steps of the resolution, or below a tenth of a pendulum
    TooCoarse, ///< its weights cannot be put together to the load
    InRange,
    NearLimit, ///< above four fifths of the range
    Beyond,
};
std::string_view rigFitName(RigFit fit);

struct RigVerdict {
    RigFit fit = RigFit::Unknown;
    double share = 0.0;   ///< of the range
    std::string sentence; ///< what was found, and what to change; quantities as marked()
};

/// Source of the limits: ISO 7500-1:2018, class 1, relative resolution 0.5 % (from memory) for force and
/// torque; ISO 13802 for pendulums, 10 to 80 % of the capacity; four fifths of a range as common practice.
RigVerdict checkRig(const PlannedTest &test, const std::optional<ExpectedLoad> &load, const RigCard *rig);

/// The rig of the workshop that suits the load best: one in range, the smallest of them; else none.
const RigCard *bestRig(const Workshop &workshop, LoadKind kind, double load);

/// What a kind of load measures; a force where there is none.
Dimension dimensionOf(LoadKind kind);

/// How long a pull takes and what it yields: strain to the expected break over the test speed.
struct RunEstimate {
    double seconds = 0.0;
    double samples = 0.0;
};
RunEstimate runEstimate(const PlannedTest &test, double travel_mm, const RigCard *rig);

} // namespace inchpeg
