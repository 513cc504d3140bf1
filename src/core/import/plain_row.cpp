// SPDX-License-Identifier: GPL-3.0-or-later
// A number of up to 15 digits is a whole number below 2^53 over a power of ten up to 10^22; both are exact
// doubles, so that one division rounds correctly (W. D. Clinger 1990, How to read floating point numbers
// accurately).
//
// Up to eight digits are read at once, as the bytes of one word: digits are told from other characters by
// adding 0x76 to each byte, and summed up in pairs, fours and eights (common practice among number parsers).
#include "core/import/plain_row.h"

#include "core/units/number.h"

#include <array>
#include <bit>
#include <cstdint>
#include <cstring>

namespace inchpeg
{

namespace
{

constexpr int kTextNotWanted = -1;
constexpr int kNumberNotWanted = -2;

constexpr std::ptrdiff_t kExactDigits = 15;
constexpr std::array<double, kExactDigits + 1> kPowersOfTen = {1e0, 1e1, 1e2,  1e3,  1e4,  1e5,  1e6,  1e7,
                                                               1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15};

constexpr std::array<std::uint64_t, 8> kWholePowers = {1, 10, 100, 1000, 10000, 100000, 1000000, 10000000};

const char *takeDigits(const char *at, const char *end, std::uint64_t &mantissa)
{
    while (at != end && isDigit(*at))
        mantissa = mantissa * 10 + static_cast<std::uint64_t>(*at++ - '0');
    return at;
}

constexpr std::ptrdiff_t kWord = sizeof(std::uint64_t);
constexpr int kBitsOfByte = 8;
static_assert(std::endian::native == std::endian::little, "the first character is the lowest byte");

/// The digits that a text starts with, eight at most.
struct Digits {
    std::uint64_t value = 0;
    std::ptrdiff_t count = 0;
};

/// at: at least eight characters of the text are there. Inlined: it is called for every number of a file.
[[gnu::always_inline]] inline Digits leadingDigits(const char *at)
{
    std::uint64_t word = 0;
    std::memcpy(&word, at, sizeof word);
    word ^= 0x3030303030303030U; // a digit is now 0 to 9
    const std::uint64_t others =
        (((word & 0x7F7F7F7F7F7F7F7FU) + 0x7676767676767676U) | word) & 0x8080808080808080U;
    const int count = others == 0 ? static_cast<int>(kWord) : std::countr_zero(others) / kBitsOfByte;
    if (count == 0)
        return {};
    word <<= kBitsOfByte * (static_cast<int>(kWord) - count); // zeros in front
    word = word * 10 + (word >> 8U);
    const std::uint64_t value = ((word & 0x000000FF000000FFU) * 0x000F424000000064U +
                                 ((word >> 16U) & 0x000000FF000000FFU) * 0x0000271000000001U) >>
                                32U;
    return {value, count};
}

/// A number of fewer than eight digits on each side of the mark; at: enough characters are there.
[[gnu::always_inline]] inline bool readShortCell(const char *&at, char decimal, double &value)
{
    const bool negative = *at == '-';
    const char *first = at + (negative ? 1 : 0);
    const Digits whole = leadingDigits(first);
    const char *last = first + whole.count;
    Digits fraction;
    if (*last == decimal) {
        fraction = leadingDigits(last + 1);
        last += 1 + fraction.count;
    }
    if (whole.count == kWord || fraction.count == kWord || whole.count + fraction.count == 0)
        return false;
    const auto decimals = static_cast<std::size_t>(fraction.count);
    const double magnitude = static_cast<double>(static_cast<std::int64_t>(
                                 whole.value * kWholePowers[decimals] + fraction.value)) /
                             kPowersOfTen[decimals];
    value = negative ? -magnitude : magnitude;
    at = last;
    return true;
}

} // namespace

PlainRowReader::PlainRowReader(const Layout &layout, std::span<const std::size_t> wanted)
    : m_delimiter(layout.delimiter), m_decimal(layout.numbers.decimal),
      m_trailingDelimiter(layout.trailingDelimiter && layout.delimiter != ' ')
{
    for (const Column &column : layout.columns)
        m_slotOfColumn.push_back(column.isNumeric ? kNumberNotWanted : kTextNotWanted);
    for (std::size_t slot = 0; slot < wanted.size(); ++slot) {
        require(wanted[slot] < m_slotOfColumn.size(), "PlainRowReader: no such column");
        m_slotOfColumn[wanted[slot]] = static_cast<int>(slot);
    }
}

const char *PlainRowReader::skipBlanks(const char *at, const char *end) const
{
    while (at != end && (*at == ' ' || (*at == '\t' && m_delimiter != '\t')))
        ++at;
    return at;
}

[[gnu::always_inline]] inline bool PlainRowReader::readCell(const char *&at, const char *end,
                                                            double &value) const
{
    return (end - at > 3 * kWord && readShortCell(at, m_decimal, value)) || readLongCell(at, end, value);
}

bool PlainRowReader::readLongCell(const char *&at, const char *end, double &value) const
{
    const bool negative = at != end && *at == '-';
    const char *first = at + (negative ? 1 : 0);
    std::uint64_t mantissa = 0;
    const char *last = takeDigits(first, end, mantissa);
    std::ptrdiff_t digits = last - first;
    std::ptrdiff_t decimals = 0;
    if (last != end && *last == m_decimal) {
        const char *fraction = last + 1;
        last = takeDigits(fraction, end, mantissa);
        decimals = last - fraction;
        digits += decimals;
    }
    if (digits == 0 || digits > kExactDigits)
        return false;
    const double magnitude = static_cast<double>(mantissa) / kPowersOfTen[static_cast<std::size_t>(decimals)];
    value = negative ? -magnitude : magnitude;
    at = last;
    return true;
}

bool PlainRowReader::read(const char *&at, const char *end, std::span<double> row) const
{
    const char *here = at;
    const std::size_t count = m_slotOfColumn.size();
    for (std::size_t column = 0; column < count; ++column) {
        if (here != end && *here <= ' ')
            here = skipBlanks(here, end);
        if (m_slotOfColumn[column] >= 0) {
            if (!readCell(here, end, row[static_cast<std::size_t>(m_slotOfColumn[column])]))
                return false;
        } else {
            const char *start = here;
            double unused = 0.0;
            if (m_slotOfColumn[column] == kNumberNotWanted && !readCell(here, end, unused))
                return false;
            while (here != end && *here != m_delimiter && *here != '\n' && *here != '\r' && *here != '"')
                ++here;
            if ((here == start && m_delimiter == ' ') || (here != end && *here == '"'))
                return false;
        }
        if (column + 1 < count && here != end && *here == m_delimiter && m_delimiter != ' ') {
            ++here;
            continue;
        }
        const bool blankFollows = here != end && (*here == ' ' || *here == '\t');
        here = skipBlanks(here, end);
        if (column + 1 == count)
            break;
        if (m_delimiter == ' ' ? !blankFollows : (here == end || *here != m_delimiter))
            return false;
        if (m_delimiter != ' ')
            ++here;
    }
    if (m_trailingDelimiter && here != end && *here == m_delimiter)
        ++here;
    if (here != end) {
        if (*here == '\r')
            here += here + 1 != end && here[1] == '\n' ? 2 : 1;
        else if (*here == '\n')
            ++here;
        else
            return false;
    }
    at = here;
    return true;
}

} // namespace inchpeg
