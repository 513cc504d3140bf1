// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/list_text.h"

namespace inchpeg
{

std::string listText(std::span<const std::string> names, std::string_view last)
{
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (i > 0)
            text += i + 1 == names.size() ? last : std::string_view(", ");
        text += names[i];
    }
    return text;
}

} // namespace inchpeg
