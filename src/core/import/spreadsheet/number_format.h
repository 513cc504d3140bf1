// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace inchpeg
{

/// What the format of a cell makes of its number.
enum class ShownAs {
    Number,
    Percent,
    Day,       ///< a day, with or without a time
    TimeOfDay, ///< or a duration: hours may pass 24
};

struct NumberLook {
    ShownAs as = ShownAs::Number;
    std::string unit; ///< that the format writes behind the number; empty without one
};

/// Understands a number format such as `0.00 "kN"`, `yyyy-mm-dd hh:mm` or `0.0%`; its first section counts.
/// Source: ECMA-376 part 1, 18.8.31.
NumberLook lookOf(std::string_view format);
/// The formats that workbooks refer to by number alone. Source: ECMA-376 part 1, 18.8.30.
NumberLook builtInLook(std::size_t id);

/// A number of days since the workbook's first day as ISO 8601 writes it: "2026-12-01T10:00:00.5",
/// "10:00:00". startsIn1904: the workbook counts from 1 January 1904, not from 30 December 1899. The text
/// itself where it is no number of days.
std::string dayText(std::string_view number, ShownAs as, bool startsIn1904);

} // namespace inchpeg
