// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// Stands for "the whole line is one cell".
inline constexpr char kNoDelimiter = '\0';

/// Splits a line into cells; cells is cleared first and keeps its storage between calls. A space as
/// delimiter means any run of spaces and tabs. Quotes around a cell are taken off; doubled quotes inside
/// stay doubled (unquoted() mends them), so that no text is copied.
void splitCells(std::string_view line, char delimiter, std::vector<std::string_view> &cells);

/// The cell's text with doubled quotes made single.
std::string unquoted(std::string_view cell);

} // namespace inchpeg
