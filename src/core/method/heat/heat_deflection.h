// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/check.h"
#include "core/units/quantity.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg
{

/// How the bar lies on its supports: bent over its thickness or over its width.
enum class BarOrientation { Flatwise, Edgewise };

/// Whose deflection decides: a strain of 0.2 % (ISO 75-1:2020) or 0.25 mm (ASTM D648-18).
enum class HeatStandard { Iso, Astm };

struct HeatDeflectionParameters {
    Length width;
    Length thickness;
    Length span;
    Stress stress; ///< in the outer fibre: 0.45, 1.80 or 8.00 MPa
    BarOrientation orientation = BarOrientation::Flatwise;
    HeatStandard standard = HeatStandard::Iso;
    bool operator==(const HeatDeflectionParameters &) const = default;
};

/// A bar or needle while it is warmed, in the order of time.
struct WarmingRecord {
    std::vector<double> temperature_C;
    std::vector<double> deflection_mm;
    std::vector<double> time_s; ///< empty: not recorded
};

/// "never cooler on the way": by how much and where the temperature went back before it was decided, at the
/// sample `decided` or the end; up to 1 K is what a probe does.
Check warmsThroughout(const WarmingRecord &record, std::optional<std::size_t> decided);

struct HeatDeflectionResult {
    std::optional<double> temperature_C; ///< empty where the record ends before the deflection is reached
    double standardDeflection_mm = 0.0;
    double testForce_N = 0.0;
    std::optional<double> heatingRate_K_per_h;
    std::vector<double> deflection_mm; ///< from its start
    double highest_C = 0.0;            ///< of the record: a bar that held is good to at least that
    std::vector<Check> validity;
    std::vector<std::string> warnings;
    bool operator==(const HeatDeflectionResult &) const = default;
};

/// Reduces a record by docs/methods.md, section "Heat deflection": force 2σbh²/(3L), b and h change places
/// edgewise, standard deflection 0.002·L²/(6h) or 0.25 mm, temperature interpolated linearly where the
/// deflection, zeroed at its start, first reaches it.
/// Errors: InvalidArgument for a size or stress that is not positive; TooFewPoints for fewer than two
/// samples.
Result<HeatDeflectionResult> reduceHeatDeflection(const WarmingRecord &record,
                                                  const HeatDeflectionParameters &parameters);

/// Least-squares slope of temperature over time in K/h; nothing without times that differ.
std::optional<double> heatingRate_K_per_h(const WarmingRecord &record);

} // namespace inchpeg
