// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/result_cells.h"

#include "core/import/heading_words.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

/// How many bytes a mark of a bound takes; 0 where there is none.
std::size_t boundMarkAt(std::string_view text, std::size_t at)
{
    for (const std::string_view mark : {">=", "<=", "≥", "≤", "⩾", "⩽", ">", "<"}) {
        if (text.substr(at).starts_with(mark))
            return mark.size();
    }
    return 0;
}

bool beginsNumberAt(std::string_view text, std::size_t at)
{
    return at < text.size() && (isDigit(text[at]) || ((text[at] == '.' || text[at] == ',') &&
                                                      at + 1 < text.size() && isDigit(text[at + 1])));
}

} // namespace

BoundTexts boundTextsOf(std::string_view text)
{
    BoundTexts texts;
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t mark = boundMarkAt(text, at);
        std::size_t number = at + mark;
        while (mark > 0 && number < text.size() && text[number] == ' ')
            ++number;
        if (mark > 0 && beginsNumberAt(text, number)) {
            texts.marked += text.substr(at, mark);
            at = number;
            continue;
        }
        const bool isPlus = text[at] == '+' && at > 0 && isDigit(text[at - 1]) &&
                            (at + 1 == text.size() ||
                             std::string_view(";,\t\r\n\"| ").find(text[at + 1]) != std::string_view::npos);
        texts.marked += text[at];
        if (!isPlus)
            texts.plain += text[at];
        ++at;
    }
    return texts;
}

std::optional<CellValue> readResultCell(std::string_view cell, const NumberFormat &numbers)
{
    std::string_view text = trimmed(cell);
    CellValue value;
    if (const std::size_t mark = boundMarkAt(text, 0); mark > 0) {
        const bool isUpper = text.starts_with("<") || text.starts_with("≤") || text.starts_with("⩽");
        value.isAtMost = isUpper;
        value.isAtLeast = !isUpper;
        text = trimmed(text.substr(mark));
    } else if (text.ends_with('+')) {
        value.isAtLeast = true;
        text = trimmed(text.substr(0, text.size() - 1));
    }
    Cell read = readCell(text, numbers);
    if (read.kind != CellKind::Number) {
        const std::size_t length = numberPrefixLength(text);
        value.unit = findUnit(trimmed(text.substr(length)));
        if (length == 0 || !value.unit)
            return std::nullopt;
        read = readCell(trimmed(text.substr(0, length)), numbers);
    }
    if (read.kind != CellKind::Number)
        return std::nullopt;
    value.number = read.value;
    return value;
}

bool isEmptyMark(std::string_view cell)
{
    const std::string small = lowered(trimmed(cell));
    return small.empty() || small == "-" || small == "–" || small == "—" || small == "na" || small == "n/a" ||
           small == "nan" || small == "null" || small == "none" || small == "n.a." || small == "?";
}

bool saysNoBreak(std::string_view cell)
{
    const std::string small = lowered(trimmed(cell));
    constexpr std::array<std::string_view, 10> kWords = {
        "n.b.",     "n.b",           "nb",         "n b",  "no break",
        "unbroken", "did not break", "kein bruch", "o.b.", "non rompu"};
    return std::find(kWords.begin(), kWords.end(), small) != kWords.end();
}

bool saysStillServes(std::string_view cell)
{
    const std::string small = lowered(trimmed(cell));
    constexpr std::array<std::string_view, 9> kWords = {"serves",           "still serves", "in service",
                                                        "still in service", "in use",       "still in use",
                                                        "in order",         "in betrieb",   "en service"};
    return std::find(kWords.begin(), kWords.end(), small) != kWords.end();
}

} // namespace inchpeg
