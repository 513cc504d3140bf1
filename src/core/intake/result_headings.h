// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/unit.h"

#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A heading of a table of results taken apart.
struct HeadingWords {
    std::string words; ///< in small letters, marks as blanks
    std::string shown; ///< as written, without the unit
    std::optional<Unit> unit;
    std::string unitText; ///< of a setting: "°C", "mm/s"
};

/// The unit stands in brackets, behind the name, or in the row of units (unitCell, else empty).
HeadingWords headingOf(std::string_view heading, std::string_view unitCell);

/// The words of a text in small letters, marks as single blanks.
std::string wordsOf(std::string_view text);

} // namespace inchpeg
