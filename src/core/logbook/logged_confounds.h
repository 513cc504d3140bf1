// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/planning/confounds.h"

namespace inchpeg
{

/// Settings that were locked or not planned at all, but by the plates' records moved together with a factor,
/// or changed in no step with one. Each with the control that would separate them, in words. The heaviest
/// first. Rules: docs/methods.md, "Confounds of what was logged".
std::vector<Confound> settingConfounds(const Study &study);
/// The same with masses that changed with the factor.
std::vector<Confound> loggedConfounds(const Study &study, const Workshop &workshop);

} // namespace inchpeg
