// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/break_look.h"

#include "core/method/method.h"

#include <algorithm>

namespace inchpeg
{

const BreakLook *findBreakLook(std::string_view name)
{
    for (const MethodFacts &facts : allMethods()) {
        const auto found = std::find_if(facts.looks.begin(), facts.looks.end(),
                                        [&](const BreakLook &look) { return look.name == name; });
        if (found != facts.looks.end())
            return &*found;
    }
    return nullptr;
}

void countBreakLook(BreakLookCounts &counts, const BreakLook &look)
{
    const auto known = std::find_if(counts.begin(), counts.end(),
                                    [&](const auto &count) { return count.first->name == look.name; });
    if (known == counts.end())
        counts.emplace_back(&look, 1);
    else
        ++known->second;
}

} // namespace inchpeg
