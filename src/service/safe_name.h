// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <set>
#include <string>
#include <string_view>

namespace inchpeg
{

/// A file name made of a text that anyone may have typed: no slash, no control or direction character, no
/// leading dot, none of the characters that other systems refuse, at most 80 bytes of whole UTF-8 characters;
/// "unnamed" where nothing is left. Two texts may give the same name.
std::string safeFileName(std::string_view text);

/// Gives each thing a file name of its own; two that would be the same (on any system) get numbers.
class NameSource
{
public:
    std::string nameFor(std::string_view text, const std::string &ending = {});

private:
    std::set<std::string> m_taken; ///< in small letters
};

/// A text as one cell of a comma-separated file. Quoted where it must be; a text that a spreadsheet would
/// take for a formula gets an apostrophe in front, as is common practice.
std::string csvText(std::string_view text);

} // namespace inchpeg
