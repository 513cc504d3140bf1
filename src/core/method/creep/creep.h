// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/method/creep/creep_forecast.h"
#include "core/method/creep/creep_law.h"
#include "core/units/quantity.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How the piece carries its load: a bar on two supports, a bar clamped at one end, a piece hung up.
enum class CreepFixture { ThreePoint, Cantilever, Tension };
std::string_view creepFixtureName(CreepFixture fixture); ///< "three-point", "cantilever", "tension"

/// A creep record: times and either deflections or strains, in the order in which they were read.
struct CreepRecord {
    std::vector<double> time_s;
    std::vector<double> deflection_mm; ///< empty where strain is there
    std::vector<double> strain;
    std::vector<double> load_N;   ///< empty: under load throughout, unless the strain falls back
    std::vector<double> room_C{}; ///< temperature of the room at each reading; empty where it was not logged
};

/// Sizes that the formulas need; those that a fixture does not need may be empty.
///
/// | fixture | strain | stress |
/// |---|---|---|
/// | three points | 6sh/L² | 3FL/(2bh²) |
/// | cantilever, L from the clamp to the load | 3sh/(2L²) | 6FL/(bh²) |
/// | tension | s/gauge length | F/(bh) |
struct CreepParameters {
    std::optional<Stress> stress; ///< as planned; else it follows from the load
    std::optional<Force> load;
    std::optional<Length> width;
    std::optional<Length> thickness;
    std::optional<Length> span;
    std::optional<Length> gaugeLength;
    CreepFixture fixture = CreepFixture::ThreePoint;
    double forecast_h = 1000.0; ///< for which the strain is foretold
    bool operator==(const CreepParameters &) const = default;
};

struct CreepResult {
    std::vector<double> time_h;
    std::vector<double> strain;
    std::size_t loaded = 0; ///< so many readings from the start are under load
    double stress_MPa = 0.0;
    double initialStrain = 0.0;
    double creepStrain = 0.0;               ///< last reading under load
    std::optional<double> growth;           ///< creepStrain over initialStrain
    std::optional<double> creepModulus_MPa; ///< stress over creepStrain
    std::optional<CreepFit> findley;
    std::optional<CreepFit> power;
    std::optional<CreepFit> logarithmic;
    std::optional<double> creepRate_per_h; ///< slope of the Findley fit at the last reading under load
    std::optional<CreepForecaster> laws;   ///< weighed; empty with too few readings
    std::optional<CreepForecast> forecast; ///< empty where nothing useful can be foretold
    std::optional<double> recoveredFraction;
    bool stillRunning = false; ///< the load was not removed in the record
    std::vector<Check> validity;
    std::vector<std::string> warnings;
};

/// Reduces a creep record by docs/methods.md, section "Creep". The load is removed where it falls below 5 %
/// of its largest, or the strain falls by more than 20 % between two readings.
/// Errors: InvalidArgument for a size, stress or load that is missing or not positive; BadInput for times
/// that go back, or no reading with a strain above zero.
Result<CreepResult> reduceCreep(const CreepRecord &record, const CreepParameters &parameters);

/// Whether the stress is given or follows, the sizes of the strain aside, which a record of strains does not
/// need. Errors: InvalidArgument.
Status checkCreepParameters(const CreepParameters &parameters);

} // namespace inchpeg
