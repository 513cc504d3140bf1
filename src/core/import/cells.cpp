// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/cells.h"

#include "core/import/text.h"
#include "core/units/number.h"

namespace inchpeg
{

namespace
{

/// The cell at the start of a line that begins with a quote; consumes it and its delimiter from rest.
/// False (and nothing consumed) when the quote is not closed before a delimiter or the line's end.
bool takeQuoted(std::string_view &rest, char delimiter, std::vector<std::string_view> &cells, bool &more)
{
    std::size_t close = 1;
    while ((close = rest.find('"', close)) != std::string_view::npos) {
        if (close + 1 < rest.size() && rest[close + 1] == '"') {
            close += 2;
            continue;
        }
        const std::string_view after = rest.substr(close + 1);
        const std::size_t next = after.find_first_not_of(delimiter == '\t' ? " " : " \t");
        if (next == std::string_view::npos) {
            cells.push_back(rest.substr(1, close - 1));
            rest = {};
            more = false;
            return true;
        }
        if (delimiter == ' ' ? next > 0 : after[next] == delimiter) {
            cells.push_back(rest.substr(1, close - 1));
            rest = after.substr(delimiter == ' ' ? next : next + 1);
            more = true;
            return true;
        }
        return false;
    }
    return false;
}

void splitAtBlanks(std::string_view line, std::vector<std::string_view> &cells)
{
    std::string_view rest = trimmed(line);
    while (!rest.empty()) {
        bool more = false;
        if (rest.front() == '"' && takeQuoted(rest, ' ', cells, more))
            continue;
        const std::size_t end = rest.find_first_of(" \t");
        cells.push_back(rest.substr(0, end));
        if (end == std::string_view::npos)
            return;
        rest.remove_prefix(end);
        rest.remove_prefix(rest.find_first_not_of(" \t"));
    }
}

/// Follows the quotes of a row, character by character.
class QuoteWatch
{
public:
    explicit QuoteWatch(char delimiter) : m_delimiter(delimiter) {}

    void pass(std::string_view text)
    {
        for (const char c : text) {
            if (m_isInside)
                m_isInside = c != '"'; // of a doubled quote the second one opens again
            else if (c == '"' && m_mayOpen)
                m_isInside = true;
            if (c == m_delimiter && !m_isInside)
                m_mayOpen = true;
            else if (c != ' ')
                m_mayOpen = c == '"' && !m_isInside;
        }
    }
    [[nodiscard]] bool isInside() const { return m_isInside; }

private:
    char m_delimiter;
    bool m_isInside = false;
    bool m_mayOpen = true; ///< at the start of a cell, or behind a quote that may turn out doubled
};

constexpr int kMostLinesOfCell = 1000;

} // namespace

void splitCells(std::string_view line, char delimiter, std::vector<std::string_view> &cells)
{
    cells.clear();
    if (delimiter == ' ') {
        splitAtBlanks(line, cells);
        return;
    }
    std::string_view rest = line;
    for (bool more = true; more;) {
        const std::size_t firstText = rest.find_first_not_of(' ');
        if (firstText != std::string_view::npos && rest[firstText] == '"') {
            std::string_view quoted = rest.substr(firstText);
            if (takeQuoted(quoted, delimiter, cells, more)) {
                rest = quoted;
                continue;
            }
        }
        const std::size_t end = delimiter == kNoDelimiter ? std::string_view::npos : rest.find(delimiter);
        cells.push_back(trimmed(rest.substr(0, end)));
        more = end != std::string_view::npos;
        if (more)
            rest.remove_prefix(end + 1);
    }
}

std::string unquoted(std::string_view cell)
{
    std::string out;
    out.reserve(cell.size());
    for (std::size_t i = 0; i < cell.size(); ++i) {
        out.push_back(cell[i]);
        if (cell[i] == '"' && i + 1 < cell.size() && cell[i + 1] == '"')
            ++i;
    }
    return out;
}

char delimiterOf(std::string_view heading)
{
    for (const char candidate : {'\t', ';', ','}) {
        if (heading.find(candidate) != std::string_view::npos)
            return candidate;
    }
    return kNoDelimiter;
}

std::string_view takeRecord(std::string_view &text, char delimiter)
{
    const char *start = text.data();
    const std::string_view first = takeLine(text);
    std::string_view rest = text;
    std::string_view line = first;
    QuoteWatch watch(delimiter);
    watch.pass(line);
    for (int lines = 1; watch.isInside(); ++lines) {
        if (rest.empty() || lines == kMostLinesOfCell)
            return first; // the quote stands for itself
        line = takeLine(rest);
        watch.pass(line);
    }
    text = rest;
    return {start, static_cast<std::size_t>(line.data() + line.size() - start)};
}

std::string cellText(std::string_view cell)
{
    const std::string text = unquoted(cell);
    const std::string_view plain = trimmed(text);
    const bool isGuarded = plain.size() > 1 && plain[0] == '\'' &&
                           std::string_view("=+-@\t\r\n").find(plain[1]) != std::string_view::npos;
    return std::string(isGuarded ? plain.substr(1) : plain);
}

} // namespace inchpeg
