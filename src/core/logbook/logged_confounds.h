// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/facts/contrasts.h"
#include "core/planning/confounds.h"

namespace inchpeg
{

/// What else than the factors differs between a rail and the reference that it is held against, by plan, log
/// and records together: each with the rails that it is about and the control that would separate them, in
/// words. What changed in step with no rail comes last. The heaviest first. Rules: docs/methods.md,
/// "Confounds of what was logged". readings: for what follows from records; may be null.
std::vector<Confound> settingConfounds(const Study &study, const PieceReadings *readings = nullptr);
/// The same with masses that changed with the factor.
std::vector<Confound> loggedConfounds(const Study &study, const Workshop &workshop,
                                      const PieceReadings *readings = nullptr);

/// What stands where nothing moved together: what was looked at, and what is known of some pieces alone.
std::string lookedAtSentence(const Study &study, const PieceReadings *readings = nullptr);

/// "Held on all rails: walls 4, auxiliary fan 40 %.", and what was meant to be held and was not.
std::vector<std::string> heldSentences(const Study &study);

} // namespace inchpeg
