// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/method.h"

#include <span>
#include <string_view>

namespace inchpeg
{

/// What a break looks like, as a person sees it.
struct BreakLook {
    std::string_view name; ///< in files
    std::string_view label;
    std::string_view meaning;
    bool isSuspect = false; ///< the value may tell of the clamp or of a flaw, not of the material
};

/// The looks that a test's pieces may have, the usual ones first; empty where none is asked for (impact tells
/// its kinds of break with the swing). Common practice.
std::span<const BreakLook> breakLooksOf(Method method);

/// nullptr for a name that no test has.
const BreakLook *findBreakLook(std::string_view name);

} // namespace inchpeg
