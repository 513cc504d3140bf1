// SPDX-License-Identifier: GPL-3.0-or-later
// What is seen of a flame or a hot contact, on a fixed form. It is a show and no rating: words are listed and
// counted, never averaged, and the sentence that says so goes with them.
#include "core/method/flame/flame_reading.h"

#include "core/method/method.h"

#include <algorithm>
#include <array>

namespace inchpeg
{

namespace
{

constexpr std::string_view kDrips[] = {"none", "dripped", "burning drips"};
constexpr std::string_view kAfter[] = {"at once", "within 10 s", "within 30 s", "burnt on", "did not light"};
constexpr std::string_view kSmoke[] = {"none", "light", "heavy"};
constexpr std::string_view kLeft[] = {"whole", "charred", "molten", "gone"};

constexpr Property seen(std::string_view name, std::string_view label, std::string_view definition,
                        std::span<const std::string_view> choices)
{
    return {name,        label,           Dimension::Number,
            definition,  Better::Neither, {"{} otherwise than {}", "{} otherwise than {}"},
            Scale::Word, choices};
}

constexpr std::array kFlameProperties = {
    seen("goes_out", "Goes out", "How long it burnt on once the flame was taken away; seen, not a rating",
         kAfter),
    seen("drips", "Drips", "Whether it dripped, and whether the drips burnt; seen, not a rating", kDrips),
    seen("smoke", "Smoke", "How much smoke there was; seen, not a rating", kSmoke),
    seen("left", "What is left", "What was left of the piece; seen, not a rating", kLeft),
};

constexpr std::array kFlameParameters = {
    Parameter{"goes_out", "Goes out", "once the flame or the hot tool is taken away", "",
              ParameterSource::Piece, true, "", kAfter},
    Parameter{"drips", "Drips", "onto the tray under it", "", ParameterSource::Piece, true, "", kDrips},
    Parameter{"smoke", "Smoke", "while it burnt and after", "", ParameterSource::Piece, false, "", kSmoke},
    Parameter{"left", "What is left", "of the piece", "", ParameterSource::Piece, false, "", kLeft},
};

Status checkFlame(const MethodSettings &settings)
{
    return checkRequired(settings, kFlameParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readFlame(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                          const TaskRunner &)
{
    if (const Status status = checkFlame(settings); !status)
        return status.error();
    Reading reading;
    ValueList values;
    for (const Property &property : kFlameProperties) {
        const std::string_view word = settings.word(property.name);
        const auto found = std::find(property.choices.begin(), property.choices.end(), word);
        if (found != property.choices.end())
            values.add(property.name, static_cast<double>(found - property.choices.begin()));
    }
    reading.values = values.take();
    reading.picture.x = {"What was seen", Dimension::Number};
    reading.picture.y = {"Place on the form", Dimension::Number};
    reading.warnings.emplace_back(
        "seen, not rated: a rating of how a material burns is for an accredited laboratory");
    return reading;
}

} // namespace

constinit const Reduction kFlameReduction{"flame",
                                          "read what was seen of a flame, without a rating",
                                          1,
                                          kFlameProperties,
                                          kFlameParameters,
                                          {},
                                          {},
                                          checkFlame,
                                          readFlame};

} // namespace inchpeg
