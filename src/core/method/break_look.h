// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/method.h"

#include <cstddef>
#include <span>
#include <string_view>
#include <utility>
#include <vector>

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

/// How often each look was seen, in the order in which they came.
using BreakLookCounts = std::vector<std::pair<const BreakLook *, std::size_t>>;
void countBreakLook(BreakLookCounts &counts, const BreakLook &look);

} // namespace inchpeg
