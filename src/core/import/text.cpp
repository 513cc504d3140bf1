// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/import/text.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <cstdint>
#include <cstring>
#include <utility>

namespace inchpeg
{

namespace
{

constexpr std::size_t kProbeBytes = 4096;
/// How much of a text is looked through for control characters.
constexpr std::size_t kControlProbeBytes = 1 << 20;
constexpr std::uint64_t kHighBits = 0x8080808080808080U;

unsigned char byteAt(std::string_view bytes, std::size_t i)
{
    return static_cast<unsigned char>(bytes[i]);
}

void appendUtf8(std::string &out, char32_t codePoint)
{
    const auto put = [&out](char32_t bits) {
        out.push_back(static_cast<char>(static_cast<unsigned char>(bits)));
    };
    if (codePoint < 0x80) {
        put(codePoint);
    } else if (codePoint < 0x800) {
        put(0xC0 | (codePoint >> 6));
        put(0x80 | (codePoint & 0x3F));
    } else if (codePoint < 0x10000) {
        put(0xE0 | (codePoint >> 12));
        put(0x80 | ((codePoint >> 6) & 0x3F));
        put(0x80 | (codePoint & 0x3F));
    } else {
        put(0xF0 | (codePoint >> 18));
        put(0x80 | ((codePoint >> 12) & 0x3F));
        put(0x80 | ((codePoint >> 6) & 0x3F));
        put(0x80 | (codePoint & 0x3F));
    }
}

std::string fromUtf16(std::string_view bytes, bool littleEndian)
{
    std::string out;
    out.reserve(bytes.size() / 2);
    char32_t high = 0;
    for (std::size_t i = 0; i + 1 < bytes.size(); i += 2) {
        const char32_t first = byteAt(bytes, i);
        const char32_t second = byteAt(bytes, i + 1);
        const char32_t unit = littleEndian ? (second << 8 | first) : (first << 8 | second);
        if (unit >= 0xD800 && unit < 0xDC00) {
            high = unit;
        } else if (unit >= 0xDC00 && unit < 0xE000) {
            appendUtf8(out,
                       high != 0 ? 0x10000 + ((high - 0xD800) << 10) + (unit - 0xDC00) : char32_t{0xFFFD});
            high = 0;
        } else {
            appendUtf8(out, unit);
            high = 0;
        }
    }
    return out;
}

/// What Windows (code page 1252) has in Latin-1's second block of controls, which no text holds; 0 where
/// nothing.
constexpr std::array<char32_t, 32> kWindowsMarks = {
    0x20AC, 0,      0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021, 0x02C6, 0x2030, 0x0160,
    0x2039, 0x0152, 0,      0x017D, 0,      0,      0x2018, 0x2019, 0x201C, 0x201D, 0x2022,
    0x2013, 0x2014, 0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0,      0x017E, 0x0178};

std::string fromLatin1(std::string_view bytes)
{
    std::string out;
    out.reserve(bytes.size() + bytes.size() / 16);
    for (std::size_t i = 0; i < bytes.size(); ++i) {
        const unsigned char byte = byteAt(bytes, i);
        const bool isMark = byte >= 0x80 && byte < 0xA0 && kWindowsMarks[byte - 0x80U] != 0;
        appendUtf8(out, isMark ? kWindowsMarks[byte - 0x80U] : byte);
    }
    return out;
}

/// Bytes of the UTF-8 sequence that starts at i, 0 where it is not valid (a coarse check: overlong forms
/// pass).
std::size_t sequenceLength(std::string_view bytes, std::size_t i)
{
    const unsigned char first = byteAt(bytes, i);
    const std::size_t length = first < 0x80   ? 1
                               : first < 0xC2 ? 0
                               : first < 0xE0 ? 2
                               : first < 0xF0 ? 3
                               : first < 0xF5 ? 4
                                              : 0;
    if (length == 0 || i + length > bytes.size())
        return 0;
    for (std::size_t k = 1; k < length; ++k) {
        if ((byteAt(bytes, i + k) & 0xC0) != 0x80)
            return 0;
    }
    return length;
}

bool isValidUtf8(std::string_view bytes)
{
    for (std::size_t i = 0; i < bytes.size();) {
        std::array<std::uint64_t, 4> block{};
        if (i + sizeof block <= bytes.size()) {
            std::memcpy(block.data(), bytes.data() + i, sizeof block);
            if (((block[0] | block[1] | block[2] | block[3]) & kHighBits) == 0) { // ASCII throughout
                i += sizeof block;
                continue;
            }
        }
        const std::size_t length = sequenceLength(bytes, i);
        if (length == 0)
            return false;
        i += length;
    }
    return true;
}

struct ZeroBytes {
    std::size_t even = 0;
    std::size_t odd = 0;
};

ZeroBytes countZeroBytes(std::string_view probe)
{
    ZeroBytes zeros;
    for (std::size_t i = 0; i < probe.size(); ++i) {
        if (probe[i] == '\0')
            ++(i % 2 == 0 ? zeros.even : zeros.odd);
    }
    return zeros;
}

/// 1 for control characters that no text holds.
constexpr std::array<unsigned char, 256> kIsControl = [] {
    std::array<unsigned char, 256> table{};
    for (std::size_t c = 0; c < 0x20; ++c)
        table[c] = 1;
    for (char c : {'\t', '\n', '\r', '\f', '\x1A'})
        table[static_cast<unsigned char>(c)] = 0;
    table[0x7F] = 1;
    return table;
}();

/// Neither a byte beyond ASCII nor a zero byte; a long text is looked through in blocks.
bool isPlainAscii(std::string_view text, const TaskRunner &run)
{
    constexpr std::size_t kBlockBytes = std::size_t{1} << 20U;
    std::atomic<bool> plain = true;
    run((text.size() + kBlockBytes - 1) / kBlockBytes, [&](std::size_t b) {
        std::string_view block = text.substr(b * kBlockBytes, kBlockBytes);
        std::uint64_t odd = 0;
        for (; block.size() >= sizeof odd && odd == 0; block.remove_prefix(sizeof odd)) {
            std::uint64_t word = 0;
            std::memcpy(&word, block.data(), sizeof word);
            // The high bit of a byte that is beyond ASCII, and of one that is zero.
            odd = (word | ((word - 0x0101010101010101U) & ~word)) & kHighBits;
        }
        const bool rest = std::all_of(block.begin(), block.end(), [](char c) { return c > 0; });
        if (odd != 0 || !rest)
            plain = false;
    });
    return plain;
}

bool holdsControls(std::string_view text)
{
    const std::string_view start = text.substr(0, kControlProbeBytes);
    std::size_t controls = 0;
    for (char c : start)
        controls += kIsControl[static_cast<unsigned char>(c)];
    return controls * 200 > start.size();
}

bool looksBinary(std::string_view text)
{
    return text.find('\0') != std::string_view::npos || holdsControls(text);
}

/// Zero bytes behind the text, with which loggers fill up a file that they made beforehand.
std::string_view withoutFilling(std::string_view bytes)
{
    const std::size_t end = bytes.find_last_not_of('\0');
    const std::string_view text = bytes.substr(0, end == std::string_view::npos ? 0 : end + 1);
    const bool isWide = text.substr(0, kProbeBytes).find('\0') != std::string_view::npos; // UTF-16
    return isWide || text.empty() ? bytes : text;
}

constexpr std::string_view kPartsCells = ",;\t|";

/// Where the quoted cell that opens at a quote ends: behind its closing quote, where a cell may end. Nothing
/// where the quote opens no cell, or is never closed.
std::optional<std::size_t> endOfQuotedCell(std::string_view text, std::size_t open)
{
    const std::size_t before = open == 0 ? std::string_view::npos : text.find_last_not_of(' ', open - 1);
    const auto endsCell = [&](std::size_t at) {
        return at == std::string_view::npos || text[at] == '\n' || text[at] == '\r' ||
               kPartsCells.find(text[at]) != std::string_view::npos;
    };
    if (!endsCell(before))
        return std::nullopt;
    std::size_t close = text.find('"', open + 1);
    while (close != std::string_view::npos && close + 1 < text.size() && text[close + 1] == '"')
        close = text.find('"', close + 2);
    if (close == std::string_view::npos || !endsCell(text.find_first_not_of(' ', close + 1)))
        return std::nullopt;
    return close + 1;
}

/// The text with each line end inside a quoted cell made a blank, and as many blank lines behind its row, so
/// that lines keep their numbers. Nothing where there is none.
std::optional<std::string> withQuotedLinesJoined(std::string_view text)
{
    constexpr std::size_t kLongestCell = std::size_t{1} << 16U;
    std::string joined;
    std::size_t copied = 0;
    std::size_t taken = 0; ///< line ends that the row of the cell before has given away
    const auto copyTo = [&](std::size_t end) {
        if (const std::size_t rowEnd = text.find('\n', copied); taken > 0 && rowEnd < end) {
            joined += text.substr(copied, rowEnd + 1 - copied);
            joined.append(std::exchange(taken, 0), '\n');
            copied = rowEnd + 1;
        }
        joined += text.substr(copied, end - copied);
        copied = end;
    };
    for (std::size_t at = text.find('"'); at != std::string_view::npos;) {
        const std::optional<std::size_t> end = endOfQuotedCell(text, at);
        const std::string_view cell = end ? text.substr(at, *end - at) : std::string_view();
        if (cell.size() > kLongestCell || cell.find_first_of("\r\n") == std::string_view::npos) {
            at = text.find('"', end && cell.size() <= kLongestCell ? *end : at + 1);
            continue;
        }
        copyTo(at);
        for (std::size_t i = 0; i < cell.size(); ++i) {
            const bool isPair = cell[i] == '\r' && i + 1 < cell.size() && cell[i + 1] == '\n';
            if (isPair)
                continue; // its second half is the blank
            const bool isEnd = cell[i] == '\r' || cell[i] == '\n';
            joined += isEnd ? ' ' : cell[i];
            taken += isEnd ? 1U : 0U;
        }
        copied = *end;
        at = text.find('"', *end);
    }
    if (copied == 0)
        return std::nullopt;
    copyTo(text.size());
    return joined;
}

DecodedText convertedText(std::string text, Encoding encoding)
{
    auto owner = std::make_shared<const std::string>(std::move(text));
    const std::string_view view = *owner;
    return {view, encoding, std::move(owner)};
}

} // namespace

std::string_view encodingName(Encoding encoding)
{
    switch (encoding) {
    case Encoding::Utf8:
        return "utf-8";
    case Encoding::Utf16LittleEndian:
        return "utf-16le";
    case Encoding::Utf16BigEndian:
        return "utf-16be";
    case Encoding::Latin1:
        return "latin-1";
    case Encoding::Workbook:
        return "xlsx";
    case Encoding::OpenDocument:
        return "ods";
    }
    throw ContractViolation("unknown encoding");
}

Result<DecodedText> decodeText(std::string_view bytes, const TaskRunner &run)
{
    if (bytes.empty())
        return badInput("the file is empty; a table of numbers is wanted");
    if (isWorkbook(bytes)) {
        Result<WorkbookText> cells = workbookText(bytes);
        if (!cells)
            return cells.error();
        DecodedText decoded = convertedText(
            std::move(cells->utf8), cells->isOpenDocument ? Encoding::OpenDocument : Encoding::Workbook);
        decoded.sheets = std::move(cells->sheets);
        return decoded;
    }
    if (const std::optional<std::string> what = whatCannotBeRead(bytes))
        return badInput(*what);
    bytes = withoutFilling(bytes);
    DecodedText decoded;
    const bool isPlain = isPlainAscii(bytes, run); // by far the most usual
    const std::string_view probe = bytes.substr(0, kProbeBytes);
    const ZeroBytes zeros = countZeroBytes(probe);
    const std::size_t pairs = probe.size() / 2;
    if (isPlain) {
        decoded.utf8 = bytes;
    } else if (bytes.starts_with("\xEF\xBB\xBF")) {
        decoded.utf8 = bytes.substr(3);
        if (!isValidUtf8(decoded.utf8))
            return badInput(
                "the file says that it is UTF-8 but contains bytes that are not; save it as UTF-8 again");
    } else if (bytes.starts_with("\xFF\xFE")) {
        decoded = convertedText(fromUtf16(bytes.substr(2), true), Encoding::Utf16LittleEndian);
    } else if (bytes.starts_with("\xFE\xFF")) {
        decoded = convertedText(fromUtf16(bytes.substr(2), false), Encoding::Utf16BigEndian);
    } else if (pairs > 0 && zeros.odd * 10 > pairs * 7 && zeros.even * 10 < pairs) {
        decoded = convertedText(fromUtf16(bytes, true), Encoding::Utf16LittleEndian);
    } else if (pairs > 0 && zeros.even * 10 > pairs * 7 && zeros.odd * 10 < pairs) {
        decoded = convertedText(fromUtf16(bytes, false), Encoding::Utf16BigEndian);
    } else if (isValidUtf8(bytes)) {
        decoded.utf8 = bytes;
    } else {
        decoded = convertedText(fromLatin1(bytes), Encoding::Latin1);
    }
    if (isPlain ? holdsControls(bytes) : looksBinary(decoded.utf8))
        return badInput("the file is not text; export the readings as delimited text (CSV) first");
    if (trimmedIsEmpty(decoded.utf8))
        return badInput("the file holds only blank lines; a table of numbers is wanted");
    if (std::optional<std::string> joined = withQuotedLinesJoined(decoded.utf8))
        return convertedText(std::move(*joined), decoded.encoding);
    return decoded;
}

const SheetLines *sheetOf(const DecodedText &text, std::size_t line)
{
    const SheetLines *found = nullptr;
    for (const SheetLines &sheet : text.sheets) {
        if (sheet.firstLine <= line)
            found = &sheet;
    }
    return found;
}

Error inSheet(const DecodedText &text, Error error)
{
    const SheetLines *sheet = error.position ? sheetOf(text, error.position->line) : nullptr;
    if (sheet == nullptr || text.sheets.size() < 2)
        return error; // the lines of a first sheet are its rows
    error.position->line -= sheet->firstLine - 1;
    error.message = "sheet \"" + sheet->name + "\": " + error.message;
    return error;
}

bool trimmedIsEmpty(std::string_view text)
{
    return text.find_first_not_of(" \t\r\n\f\x1A") == std::string_view::npos;
}

std::string_view takeLine(std::string_view &text)
{
    require(!text.empty(), "takeLine() of an empty text");
    const std::size_t end = text.find_first_of("\r\n");
    if (end == std::string_view::npos) {
        const std::string_view line = text;
        text = {};
        return line;
    }
    const std::string_view line = text.substr(0, end);
    const bool pair = text[end] == '\r' && end + 1 < text.size() && text[end + 1] == '\n';
    text.remove_prefix(end + (pair ? 2 : 1));
    return line;
}

} // namespace inchpeg
