// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <string_view>

namespace inchpeg
{

/// "A", "A and B", "A, B and C"; last: what stands before the last one.
std::string listText(std::span<const std::string> names, std::string_view last = " and ");

} // namespace inchpeg
