// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/method/falling_weight/falling_weight_reading.h"

#include "core/method/falling_weight/falling_weight.h"
#include "core/method/method.h"

#include <array>

namespace inchpeg
{

namespace
{

constexpr std::array kFallingWeightProperties = {
    Property{"failure_energy",
             "Failure energy",
             Dimension::Energy,
             "Midway between the highest energy that the piece held and the one that broke it; at least the "
             "last where it held (ISO 6603-1 manner)",
             Better::Higher,
             {"Takes {} more to break than {}", "Takes {} less to break than {}"}},
    Property{"drop_energy", "Last drop", Dimension::Energy, "Mass × g × height of the last drop",
             Better::Neither},
};

constexpr std::string_view kOutcomes[] = {"failed", "held"};

constexpr std::array kFallingWeightParameters = {
    Parameter{"mass",
              "Weight",
              "mass of the falling weight",
              "kg",
              ParameterSource::Test,
              true,
              "",
              {},
              false,
              {.share = 0.002}},
    Parameter{"height", "Last height", "from which it fell last", "mm", ParameterSource::Piece, true},
    Parameter{"outcome", "Outcome", "of the last drop: failed as was agreed (cracked, split), or held", "",
              ParameterSource::Piece, true, "", kOutcomes},
    Parameter{"held_height",
              "Held before",
              "highest drop before it that the same piece held; 0 where it was the first of several",
              "mm",
              ParameterSource::Piece,
              false,
              "",
              {},
              true},
};

/// The weight's energy over its height, with the drops that decided.
void drawDrops(Reading &reading, const Drops &drops, const FallingWeightResult &result)
{
    const double height_mm = in_mm(drops.height);
    reading.picture.x = {"Height", Dimension::Length};
    reading.picture.y = {"Energy of the blow", Dimension::Energy};
    reading.picture.series.push_back(
        {"Falling weight", {0.0, 1.25 * height_mm}, {0.0, 1.25 * result.dropEnergy_J}});
    if (drops.heldHeight && in_mm(*drops.heldHeight) > 0.0) {
        const double held_mm = in_mm(*drops.heldHeight);
        reading.marks.push_back({{}, "Held", held_mm, result.dropEnergy_J * held_mm / height_mm, {}});
    }
    reading.marks.push_back({{}, drops.failed ? "Failed" : "Held last", height_mm, result.dropEnergy_J, {}});
    if (result.failureEnergy_J)
        reading.picture.guides.push_back({result.atLeast ? "At least" : "Failure energy", 0.0,
                                          *result.failureEnergy_J, 1.25 * height_mm,
                                          *result.failureEnergy_J});
}

Status checkFallingWeight(const MethodSettings &settings)
{
    return checkRequired(settings, kFallingWeightParameters);
}

// By value as the other tests take it, which keep their columns.
// NOLINTNEXTLINE(performance-unnecessary-value-param)
Result<Reading> readFallingWeight(RecordTable, const MethodSettings &settings, const PlacedMarkers &,
                                  const TaskRunner &)
{
    if (const Status status = checkFallingWeight(settings); !status)
        return status.error();
    const Drops drops{Mass::fromSi(*settings.number("mass")), *settings.length("height"),
                      settings.word("outcome") == kOutcomes[0], settings.length("held_height")};
    Result<FallingWeightResult> result = reduceFallingWeight(drops);
    if (!result)
        return result.error();
    Reading reading;
    ValueList values;
    values.add("failure_energy", result->failureEnergy_J,
               result->atLeast ? BoundReason::HeldDrop : BoundReason::None);
    values.add("drop_energy", result->dropEnergy_J);
    reading.values = values.take();
    if (result->uncertainty_J)
        reading.values.front().uncertainty = result->uncertainty_J;
    drawDrops(reading, drops, *result);
    reading.validity = std::move(result->validity);
    reading.warnings = std::move(result->warnings);
    return reading;
}

} // namespace

constinit const Reduction kFallingWeightReduction{"falling-weight",
                                                  "read drops of a falling weight",
                                                  2,
                                                  kFallingWeightProperties,
                                                  kFallingWeightParameters,
                                                  {},
                                                  {},
                                                  checkFallingWeight,
                                                  readFallingWeight};

} // namespace inchpeg
