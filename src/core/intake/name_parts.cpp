// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/name_parts.h"

#include "core/import/heading_words.h"
#include "core/model/polymer.h"
#include "core/units/number.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <utility>

namespace inchpeg
{

namespace
{

/// Units of settings as they stand in names, in small letters.
constexpr std::array<std::pair<std::string_view, std::string_view>, 41> kNameUnits = {{
    {"c", "°C"},      {"°c", "°C"},     {"degc", "°C"},   {"grad", "°C"},       {"celsius", "°C"},
    {"°", "°"},       {"deg", "°"},     {"mm", "mm"},     {"millimeter", "mm"}, {"um", "µm"},
    {"µm", "µm"},     {"micron", "µm"}, {"cm", "cm"},     {"%", "%"},           {"pct", "%"},
    {"percent", "%"}, {"prozent", "%"}, {"pc", "%"},      {"mm/s", "mm/s"},     {"mms", "mm/s"},
    {"mmps", "mm/s"}, {"mm-s", "mm/s"}, {"mm_s", "mm/s"}, {"h", "h"},           {"hr", "h"},
    {"hrs", "h"},     {"hours", "h"},   {"std", "h"},     {"min", "min"},       {"sec", "s"},
    {"s", "s"},       {"n", "N"},       {"kn", "kN"},     {"mpa", "MPa"},       {"bar", "bar"},
    {"g", "g"},       {"kg", "kg"},     {"k", "K"},       {"j", "J"},           {"nm", "N·m"},
    {"rpm", "rpm"},
}};

std::string_view unitInName(std::string_view text)
{
    const std::string small = lowered(text);
    for (const auto &[written, unit] : kNameUnits) {
        if (written == small)
            return unit;
    }
    return {};
}

bool isLetter(char c)
{
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || static_cast<unsigned char>(c) >= 0x80U;
}
bool isCapital(char c)
{
    return c >= 'A' && c <= 'Z';
}
bool isSmall(char c)
{
    return c >= 'a' && c <= 'z';
}

/// Without the endings of a record: ".csv", ".csv.txt". One that begins with a digit is part of the name.
std::string_view withoutEnding(std::string_view name)
{
    for (int i = 0; i < 2; ++i) {
        const std::size_t dot = name.rfind('.');
        if (dot == std::string_view::npos || dot == 0 || name.size() - dot > 6 || name.size() - dot < 2)
            return name;
        const std::string_view ending = name.substr(dot + 1);
        const bool isEnding = !isDigit(ending.front()) &&
                              std::all_of(ending.begin(), ending.end(),
                                          [](char c) { return isDigit(c) || isCapital(c) || isSmall(c); });
        if (!isEnding)
            return name;
        name = name.substr(0, dot);
    }
    return name;
}

struct Digits {
    std::size_t length = 0;
    int value = 0;
};
Digits digitsAt(std::string_view text, std::size_t at)
{
    Digits digits;
    while (at + digits.length < text.size() && isDigit(text[at + digits.length]) && digits.length < 9)
        digits.value = digits.value * 10 + (text[at + digits.length++] - '0');
    return digits;
}

bool isMarkOf(std::string_view text, std::size_t at, std::string_view marks)
{
    return at < text.size() && marks.find(text[at]) != std::string_view::npos;
}

/// "12-30-05", "123005", "1230" behind a day. 0: there is none.
std::size_t lengthOfTime(std::string_view text, std::size_t at)
{
    const Digits first = digitsAt(text, at);
    if ((first.length == 6 || first.length == 4) && first.value / (first.length == 6 ? 10000 : 100) < 24)
        return first.length;
    if (first.length != 2 || first.value > 23)
        return 0;
    std::size_t length = 2;
    for (int part = 0; part < 2 && isMarkOf(text, at + length, "-:.h"); ++part) {
        const Digits next = digitsAt(text, at + length + 1);
        if (next.length != 2 || next.value > 59)
            break;
        length += 3;
    }
    return length >= 5 ? length : 0;
}

/// "20260602", "2026-06-02", "02.06.2026", with a time behind it or not. 0: there is none.
std::size_t lengthOfDay(std::string_view text, std::size_t at)
{
    const auto isYear = [](int year) { return year >= 1990 && year <= 2099; };
    const auto isDay = [](int month, int day) { return month >= 1 && month <= 12 && day >= 1 && day <= 31; };
    const Digits first = digitsAt(text, at);
    std::size_t length = 0;
    if (first.length == 8 && isYear(first.value / 10000) && isDay(first.value / 100 % 100, first.value % 100))
        length = 8;
    else if ((first.length == 4 && isYear(first.value)) || (first.length <= 2 && first.length > 0)) {
        const Digits second = digitsAt(text, at + first.length + 1);
        const std::size_t third = at + first.length + 1 + second.length + 1;
        const Digits last = digitsAt(text, third);
        const bool areParted = isMarkOf(text, at + first.length, "-_.") && isMarkOf(text, third - 1, "-_.");
        const bool isWhole = first.length == 4
                                 ? last.length == 2 && isDay(second.value, last.value)
                                 : last.length == 4 && isYear(last.value) &&
                                       (isDay(second.value, first.value) || isDay(first.value, second.value));
        if (areParted && second.length > 0 && second.length <= 2 && isWhole)
            length = third + last.length - at;
    }
    if (length == 0)
        return 0;
    if (isMarkOf(text, at + length, "_T -")) {
        if (const std::size_t time = lengthOfTime(text, at + length + 1); time > 0)
            return length + 1 + time;
    }
    return length;
}

/// Words with digits in them that are one thing: polymers (PA12), planes of printing.
std::size_t lengthOfWordWithDigits(std::string_view text, std::size_t at)
{
    std::size_t end = at;
    while (end < text.size() && (isLetter(text[end]) || isDigit(text[end])))
        ++end;
    std::size_t letters = at;
    while (letters < end && isLetter(text[letters]))
        ++letters;
    // "PA12" and "PA6CF", but of "PLA3" only the letters name a polymer.
    for (std::size_t length = end - at; length > letters - at; --length) {
        const std::string_view word = text.substr(at, length);
        if (lowered(word).starts_with("pa") && word.size() <= 6 && polymerIn(word).isKnown)
            return length;
    }
    return 0;
}

class NameReader
{
public:
    explicit NameReader(std::string_view text) : m_text(text)
    {
        m_hyphenParts = text.find_first_of("_ ") == std::string_view::npos;
    }

