// SPDX-License-Identifier: GPL-3.0-or-later
// Which property of which test the words of a heading mean: core/intake/property_words.def.
#pragma once

#include "core/method/method.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// A property that words mean, and the tests among those asked for in which it is one.
struct PropertyMeant {
    std::string name;
    std::vector<Method> tests;
};
/// words: as wordsOf() gives them. Nothing where they mean no property of these tests.
std::optional<PropertyMeant> propertyInWords(std::string_view words, std::span<const Method> among);

/// A name of a property that words hold, the surest first: one that is all of them, then the longest.
struct PhraseFound {
    std::string_view property;
    std::string_view phrase;
    bool isWhole = false;
};

std::vector<PhraseFound> phrasesIn(std::string_view words);

/// Words that say what was done with a number rather than what it is: "sd", "error", "n".
bool isOfAnother(std::string_view words);

std::vector<Method> testsWith(std::string_view property, std::span<const Method> among);
std::vector<Method> allTests();

} // namespace inchpeg
