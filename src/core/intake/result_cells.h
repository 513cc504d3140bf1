// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/units/number.h"
#include "core/units/unit.h"

#include <optional>
#include <string>
#include <string_view>

namespace inchpeg
{

/// The text with its bounds written one way, ">500" for "≥ 500": the layout is found without their marks, the
/// cells are read with them. Both texts have the same lines.
struct BoundTexts {
    std::string marked;
    std::string plain;
};
BoundTexts boundTextsOf(std::string_view text);

/// "> 500", "≥500", "500+": a lower bound; "0.5 kN": with a unit of its own.
struct CellValue {
    double number = 0.0;
    bool isAtLeast = false;
    bool isAtMost = false;
    std::optional<Unit> unit{};
};
/// Nothing for what is no number.
std::optional<CellValue> readResultCell(std::string_view cell, const NumberFormat &numbers);

/// Nothing, or one of the marks for it: "-", "n/a", "?".
bool isEmptyMark(std::string_view cell);
/// A piece that did not break has no number; nothing is wrong with its cell.
bool saysNoBreak(std::string_view cell);
/// "serves", "still in use", in a few languages: of a part whose time is not over.
bool saysStillServes(std::string_view cell);

} // namespace inchpeg
