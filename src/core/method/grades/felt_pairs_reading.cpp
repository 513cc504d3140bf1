// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces that were held against each other two at a time. A hand tells which of two is the stronger long
// before it can put a grade on either; the share of pairs that a piece won is its place, and no size.
#include "core/method/grades/felt_pairs_reading.h"

#include "core/method/method.h"

#include <fmt/format.h>

#include <array>
#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kSteadyShare = 0.25; ///< of the pairs asked twice, answered otherwise at most (ours)

constexpr PropertyWords kPlaced{"Placed {} above {}", "Placed {} below {}", "placed", "shares of pairs won"};

constexpr std::array kFeltPairsProperties = {
    Property{
        "pair_share", "Share of pairs won", Dimension::Number,
        "Pairs in which the piece felt the stronger, a pair without difference as half, over all its pairs: "
        "0 to 1; it has an order and no more",
        Better::Higher, kPlaced, Scale::Ordinal},
    Property{"changed_share", "Answered otherwise again", Dimension::Number,
             "Pairs of the piece that were answered otherwise the second time, over those asked twice",
             Better::Lower, kPlaced, Scale::Ordinal},
};

constexpr Parameter count(std::string_view name, std::string_view label, std::string_view meaning,
                          bool isNeeded)
{
    return {name, label, meaning, "1", ParameterSource::Piece, isNeeded, "", {}, true};
}

constexpr std::string_view kPairManners[] = {"bent", "broken"};

constexpr std::array kFeltPairsParameters = {
    count("won", "Pairs won", "answers by which the piece was the stronger of the two", true),
    count("even", "No difference", "answers by which neither was", true),
    count("lost", "Pairs lost", "answers by which the other was the stronger", true),
    count("asked_again", "Asked twice", "pairs that came a second time, the other way round", false),
    count("changed", "Changed", "of these, how many were answered otherwise", false),
    Parameter{"manner", "Pieces are",
              "bent: none breaks and every pair comes twice; broken: one pair a piece", "",
              ParameterSource::Test, false, "bent", kPairManners},
};

bool isCount(double value)
{
    return value >= 0.0 && value == std::floor(value);
}

Status checkFeltPairs(const MethodSettings &settings)
{
    if (const Status status = checkRequired(settings, kFeltPairsParameters); !status)
        return status;
    for (const Parameter &parameter : kFeltPairsParameters) {
        if (const std::optional<double> value = settings.number(parameter.name); value && !isCount(*value))
            return invalidArgument(
                fmt::format("{} is {:g}; answers are counted: 0, 1, 2 …", parameter.name, *value));
    }
    if (*settings.number("won") + *settings.number("even") + *settings.number("lost") < 1.0)
        return invalidArgument("the piece was in no pair: won, even and lost are all 0");
    if (settings.number("changed").value_or(0.0) > settings.number("asked_again").value_or(0.0))
        return invalidArgument(fmt::format("{:g} pairs changed, but only {:g} were asked twice (asked_again)",
                                           *settings.number("changed"),
                                           settings.number("asked_again").value_or(0.0)));
    return ok();
}

void drawShares(Reading &reading, double won, double even, double lost)
{
    NamedColumn place{"place", {1.0, 2.0, 3.0}};
    NamedColumn answers{"answers", {won, even, lost}};
    reading.marks.push_back({{}, "won", 1.0, won, {}});
    reading.marks.push_back({{}, "no difference", 2.0, even, {}});
    reading.marks.push_back({{}, "lost", 3.0, lost, {}});
    reading.picture.x = {"Won, no difference, lost", Dimension::Number};
    reading.picture.y = {"Answers", Dimension::Number};
    reading.picture.record = RecordCurve{0, 1, 2, true};
    reading.columns = {std::move(place), std::move(answers)};
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readFeltPairs(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                              const TaskRunner &)
{
    if (const Status status = checkFeltPairs(settings); !status)
        return status.error();
    const double won = *settings.number("won");
    const double even = *settings.number("even");
    const double lost = *settings.number("lost");
    const double twice = settings.number("asked_again").value_or(0.0);
    Reading reading;
    ValueList values;
    values.add("pair_share", (won + 0.5 * even) / (won + even + lost));
    if (twice > 0.0) {
        const double changed = settings.number("changed").value_or(0.0);
        values.add("changed_share", changed / twice);
        reading.validity.push_back(
            {"answered alike both times", changed <= kSteadyShare * twice,
             fmt::format("{:g} of {:g} pairs changed; a quarter is usual where pieces are "
                         "close (ours)",
                         changed, twice)});
    } else {
        reading.warnings.emplace_back("each pair was asked once: nothing tells how steady the hand is");
    }
    reading.values = values.take();
    drawShares(reading, won, even, lost);
    return reading;
}

} // namespace

constinit const Reduction kFeltPairsReduction{"pairs",
                                              "read which of two pieces felt the stronger",
                                              1,
                                              kFeltPairsProperties,
                                              kFeltPairsParameters,
                                              {},
                                              {},
                                              checkFeltPairs,
                                              readFeltPairs};

} // namespace inchpeg
