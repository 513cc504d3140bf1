// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>

namespace inchpeg
{

/// "a force", "an area", "an oven".
inline std::string withArticle(std::string_view name)
{
    const bool isVowel =
        !name.empty() && std::string_view("aeiou").find(name.front()) != std::string_view::npos;
    return std::string(isVowel ? "an " : "a ").append(name);
}

} // namespace inchpeg
