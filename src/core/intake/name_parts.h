// SPDX-License-Identifier: GPL-3.0-or-later
// What people write into the names of files: "230C_1.csv", "PETG flat 03.txt", "A/240/run2.csv".
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A part of a name: a word, a number with what stands around it, or a day or time.
struct NamePart {
    std::string text;             ///< as it is written
    std::string word;             ///< in small letters: the whole part, or what stands before its number
    std::optional<double> number; ///< "230" of "230C", "2" of "run2"
    std::string unit;             ///< behind the number, as the program writes it: "°C", "mm", "%"
    bool isMoment = false;        ///< a day or a time of day

    [[nodiscard]] bool isWord() const { return !number && !isMoment; }
    bool operator==(const NamePart &) const = default;
};

/// The parts of a path below the folder that was given: folders first, the ending of the file left out.
/// Underscores, blanks, brackets, changes between letters and digits, and capitals inside a word part them; a
/// hyphen between letters does where nothing else parts the name. A number may have a decimal point or comma,
/// a sign, and a unit behind it, also after a blank.
std::vector<NamePart> namePartsOf(std::string_view path);

/// A number of a name or a cell as it is kept as a level: "0.2" for 0.20, "230" for 0230.
std::string levelOfNumber(double number);

} // namespace inchpeg
