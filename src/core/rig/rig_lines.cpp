// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/rig_lines.h"

#include "core/units/number.h"

#include <algorithm>
#include <cctype>
#include <charconv>

namespace inchpeg
{

namespace
{

constexpr std::size_t kShownDamage = 80;

/// Cells between delimiters; blanks in a row are one.
std::vector<std::string_view> cellsOf(std::string_view line, char delimiter)
{
    std::vector<std::string_view> cells;
    while (true) {
        const std::size_t end = line.find(delimiter);
        cells.push_back(trimmed(line.substr(0, end)));
        if (end == std::string_view::npos)
            return cells;
        line.remove_prefix(end + 1);
        if (delimiter == ' ')
            line = trimmed(line);
    }
}

char rowDelimiter(std::string_view line)
{
    for (const char delimiter : {';', '\t', ','}) {
        if (line.find(delimiter) != std::string_view::npos)
            return delimiter;
    }
    return line.find(' ') != std::string_view::npos ? ' ' : ';';
}

/// With a decimal point; a comma too where it parts no cells.
std::optional<double> numberOf(std::string_view cell, char delimiter)
{
    std::string text(cell);
    if (delimiter != ',')
        std::replace(text.begin(), text.end(), ',', '.');
    const char *begin = text.data() + (text.starts_with('+') ? 1 : 0);
    const char *end = text.data() + text.size();
    double number = 0.0;
    const auto [stop, error] = std::from_chars(begin, end, number);
    const bool isWhole = error == std::errc() && stop == end && begin != end;
    return isWhole && number - number == 0.0 ? std::optional(number) : std::nullopt;
}

/// Takes "*5A" off the end of a line. False where the sum is wrong.
bool takeCheckSum(std::string_view &line)
{
    constexpr std::size_t kSumLength = 3;
    if (line.size() < kSumLength || line[line.size() - kSumLength] != '*')
        return true;
    const std::string_view digits = line.substr(line.size() - 2);
    unsigned wanted = 0;
    const auto [stop, error] = std::from_chars(digits.data(), digits.data() + digits.size(), wanted, 16);
    if (error != std::errc() || stop != digits.data() + digits.size())
        return true; // a star that is part of a text
    line.remove_suffix(kSumLength);
    unsigned sum = 0;
    for (const char c : line)
        sum ^= static_cast<unsigned char>(c);
    return sum == wanted;
}

/// A heading names each column, and at least one of them by a known quantity and unit; a row that was garbled
/// is none.
std::optional<std::vector<Column>> headingOf(const std::vector<std::string_view> &cells)
{
    std::vector<Column> columns;
    bool anyKnown = false;
    for (const std::string_view cell : cells) {
        const bool isName = !cell.empty() && std::isalpha(static_cast<unsigned char>(cell.front())) != 0;
        const bool isClosed =
            std::count(cell.begin(), cell.end(), '[') == std::count(cell.begin(), cell.end(), ']');
        if (!isName || !isClosed)
            return std::nullopt;
        columns.push_back(understandColumn(cell, {}));
        if (!columns.back().unknownUnitText.empty())
            return std::nullopt;
        const bool isReading = columns.back().quantity && columns.back().quantity != ColumnQuantity::Time;
        anyKnown = anyKnown || (isReading && !columns.back().unitAssumed);
    }
    return anyKnown ? std::optional(std::move(columns)) : std::nullopt;
}

RigDamage damaged(std::string_view line)
{
    return {std::string(line.substr(0, kShownDamage))};
}

} // namespace

RigLines::RigLines(const RigDefault &usual)
{
    Column column;
    column.name = quantityName(usual.quantity);
    column.quantity = usual.quantity;
    column.unit = usual.unit;
    m_columns.push_back(std::move(column));
}

std::vector<RigLine> RigLines::take(std::string_view bytes)
{
    std::vector<RigLine> lines;
    const auto add = [&](std::optional<RigLine> line) {
        if (line)
            lines.push_back(std::move(*line));
    };
    for (const char c : bytes) {
        const bool endedByReturn = m_endedByReturn;
        m_endedByReturn = c == '\r';
        if (c == '\n' && endedByReturn)
            continue;
        if (c != '\n' && c != '\r') {
            if (m_pending.size() < kLongestRigLine) {
                m_pending += c;
            } else if (!m_isTooLong) {
                m_isTooLong = true;
                add(damaged(m_pending)); // at once: its end may never come
            }
            continue;
        }
        if (!m_isTooLong && !isEcho(m_pending))
            add(read(m_pending));
        forget();
    }
    return lines;
}

void RigLines::forget()
{
    m_pending.clear();
    m_isTooLong = false;
}

void RigLines::expectEcho(const std::string &command)
{
    constexpr std::size_t kMost = 16;
    m_sent.push_back(command);
    if (m_sent.size() > kMost)
        m_sent.pop_front();
}

bool RigLines::isEcho(std::string_view line)
{
    const auto found = std::find(m_sent.begin(), m_sent.end(), trimmed(line));
    if (found == m_sent.end())
        return false;
    m_sent.erase(found);
    return true;
}

std::optional<RigLine> RigLines::read(std::string_view line)
{
    const std::string_view whole = line;
    if (trimmed(line).empty())
        return std::nullopt;
    if (!takeCheckSum(line))
        return damaged(whole);
    line = trimmed(line);
    if (line.empty())
        return std::nullopt;
    const std::string rest(trimmed(line.substr(1)));
    switch (line.front()) {
    case '#':
        return RigFact{rest};
    case '!':
        return RigFault{rest == "clear" ? std::string() : rest.empty() ? "fault" : rest};
    case '=':
        return RigAnswer{rest == "ok",
                         rest.starts_with("error") ? std::string(trimmed(rest.substr(5))) : rest};
    default:
        return readCells(line);
    }
}

std::optional<RigLine> RigLines::readCells(std::string_view line)
{
    const char delimiter = rowDelimiter(line);
    if (auto heading = headingOf(cellsOf(line, delimiter))) {
        m_columns = std::move(*heading);
        m_delimiter = delimiter;
        m_hasHeading = true;
        return RigHeading{m_columns};
    }
    // A single column may use a decimal comma; several keep to the delimiter of their heading.
    const bool isSingle = m_columns.size() == 1 && numberOf(line, ';');
    const std::vector<std::string_view> cells = isSingle       ? std::vector{line}
                                                : m_hasHeading ? cellsOf(line, m_delimiter)
                                                               : cellsOf(line, delimiter);
    if (cells.size() != m_columns.size()) {
        RigDamage damage = damaged(line);
        damage.isBeforeHeading =
            !m_hasHeading && std::all_of(cells.begin(), cells.end(), [&](std::string_view cell) {
                return cell.empty() || numberOf(cell, delimiter);
            });
        return damage;
    }
    RigRow row;
    for (const std::string_view cell : cells) {
        row.values.push_back(numberOf(cell, isSingle ? ';' : m_delimiter));
        if (!row.values.back() && !cell.empty())
            return damaged(line);
    }
    return row;
}

} // namespace inchpeg