    void read(std::vector<NamePart> &parts)
    {
        while (m_at < m_text.size()) {
            if (const std::size_t day = mayBegin() ? lengthOfDay(m_text, m_at) : 0; day > 0)
                take(parts, {std::string(m_text.substr(m_at, day)), {}, {}, {}, true}, day);
            else if (beginsNumber())
                takeNumber(parts, {});
            else if (isLetter(m_text[m_at]))
                takeWord(parts);
            else
                ++m_at;
        }
    }

private:
    void take(std::vector<NamePart> &parts, NamePart part, std::size_t length)
    {
        parts.push_back(std::move(part));
        m_at += length;
    }
    [[nodiscard]] bool mayBegin() const
    {
        return isDigit(m_text[m_at]) && (m_at == 0 || !isDigit(m_text[m_at - 1]));
    }
    [[nodiscard]] bool beginsNumber() const
    {
        if (isDigit(m_text[m_at]))
            return true;
        const bool isSign = m_text[m_at] == '-' && m_at + 1 < m_text.size() && isDigit(m_text[m_at + 1]);
        // "cold_-20C" is below zero; of "run-2" the hyphen only parts.
        return isSign && m_at > 0 && (m_text[m_at - 1] == '_' || m_text[m_at - 1] == ' ');
    }

    /// word: what stood before it. begin: where that began.
    void takeNumber(std::vector<NamePart> &parts, std::string word, std::optional<std::size_t> begin = {})
    {
        const std::size_t from = begin.value_or(m_at);
        std::string digits;
        if (m_text[m_at] == '-') {
            digits += '-';
            ++m_at;
        }
        bool hasMark = false;
        while (m_at < m_text.size()) {
            const bool isMark = !hasMark && (m_text[m_at] == '.' || m_text[m_at] == ',') &&
                                m_at + 1 < m_text.size() && isDigit(m_text[m_at + 1]);
            if (!isDigit(m_text[m_at]) && !isMark)
                break;
            digits += isMark ? '.' : m_text[m_at];
            hasMark = hasMark || isMark;
            ++m_at;
        }
        double number = 0.0;
        std::from_chars(digits.data(), digits.data() + digits.size(), number);
        NamePart part{{}, std::move(word), number, {}, false};
        takeUnit(part);
        part.text = std::string(m_text.substr(from, m_at - from));
        parts.push_back(std::move(part));
    }

    /// A unit that stands behind the number, also after a blank; nothing else follows it in its word.
    void takeUnit(NamePart &part)
    {
        std::size_t begin = m_at;
        if (begin + 1 < m_text.size() && m_text[begin] == ' ')
            ++begin;
        std::size_t end = begin;
        while (end < m_text.size() && (isLetter(m_text[end]) || m_text[end] == '%' || m_text[end] == '/'))
            ++end;
        const std::string_view text = m_text.substr(begin, end - begin);
        std::string_view unit = unitInName(text);
        // A single letter behind a blank is a name of its own, but for degrees: "240 C".
        if (begin > m_at && text.size() == 1 && text != "%" && text != "C")
            unit = {};
        // "3s" and "2n" may be anything; so may "1c" where capitals write the unit.
        if (begin == m_at && text.size() == 1 && isSmall(text.front()) && text != "c" && text != "h")
            unit = {};
        if (unit.empty() && begin == m_at && text.size() > 1 && text.starts_with("C") && isCapital(text[1]))
            return;
        if (unit.empty())
            return;
        part.unit = unit;
        m_at = end;
    }

