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

#include <array>
#include <optional>
#include <span>
#include <string_view>

namespace inchpeg
{

enum class CreepLaw { Findley, Power, Logarithmic };

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

} // namespace inchpeg
