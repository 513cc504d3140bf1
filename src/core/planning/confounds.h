// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/model/study_edit.h"
#include "core/planning/plates.h"

namespace inchpeg
{

/// What can be done about a confound by one click.
struct Control {
    enum class Kind {
        AddCondition, ///< a rail that separates the two
        AddFactor,    ///< makes a locked setting a factor, sets it where it is forced, and adds the rail that
                      ///< separates the two
        MoreRounds,   ///< prints each setting on more than one plate
    };
    Kind kind = Kind::AddCondition;
    std::string label; ///< of the button: "Add a rail: chamber open, fan 0 %"
    Condition condition;
    std::string setting; ///< AddFactor: name of the locked setting
    std::string forcedLevel;
    std::vector<ConditionId> forcedIn;
    int rounds = 0;
};

/// Something that moves together with a factor, so that its effect cannot be told from the factor's.
struct Confound {
    enum class Weight {
        Aliased, ///< the plan cannot tell the two apart
        Mind,    ///< it can, or partly; keep an eye on it
    };
    Weight weight = Weight::Mind;
    std::string sentence;
    std::optional<Control> control;
};

/// Looks for factors that change together; factors that are aliased with plates, rounds or materials; and
/// locked settings that cannot hold in some condition (a heated chamber switches the auxiliary fan off).
/// Rules: docs/methods.md, "Confounds of a plan". The heaviest first.
std::vector<Confound> confoundsOf(const Study &study, const PlateLayout &layout);

/// Errors: those of addCondition() and addFactor().
Status applyControl(Study &study, const Control &control, const IdSource &ids);

} // namespace inchpeg
