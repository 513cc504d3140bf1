// SPDX-License-Identifier: GPL-3.0-or-later
// Laws by which strain grows under a constant load, fitted by least squares:
//
//   Findley      e0 + m tⁿ        (W. N. Findley, J. S. Lai, K. Onaran 1976, Creep and Relaxation of
//                                  Nonlinear Viscoelastic Materials, chapter 5)
//   power        a tᵇ             (through the origin, t > 0)
//   logarithmic  a + b ln(1 + t)
//
// t in hours. Given the exponent, Findley's and the power law are linear in the rest, so that the fit is a
// search over one number.
#pragma once

#include "core/stats/summary.h"

#include <array>
#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

enum class CreepLaw { Findley, Power, Logarithmic };
std::string_view creepLawName(CreepLaw law); ///< "Findley", "power law", "logarithmic"

struct CreepFit {
    CreepLaw law = CreepLaw::Findley;
    double e0 = 0.0; ///< 0 for the power law
    double m = 0.0;
    double n = 0.0; ///< 0 for the logarithmic law
    std::size_t readings = 0;
    double residualSd = 0.0; ///< root of the squares over the degrees of freedom; 0 without any
    /// Akaike's criterion, corrected for few readings (C. M. Hurvich, C.-L. Tsai 1989); empty where there are
    /// too few readings for the correction.
    std::optional<double> aicc;
    /// Standard errors of e0, m, n by linearisation; empty without degrees of freedom.
    std::optional<std::array<double, 3>> standardErrors;
    bool operator==(const CreepFit &) const = default;

    [[nodiscard]] double strainAt(double time_h) const;
    [[nodiscard]] double rateAt_per_h(double time_h) const;
};

/// time_h and strain: equally long, finite, times not below zero. Nothing where there are fewer readings at
/// different times than the law has parameters.
std::optional<CreepFit> fitCreep(CreepLaw law, std::span<const double> time_h,
                                 std::span<const double> strain);

/// A strain at a time beyond the readings.
struct Forecast {
    double time_h = 0.0;
    double strain = 0.0;
    std::optional<Interval> interval; ///< 95 %, for a single further reading of this piece, by linearisation
    bool isFar = false;               ///< more than a decade beyond the last reading
    bool operator==(const Forecast &) const = default;
};
Forecast forecastOf(const CreepFit &fit, std::span<const double> time_h, double at_h);

} // namespace inchpeg
