// SPDX-License-Identifier: GPL-3.0-or-later
// The strain of a loaded piece at another time. No law is chosen: Findley's at every exponent, the power law
// at every exponent and the logarithmic law are weighed by how well they bear out the readings, for few
// readings bear out several laws that part soon after.
#pragma once

#include "core/stats/summary.h"

#include <optional>
#include <span>
#include <vector>

namespace inchpeg
{

/// A strain at a time, of the same piece under the same load.
struct CreepForecast {
    double time_h = 0.0;
    double strain = 0.0;
    std::optional<Interval> interval{}; ///< 95 %, for a single further reading; empty at a time that was seen
    bool isSeen = false;                ///< the readings reach it: it lies between two of them
    bool operator==(const CreepForecast &) const = default;

    /// Half of the interval over the strain; 0 where there is none.
    [[nodiscard]] double halfWidth() const;
};

/// Beyond this half width, as a share of the strain, nothing is foretold (ours).
inline constexpr double kWidestForecast = 0.25;

/// The weighed laws of one run.
class CreepForecaster
{
public:
    /// time_h and strain: equally long, under load, times not below zero and growing. Nothing with fewer than
    /// four readings, or where the strain does not grow.
    static std::optional<CreepForecaster> of(std::span<const double> time_h, std::span<const double> strain);

    /// The strain at a time, by the readings where they reach it. docs/methods.md, section "Creep".
    [[nodiscard]] CreepForecast at(double time_h) const;
    /// The weighed laws themselves, also among the readings.
    [[nodiscard]] double strainAt(double time_h) const;
    /// The last time at which the interval is no wider than kWidestForecast.
    [[nodiscard]] double horizon_h() const;

private:
    /// One law: a straight line of strain over a function of time.
    struct Law {
        enum class Form { Power, Logarithm } form = Form::Power;
        double exponent = 0.0;
        bool isThroughOrigin = false;
        double share = 0.0; ///< of what is believed
        double intercept = 0.0, slope = 0.0;
        double meanX = 0.0, squaresX = 0.0; ///< about the mean, or about zero through the origin
        double sd = 0.0, df = 0.0;

        [[nodiscard]] double x(double time_h) const;
        [[nodiscard]] double strainAt(double time_h) const { return intercept + slope * x(time_h); }
        [[nodiscard]] double sdAt(double time_h, double readings) const;
    };

    [[nodiscard]] Interval intervalAt(double time_h) const;
    double fit(Law &law, double prior) const;

    std::vector<double> m_time_h, m_strain;
    std::vector<Law> m_laws;
};

} // namespace inchpeg
