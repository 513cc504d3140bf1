// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/method/break_sketch.h"

#include <cstddef>
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
    void (*sketch)(BreakSketch &) = nullptr; ///< a small drawing of it
    bool isSuspect = false;   ///< the value may tell of the clamp or of a flaw, not of the material
    bool isOtherPart = false; ///< a screw or fixture gave way: the piece carries at least that
};

/// nullptr for a name that no test has.
const BreakLook *findBreakLook(std::string_view name);

/// How often each look was seen, in the order in which they came.
using BreakLookCounts = std::vector<std::pair<const BreakLook *, std::size_t>>;
void countBreakLook(BreakLookCounts &counts, const BreakLook &look);

} // namespace inchpeg