    void takeWord(std::vector<NamePart> &parts)
    {
        const std::size_t from = m_at;
        if (const std::size_t length = lengthOfWordWithDigits(m_text, m_at); length > 0) {
            m_at += length;
            takeHyphenated(from);
            push(parts, from);
            return;
        }
        // "PETGflat": a polymer in capitals is a name of its own, whatever follows.
        std::size_t capitals = m_at;
        while (capitals < m_text.size() && isCapital(m_text[capitals]))
            ++capitals;
        const bool isPolymer = capitals - m_at > 2 && polymerIn(m_text.substr(m_at, capitals - m_at)).isKnown;
        if (isPolymer)
            m_at = capitals;
        while (!isPolymer && m_at < m_text.size() && isLetter(m_text[m_at])) {
            const bool isCamel = m_at > from && isCapital(m_text[m_at]) && isSmall(m_text[m_at - 1]);
            const bool endsCapitals = m_at > from + 1 && isCapital(m_text[m_at]) &&
                                      isCapital(m_text[m_at - 1]) && m_at + 1 < m_text.size() &&
                                      isSmall(m_text[m_at + 1]);
            // "PETGflat": a run of capitals is a name of its own.
            const bool beginsSmall = m_at > from + 2 && isSmall(m_text[m_at]) &&
                                     isCapital(m_text[m_at - 1]) && isCapital(m_text[m_at - 2]);
            if (isCamel || endsCapitals || beginsSmall)
                break;
            ++m_at;
        }
        takeHyphenated(from);
        const bool isBeforeNumber =
            m_at < m_text.size() && isDigit(m_text[m_at]) && lengthOfDay(m_text, m_at) == 0;
        if (isBeforeNumber)
            takeNumber(parts, lowered(m_text.substr(from, m_at - from)), from);
        else
            push(parts, from);
    }

    /// "petg-blk" is one word where underscores or blanks part the name.
    void takeHyphenated(std::size_t from)
    {
        while (!m_hyphenParts && m_at > from && m_at + 1 < m_text.size() && m_text[m_at] == '-' &&
               isLetter(m_text[m_at + 1])) {
            ++m_at;
            while (m_at < m_text.size() && isLetter(m_text[m_at]))
                ++m_at;
        }
    }

    void push(std::vector<NamePart> &parts, std::size_t from)
    {
        const std::string_view text = m_text.substr(from, m_at - from);
        parts.push_back({std::string(text), lowered(text), {}, {}, false});
    }

    std::string_view m_text;
    std::size_t m_at = 0;
    bool m_hyphenParts = false;
};

/// "run 2" and "run_2" say what "run2" says.
constexpr std::array<std::string_view, 26> kJoinedCounters = {
    "run",     "nr",    "no",    "num",        "number",     "sample",      "specimen",
    "spec",    "piece", "pc",    "test",       "probe",      "pruefling",   "prüfling",
    "versuch", "stück", "essai", "éprouvette", "eprouvette", "échantillon", "rep",
    "repeat",  "take",  "try",   "bar",        "teil"};

void joinCounters(std::vector<NamePart> &parts)
{
    for (std::size_t i = 0; i + 1 < parts.size(); ++i) {
        NamePart &word = parts[i];
        const NamePart &number = parts[i + 1];
        const bool isCounter =
            word.isWord() && number.number && number.word.empty() && number.unit.empty() &&
            std::find(kJoinedCounters.begin(), kJoinedCounters.end(), word.word) != kJoinedCounters.end();
        if (!isCounter)
            continue;
        word.number = number.number;
        word.text += " " + number.text;
        parts.erase(parts.begin() + static_cast<std::ptrdiff_t>(i) + 1);
    }
}

} // namespace

std::vector<NamePart> namePartsOf(std::string_view path)
{
    std::vector<NamePart> parts;
    std::size_t at = 0;
    while (at <= path.size()) {
        const std::size_t slash = std::min(path.find('/', at), path.size());
        std::string_view component = path.substr(at, slash - at);
        if (slash == path.size())
            component = withoutEnding(component);
        NameReader(component).read(parts);
        at = slash + 1;
    }
    joinCounters(parts);
    return parts;
}

std::string levelOfNumber(double number)
{
    return fmt::format("{}", number == 0.0 ? 0.0 : number);
}

} // namespace inchpeg
