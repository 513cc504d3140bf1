// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/gauge_line.h"

#include "core/units/number.h"

#include <fmt/format.h>

#include <cctype>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLongestLine = 200; ///< more without a line end is noise, not a reading

/// A word such as "+0004.02", "4,02mm" or "12.34".
bool beginsNumber(std::string_view word)
{
    if (!word.empty() && (word[0] == '+' || word[0] == '-'))
        word.remove_prefix(1);
    return !word.empty() &&
           (isDigit(word[0]) || (word.size() > 1 && (word[0] == '.' || word[0] == ',') && isDigit(word[1])));
}

std::vector<std::string_view> wordsOf(std::string_view line)
{
    std::vector<std::string_view> words;
    while (true) {
        const auto first = line.find_first_not_of(" \t:=");
        if (first == std::string_view::npos)
            return words;
        line.remove_prefix(first);
        const auto end = line.find_first_of(" \t:=");
        words.push_back(line.substr(0, end));
        if (end == std::string_view::npos)
            return words;
        line.remove_prefix(end);
    }
}

} // namespace

Result<GaugeReading> parseGaugeLine(std::string_view line)
{
    const auto fault = [&](std::string_view why) {
        return badInput(fmt::format("the gauge sent \"{}\": {}", line, why));
    };
    GaugeReading reading;
    reading.text = std::string(line);
    bool found = false;
    const std::vector<std::string_view> words = wordsOf(line);
    for (std::size_t i = 0; i < words.size(); ++i) {
        const std::string_view word = words[i];
        if (word.starts_with("ERR") || word.starts_with("err"))
            return fault("it reports a fault; look at the gauge and press its button again");
        if (!beginsNumber(word))
            continue;
        if (found)
            return fault("two numbers in one line; one reading a line is wanted");
        const std::size_t length = numberPrefixLength(word);
        const std::optional<double> number =
            parseTypedNumber(word.substr(word[0] == '+' ? 1 : 0, length - (word[0] == '+' ? 1 : 0)));
        if (!number)
            return fault("its number is not readable");
        std::string_view unitText = word.substr(length);
        if (unitText.empty() && i + 1 < words.size())
            unitText = words[i + 1];
        reading.value = *number;
        if (const std::optional<Unit> unit = findUnit(unitText); unit && !unitText.empty()) {
            reading.value = unit->toWorking(*number);
            reading.dimension = unit->dimension;
        }
        found = true;
    }
    if (!found)
        return fault("there is no number in it");
    return reading;
}

std::vector<std::string> GaugeLines::take(std::string_view bytes)
{
    std::vector<std::string> lines;
    for (const char c : bytes) {
        if (c == '\r' || c == '\n') {
            if (!m_pending.empty())
                lines.push_back(std::move(m_pending));
            m_pending.clear();
        } else if (m_pending.size() < kLongestLine) {
            m_pending += c;
        }
    }
    return lines;
}

} // namespace inchpeg
