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

} // namespace inchpeg
