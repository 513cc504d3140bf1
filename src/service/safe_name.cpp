// SPDX-License-Identifier: GPL-3.0-or-later
#include "service/safe_name.h"

#include "core/text/letters.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstdint>

namespace inchpeg
{

namespace
{

constexpr std::size_t kLongestName = 80;
constexpr std::string_view kRefused = "/\\:*?\"<>|";
constexpr std::string_view kFormulaStarts = "=+-@\t\r\n";

/// Bytes of the UTF-8 character that starts with this byte; 1 for a byte that starts none.
std::size_t lengthOfCharacter(unsigned char first)
{
    return first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : first >= 0xC0 ? 2 : 1;
}

std::uint32_t codePoint(std::string_view character)
{
    if (character.size() == 1)
        return static_cast<unsigned char>(character[0]);
    std::uint32_t code = static_cast<unsigned char>(character[0]) & (0xFFU >> (character.size() + 1));
    for (const char c : character.substr(1))
        code = code << 6U | (static_cast<unsigned char>(c) & 0x3FU);
    return code;
}

/// Marks that have no shape, or turn the direction of what follows, so that "gpj.exe" reads as something
/// else.
bool isInvisible(std::uint32_t code)
{
    return code < 0x20 || (code >= 0x7F && code < 0xA0) || (code >= 0x200B && code <= 0x200F) ||
           (code >= 0x2028 && code <= 0x202E) || (code >= 0x2060 && code <= 0x206F) || code == 0xFEFF;
}

} // namespace

std::string safeFileName(std::string_view text)
{
    std::string name;
    for (std::size_t i = 0; i < text.size();) {
        const std::size_t length =
            std::min(lengthOfCharacter(static_cast<unsigned char>(text[i])), text.size() - i);
        const std::string_view character = text.substr(i, length);
        i += length;
        const std::uint32_t code = codePoint(character);
        if (name.size() + length > kLongestName)
            break;
        if (isInvisible(code) || (length == 1 && kRefused.find(character[0]) != std::string_view::npos))
            name += '_';
        else
            name += character;
    }
    while (!name.empty() && (name.front() == '.' || name.front() == ' '))
        name.erase(name.begin());
    while (!name.empty() && (name.back() == '.' || name.back() == ' '))
        name.pop_back();
    return name.empty() ? "unnamed" : name;
}

std::string csvText(std::string_view text)
{
    std::string cell;
    if (!text.empty() && kFormulaStarts.find(text.front()) != std::string_view::npos)
        cell = "'";
    cell += text;
    if (cell.find_first_of(",;\"\t\r\n") == std::string::npos)
        return cell;
    std::string quoted = "\"";
    for (const char c : cell) {
        if (c == '"')
            quoted += '"';
        quoted += c;
    }
    return quoted + "\"";
}

std::string NameSource::nameFor(std::string_view text, const std::string &ending)
{
    const std::string stem = safeFileName(text);
    std::string name = stem + ending;
    for (int i = 2; !m_taken.insert(smallLetters(name)).second; ++i)
        name = fmt::format("{} ({}){}", stem, i, ending);
    return name;
}

} // namespace inchpeg
