// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/model/polymer.h"

#include "core/text/letters.h"

#include <algorithm>
#include <cctype>
#include <string>

namespace inchpeg
{

namespace
{

// Order: the more particular name before the one that it holds.
constexpr PolymerFacts kPolymers[] = {
    {"low-heat polyester", 1.24, 50.0, 3200.0, 0.65, 4.0, 50.0, 6.0, 16.0, false, false, false},
    {"glycol-modified polyester", 1.27, 45.0, 2000.0, 0.64, 6.0, 65.0, 6.0, 16.0, false, false, false},
    {"weather-proof styrenic", 1.07, 40.0, 2000.0, 0.55, 14.0, 80.0, 6.0, 16.0, false, true, false},
    {"styrenic", 1.04, 38.0, 2100.0, 0.52, 16.0, 80.0, 6.0, 16.0, false, true, false},
    {"carbonate blend", 1.19, 55.0, 2200.0, 0.60, 20.0, 90.0, 8.0, 40.0, false, true, false},
    {"polycarbonate", 1.20, 60.0, 2250.0, 0.58, 12.0, 90.0, 8.0, 40.0, false, true, false},
    {"filled polyamide", 1.25, 85.0, 5500.0, 0.45, 10.0, 85.0, 12.0, 88.0, true, true, true},
    {"polyamide", 1.12, 50.0, 1600.0, 0.60, 12.0, 85.0, 12.0, 88.0, true, true, false},
    {"polypropylene", 0.90, 25.0, 900.0, 0.65, 8.0, 65.0, 4.0, 16.0, false, false, false},
    {"flexible urethane", 1.21, 30.0, 60.0, 0.80, 0.0, 60.0, 6.0, 40.0, false, false, false},
    {"high-temperature polymer", 1.28, 75.0, 2900.0, 0.55, 8.0, 130.0, 8.0, 40.0, false, true, false},
    {"resin", 1.15, 50.0, 2500.0, 0.95, 2.0, 0.0, 0.0, 16.0, false, true, false},
};

/// The usual abbreviations: ISO 1043-1 (clause from memory), and those that the trade puts beside them.
struct Abbreviation {
    std::string_view letters; ///< in small letters, without marks
    std::string_view name;
};
constexpr Abbreviation kAbbreviations[] = {
    {"pla", "low-heat polyester"},
    {"petg", "glycol-modified polyester"},
    {"pctg", "glycol-modified polyester"},
    {"asa", "weather-proof styrenic"},
    {"abs", "styrenic"},
    {"hips", "styrenic"},
    {"pcabs", "carbonate blend"},
    {"pcpbt", "carbonate blend"},
    {"pc", "polycarbonate"},
    {"pacf", "filled polyamide"},
    {"pagf", "filled polyamide"},
    {"pahtcf", "filled polyamide"},
    {"pa6cf", "filled polyamide"},
    {"pa6gf", "filled polyamide"},
    {"pa12cf", "filled polyamide"},
    {"pa12gf", "filled polyamide"},
    {"pa", "polyamide"},
    {"pa6", "polyamide"},
    {"pa11", "polyamide"},
    {"pa12", "polyamide"},
    {"pa66", "polyamide"},
    {"nylon", "polyamide"},
    {"pp", "polypropylene"},
    {"tpu", "flexible urethane"},
    {"tpe", "flexible urethane"},
    {"pei", "high-temperature polymer"},
    {"peek", "high-temperature polymer"},
    {"pekk", "high-temperature polymer"},
    {"ppsu", "high-temperature polymer"},
    {"sla", "resin"},
};

/// Words of a text, one with a mark inside ("pa-cf", "PC/ABS") also as a whole.
const PolymerFacts *abbreviatedIn(const std::string &text)
{
    constexpr std::string_view kBetweenWords = " ,;:()[]_\t";
    const auto find = [](const std::string &word) -> const PolymerFacts * {
        for (const Abbreviation &known : kAbbreviations) {
            if (known.letters != word)
                continue;
            for (const PolymerFacts &facts : kPolymers) {
                if (facts.name == known.name)
                    return &facts;
            }
        }
        return nullptr;
    };
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find_first_of(kBetweenWords, at), text.size());
        std::string whole;
        std::string first;
        bool isFirst = true;
        for (const char c : text.substr(at, end - at)) {
            const bool isMark = c == '-' || c == '/' || c == '+' || c == '.';
            isFirst = isFirst && !isMark;
            if (!isMark)
                whole += c;
            if (isFirst)
                first += c;
        }
        for (const std::string &word : {whole, first}) {
            if (const PolymerFacts *facts = find(word))
                return facts;
        }
        at = end + 1;
    }
    return nullptr;
}

} // namespace

std::span<const PolymerFacts> polymers()
{
    return kPolymers;
}

PolymerGuess polymerIn(std::string_view material)
{
    const std::string text = smallLetters(material);
    for (const PolymerFacts &facts : kPolymers) {
        if (text.find(facts.name) != std::string::npos)
            return {&facts, true};
    }
    // "glycol polyester" and the like: the first word of the name is enough.
    for (const PolymerFacts &facts : kPolymers) {
        const std::string_view firstWord = facts.name.substr(0, facts.name.find_first_of(" -"));
        if (firstWord.size() > 5 && text.find(firstWord) != std::string::npos)
            return {&facts, true};
    }
    if (const PolymerFacts *facts = abbreviatedIn(text))
        return {facts, true};
    return {&kPolymers[0], false};
}

} // namespace inchpeg
