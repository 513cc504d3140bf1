// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/intake/property_words.h"

#include "core/intake/result_headings.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

struct PropertyWordsEntry {
    std::string_view property;
    std::string_view names; ///< parted by "; "
};
constexpr PropertyWordsEntry kPropertyWords[] = {
#define INCHPEG_WORDS(property, names) {property, names},
#include "core/intake/property_words.def"
#undef INCHPEG_WORDS
};

/// What a word that any test may use means in a test that has no such property under its usual name.
constexpr std::array<std::string_view, 5> kStrengths = {
    "tensile_strength", "flexural_strength", "compressive_strength", "shear_strength", "impact_strength"};
constexpr std::array<std::string_view, 3> kModuli = {"tensile_modulus", "flexural_modulus",
                                                     "compressive_modulus"};
constexpr std::array<std::string_view, 14> kGenericStrength = {"strength",       "festigkeit",
                                                               "max stress",     "maximum stress",
                                                               "peak stress",    "stress max",
                                                               "stress at max",  "ultimate strength",
                                                               "max spannung",   "maximale spannung",
                                                               "contrainte max", "contrainte maximale",
                                                               "sigma max",      "σmax"};
constexpr std::array<std::string_view, 10> kGenericModulus = {"modulus",         "e modulus",
                                                              "e modul",         "emodul",
                                                              "module",          "e",
                                                              "elastic modulus", "modulus of elasticity",
                                                              "young's modulus", "module d'élasticité"};

bool hasProperty(Method test, std::string_view property)
{
    const Reduction *reduction = reductionOf(test);
    return reduction != nullptr && findProperty(*reduction, property).has_value();
}

bool holdsPhrase(std::string_view words, std::string_view phrase)
{
    for (std::size_t at = words.find(phrase); at != std::string_view::npos; at = words.find(phrase, at + 1)) {
        const bool begins = at == 0 || words[at - 1] == ' ';
        const bool ends = at + phrase.size() == words.size() || words[at + phrase.size()] == ' ';
        if (begins && ends)
            return true;
    }
    return false;
}

bool isOneOfPhrases(std::span<const std::string_view> phrases, std::string_view phrase)
{
    return std::find(phrases.begin(), phrases.end(), phrase) != phrases.end();
}

} // namespace

std::vector<Method> testsWith(std::string_view property, std::span<const Method> among)
{
    std::vector<Method> tests;
    for (const Method test : among) {
        if (hasProperty(test, property))
            tests.push_back(test);
    }
    return tests;
}

bool isOfAnother(std::string_view words)
{
    for (const std::string_view word :
         {"sd", "std", "stdev", "deviation", "cv", "error", "uncertainty", "n", "count", "rank", "rate",
          "ratio of", "expected", "limit", "nominal"}) {
        if (holdsPhrase(words, word))
            return true;
    }
    return false;
}

std::vector<PhraseFound> phrasesIn(std::string_view words)
{
    constexpr std::size_t kShortPhrase = 3; // letters that stand in other words too
    std::vector<PhraseFound> found;
    for (const PropertyWordsEntry &entry : kPropertyWords) {
        for (std::size_t at = 0; at < entry.names.size();) {
            const std::size_t end = std::min(entry.names.find("; ", at), entry.names.size());
            const std::string_view phrase = entry.names.substr(at, end - at);
            const bool isWhole = words == phrase;
            if (isWhole || (phrase.size() > kShortPhrase && holdsPhrase(words, phrase)))
                found.push_back({entry.property, phrase, isWhole});
            at = end + 2;
        }
    }
    std::stable_sort(found.begin(), found.end(), [](const PhraseFound &a, const PhraseFound &b) {
        return a.isWhole != b.isWhole ? a.isWhole : a.phrase.size() > b.phrase.size();
    });
    return found;
}

std::vector<Method> allTests()
{
    std::vector<Method> tests;
    for (const MethodFacts &facts : allMethods())
        tests.push_back(facts.method);
    return tests;
}

std::optional<PropertyMeant> propertyInWords(std::string_view words, std::span<const Method> among)
{
    for (const Method test : among) {
        const Reduction *reduction = reductionOf(test);
        if (reduction == nullptr)
            continue;
        for (const Property &property : reduction->properties) {
            const bool isShort = property.name.size() <= 2; // "n", "sd": of a sample
            if (!isShort && (wordsOf(property.name) == words || wordsOf(property.label) == words))
                return PropertyMeant{std::string(property.name), testsWith(property.name, among)};
        }
    }
    for (const PhraseFound &found : phrasesIn(words)) {
        if (std::vector<Method> tests = testsWith(found.property, among); !tests.empty())
            return PropertyMeant{std::string(found.property), std::move(tests)};
        const std::span<const std::string_view> others =
            isOneOfPhrases(kGenericStrength, found.phrase)  ? std::span<const std::string_view>(kStrengths)
            : isOneOfPhrases(kGenericModulus, found.phrase) ? std::span<const std::string_view>(kModuli)
                                                            : std::span<const std::string_view>();
        for (const std::string_view other : others) {
            if (std::vector<Method> tests = testsWith(other, among); !tests.empty())
                return PropertyMeant{std::string(other), std::move(tests)};
        }
    }
    return std::nullopt;
}

} // namespace inchpeg
