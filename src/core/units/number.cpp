// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/units/number.h"

#include <array>
#include <charconv>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr std::string_view kNoBreakSpace = "\xC2\xA0";
constexpr std::string_view kNarrowNoBreakSpace = "\xE2\x80\xAF";
constexpr std::string_view kThinSpace = "\xE2\x80\x89";
constexpr std::string_view kApostrophe = "\xE2\x80\x99";
constexpr std::string_view kMinusSign = "\xE2\x88\x92";
constexpr std::size_t kLongestNumber = 64;

bool isBlank(char c)
{
    return c == ' ' || c == '\t' || c == '\r';
}

char lower(char c)
{
    return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
}

bool equalsIgnoringCase(std::string_view text, std::string_view lowerCase)
{
    if (text.size() != lowerCase.size())
        return false;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (lower(text[i]) != lowerCase[i])
            return false;
    }
    return true;
}

bool isNotFiniteWord(std::string_view text)
{
    if (!text.empty() && (text.front() == '+' || text.front() == '-'))
        text.remove_prefix(1);
    for (std::string_view word : {"nan", "na", "n/a", "#n/a", "inf", "infinity", "1.#inf", "1.#qnan",
                                  "-nan(ind)", "nan(ind)", "null"}) {
        if (equalsIgnoringCase(text, word))
            return true;
    }
    return false;
}

/// The length of a digit-grouping mark at the start of text, 0 if there is none.
std::size_t groupMarkLength(std::string_view text, const NumberFormat &format)
{
    if (!format.groups || text.empty())
        return 0;
    const char other = format.decimal == '.' ? ',' : '.';
    if (text.front() == other || text.front() == '\'' || text.front() == '_' ||
        (format.spaceGroups && text.front() == ' '))
        return 1;
    for (std::string_view mark : {kNoBreakSpace, kNarrowNoBreakSpace, kThinSpace, kApostrophe}) {
        if (text.starts_with(mark))
            return mark.size();
    }
    return 0;
}

struct Normalised {
    std::array<char, kLongestNumber> text{};
    std::size_t length = 0;
    bool append(char c)
    {
        if (length == text.size())
            return false;
        text[length++] = c;
        return true;
    }
};

/// Copies the digits before the decimal mark, leaving out grouping marks; false when the groups are not of
/// three.
bool copyIntegerPart(std::string_view &rest, const NumberFormat &format, Normalised &out)
{
    std::size_t run = 0;
    bool grouped = false;
    while (!rest.empty()) {
        if (isDigit(rest.front())) {
            if (!out.append(rest.front()))
                return false;
            ++run;
            rest.remove_prefix(1);
            continue;
        }
        const std::size_t mark = groupMarkLength(rest, format);
        if (mark == 0)
            break;
        if (run == 0 || run > 3 || (grouped && run != 3))
            return false;
        grouped = true;
        run = 0;
        rest.remove_prefix(mark);
    }
    return !grouped || run == 3;
}

Cell fromCharacters(const char *first, const char *last)
{
    double value = 0.0;
    const auto [end, code] = std::from_chars(first, last, value);
    if (end != last)
        return {CellKind::Text};
    if (code == std::errc::result_out_of_range) {
        // from_chars reports underflow the same way; 1e-999 is 0 for every purpose here.
        const std::string_view text(first, static_cast<std::size_t>(last - first));
        const std::size_t exponent = text.find_first_of("eE");
        const bool tiny =
            exponent != std::string_view::npos && exponent + 1 < text.size() && text[exponent + 1] == '-';
        return tiny ? Cell{CellKind::Number, 0.0} : Cell{CellKind::NotFinite};
    }
    if (code != std::errc())
        return {CellKind::Text};
    return std::isfinite(value) ? Cell{CellKind::Number, value} : Cell{CellKind::NotFinite};
}

Cell readNumber(std::string_view text, const NumberFormat &format)
{
    std::string_view rest = text;
    Normalised out;
    if (rest.starts_with(kMinusSign)) {
        out.append('-');
        rest.remove_prefix(kMinusSign.size());
    } else if (rest.front() == '-') {
        out.append('-');
        rest.remove_prefix(1);
    } else if (rest.front() == '+') {
        rest.remove_prefix(1);
    }
    if (rest.empty() || !(isDigit(rest.front()) || rest.front() == format.decimal))
        return {CellKind::Text};
    if (!copyIntegerPart(rest, format, out))
        return {CellKind::Text};
    if (!rest.empty() && rest.front() == format.decimal) {
        out.append('.');
        rest.remove_prefix(1);
    }
    for (char c : rest) {
        if (c == ',' || c == '.' || !out.append(c))
            return {CellKind::Text};
    }
    return fromCharacters(out.text.data(), out.text.data() + out.length);
}

} // namespace

std::string singleSpaced(std::string_view text)
{
    std::string spaced;
    for (const char letter : text) {
        const bool isBlank = letter == ' ' || letter == '\t' || letter == '\n' || letter == '\r';
        if (!isBlank)
            spaced += letter;
        else if (!spaced.empty() && spaced.back() != ' ')
            spaced += ' ';
    }
    while (spaced.ends_with(' '))
        spaced.pop_back();
    return spaced;
}

std::string_view trimmed(std::string_view text)
{
    bool changed = true;
    while (changed && !text.empty()) {
        changed = false;
        if (isBlank(text.front())) {
            text.remove_prefix(1);
            changed = true;
        } else if (isBlank(text.back())) {
            text.remove_suffix(1);
            changed = true;
        } else if (text.starts_with(kNoBreakSpace)) {
            text.remove_prefix(kNoBreakSpace.size());
            changed = true;
        } else if (text.ends_with(kNoBreakSpace)) {
            text.remove_suffix(kNoBreakSpace.size());
            changed = true;
        }
    }
    return text;
}

Cell readCell(std::string_view text, const NumberFormat &format)
{
    const std::string_view cell = trimmed(text);
    if (cell.empty())
        return {CellKind::Empty};
    const char first = cell.front();
    if (format.decimal == '.' && (isDigit(first) || first == '-')) {
        // The common case by far: plain digits, no copy. A leading '-' before a word falls through.
        double value = 0.0;
        const char *last = cell.data() + cell.size();
        const auto [end, code] = std::from_chars(cell.data(), last, value);
        if (end == last && code == std::errc() && std::isfinite(value))
            return {CellKind::Number, value};
    }
    if (isNotFiniteWord(cell))
        return {CellKind::NotFinite};
    return readNumber(cell, format);
}

std::optional<double> parseTypedNumber(std::string_view text)
{
    for (char decimal : {'.', ','}) {
        const Cell cell = readCell(text, {.decimal = decimal});
        if (cell.kind == CellKind::Number)
            return cell.value;
    }
    return std::nullopt;
}

std::size_t numberPrefixLength(std::string_view text)
{
    std::size_t i = 0;
    if (text.starts_with(kMinusSign))
        i = kMinusSign.size();
    while (i < text.size()) {
        const char c = text[i];
        const bool exponent = (c == 'e' || c == 'E') && i > 0 && i + 1 < text.size() &&
                              (isDigit(text[i + 1]) || ((text[i + 1] == '-' || text[i + 1] == '+') &&
                                                        i + 2 < text.size() && isDigit(text[i + 2])));
        if (exponent) {
            i += 2;
            continue;
        }
        if (!isDigit(c) && c != '.' && c != ',' && !(i == 0 && (c == '-' || c == '+')))
            break;
        ++i;
    }
    return i;
}

} // namespace inchpeg
