// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cctype>
#include <string>
#include <string_view>

namespace inchpeg
{

/// The text with A to Z as small letters, for comparing without regard to case; other letters stay as they
/// are.
inline std::string smallLetters(std::string_view text)
{
    std::string small(text);
    std::transform(small.begin(), small.end(), small.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return small;
}

/// The text with its first letter large, where it is one of a to z: "Layer adhesion".
inline std::string capitalised(std::string_view text)
{
    std::string large(text);
    if (!large.empty() && large.front() >= 'a' && large.front() <= 'z')
        large.front() = static_cast<char>(large.front() - 'a' + 'A');
    return large;
}

/// Whether a byte of UTF-8 begins a letter: its further bytes are 10xxxxxx.
inline bool beginsLetter(char byte)
{
    return (static_cast<unsigned char>(byte) & 0xC0U) != 0x80U;
}

inline std::size_t letterCount(std::string_view text)
{
    return static_cast<std::size_t>(std::count_if(text.begin(), text.end(), beginsLetter));
}

/// At most so many letters from the start of a text, none of them cut.
inline std::string firstLetters(std::string_view text, std::size_t letters)
{
    std::size_t end = 0;
    for (std::size_t seen = 0; end < text.size(); ++end) {
        if (beginsLetter(text[end]) && ++seen > letters)
            break;
    }
    return std::string(text.substr(0, end));
}

} // namespace inchpeg
