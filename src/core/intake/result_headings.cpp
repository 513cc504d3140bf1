// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/result_headings.h"

#include "core/import/column.h"
#include "core/import/heading_words.h"
#include "core/units/number.h"

namespace inchpeg
{

namespace
{

/// A unit of a setting or a result; "in" and "min" are words unless brackets set them apart.
bool isUnitText(std::string_view text, bool inBrackets)
{
    if (text.empty() || text == "-" || text == "1")
        return inBrackets;
    if (!inBrackets &&
        (text == "in" || text == "min" || text == "h" || text == "s" || text == "m" || text == "g"))
        return false;
    return findUnit(text).has_value() || text == "mm/s" || text == "mm/min" || text == "J/m" || text == "ksi";
}

} // namespace

std::string wordsOf(std::string_view text)
{
    std::string words;
    for (const char c : lowered(text)) {
        const bool isMark = std::string_view("_.,;:/-–()[]{}#*\"=").find(c) != std::string_view::npos;
        if (!isMark && c != ' ' && c != '\t')
            words += c;
        else if (!words.empty() && words.back() != ' ')
            words += ' ';
    }
    while (!words.empty() && words.back() == ' ')
        words.pop_back();
    return words;
}

HeadingWords headingOf(std::string_view heading, std::string_view unitCell)
{
    HeadingWords found{{}, std::string(trimmed(heading)), {}, {}};
    const auto take = [&](std::string_view unit, std::string_view name) {
        found.unitText = std::string(unit == "-" || unit == "1" ? std::string_view() : unit);
        found.unit = findUnit(unit);
        found.shown = std::string(trimmed(name));
    };
    const std::size_t open = heading.find_last_of("([{");
    const std::size_t close = heading.find_last_of(")]}");
    const std::string_view bracket =
        open != std::string_view::npos && close != std::string_view::npos && close > open + 1 && open > 0
            ? trimmed(heading.substr(open + 1, close - open - 1))
            : std::string_view();
    if (!bracket.empty() && isUnitText(bracket, true)) {
        take(bracket, std::string(heading.substr(0, open)) + std::string(heading.substr(close + 1)));
    } else {
        for (const std::string_view mark : {" in ", " / ", "/", ", ", "_", " "}) {
            const std::size_t at = heading.rfind(mark);
            if (at == std::string_view::npos || at == 0)
                continue;
            const std::string_view unit = trimmed(heading.substr(at + mark.size()));
            if (isUnitText(unit, mark == " in " || mark == " / ")) {
                take(unit, heading.substr(0, at));
                break;
            }
        }
    }
    if (found.unitText.empty() && !unitCell.empty()) {
        const std::string_view unit = withoutBrackets(trimmed(unitCell));
        if (isUnitText(unit, true))
            take(unit, found.shown);
    }
    while (!found.shown.empty() &&
           std::string_view(" ,:/_").find(found.shown.back()) != std::string_view::npos)
        found.shown.pop_back();
    found.words = wordsOf(found.shown);
    return found;
}

} // namespace inchpeg
