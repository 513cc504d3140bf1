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
    return {&kPolymers[0], false};
}

} // namespace inchpeg
