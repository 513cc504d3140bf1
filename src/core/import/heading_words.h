// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/import/column.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// What one word of a heading tells.
struct HeadingMeaning {
    std::optional<ColumnQuantity> quantity; ///< nothing: the column is a rate, a count or the like
    bool isCrosshead = false;               ///< of the machine, not of the gauge length
};

/// The words of a heading that tell something, in their order; case does not count. Words of the languages in
/// which rigs are sold are known; of German compounds the last part decides ("Prüfkraft").
std::vector<HeadingMeaning> meaningsIn(std::string_view name);

/// Lower case of ASCII, of the letters with accents that lie in two bytes from À to Þ, and of А to Я.
std::string lowered(std::string_view text);

/// Whether a heading names a strain across the pull: "Transverse strain", "Querdehnung".
bool saysTransverse(std::string_view name);

} // namespace inchpeg
