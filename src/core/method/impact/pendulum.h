// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What the hammer did to the piece (ISO 179-1:2010, 3.4 and clause 9): complete break, hinge break (held by
/// a skin), partial break, no break. They are never averaged with each other.
enum class BreakType { Complete, Hinge, Partial, None };
char breakTypeLetter(BreakType type);                            ///< C, H, P, N
std::string_view breakTypeName(BreakType type);                  ///< "complete break" …
std::optional<BreakType> breakTypeFrom(std::string_view letter); ///< either case

/// The hammer: m is its mass, the arm goes from the pivot to its centre of mass; angles count from hanging.
struct PendulumRig {
    double mass_kg = 0.0;
    double arm_m = 0.0;
    double release_deg = 0.0;
    double freeSwing_deg = 0.0; ///< where it swings to without a piece: gives the losses
    bool operator==(const PendulumRig &) const = default;
};

/// One blow.
struct Swing {
    double swing_deg = 0.0; ///< where the hammer swings to after the blow
    Length width;
    Length thickness;
    std::optional<Length> remainingWidth; ///< under the notch; empty: not notched
    std::optional<BreakType> breakType;   ///< empty: not said
    bool operator==(const Swing &) const = default;
};

struct PendulumResult {
    double absorbedEnergy_J = 0.0;
    double impactStrength_kJ_per_m2 = 0.0; ///< over the thickness times what is left under the notch
    double energyPerThickness_J_per_m = 0.0;
    double lossEnergy_J = 0.0; ///< of friction and air on the way of this swing
    double fullEnergy_J = 0.0; ///< of the hammer at its release
    bool atLeast = false;      ///< the piece did not break: it can take at least this
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const PendulumResult &) const = default;
};

/// The hammer's energy at an angle from hanging, m·g·arm·(1 − cos angle), in J.
double hammerEnergy_J(const PendulumRig &rig, double angle_deg);

/// Energy that a blow took, by docs/methods.md, section "Impact": loss = m·g·arm·(cos free − cos release) ×
/// (release + swing)/(release + free), absorbed = m·g·arm·(cos swing − cos release) − loss; losses in the
/// manner of ISO 13802, shared out over the angle.
/// Errors: InvalidArgument for a rig or piece whose sizes or angles are not possible: a mass, arm, width or
/// thickness that is not positive, a release outside 0 to 180°, a free swing that is not positive or goes
/// beyond the release, a swing beyond the free one.
Result<PendulumResult> reducePendulum(const Swing &swing, const PendulumRig &rig);

} // namespace inchpeg
