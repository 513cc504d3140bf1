// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/curve/force_curve.h"
#include "sim/random.h"

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg::sim
{

/// A rig on a serial line: what it sends as time goes on, and what it answers. It has no clock of its own: it
/// is told how late it is, so that a test can play an hour in a moment. What it says is described in
/// docs/rig_protocol.md.
class VirtualRig
{
public:
    struct Setup {
        std::string kind; ///< frame, hand-gauge, pendulum, torque, oven, dial or weights
        std::string polymer = "glycol-modified polyester";
        std::string method{};  ///< the test it is for; told as a fact
        double strength = 0.0; ///< N, N·m or J of the mean piece; 0: usual for the polymer and the kind
        double scatter = 0.04; ///< between pieces, a share
        std::uint64_t seed = 1;
        double rate_Hz = 0.0; ///< 0: usual for the kind
    };
    /// Errors: InvalidArgument for a kind or a polymer that it does not play.
    static Result<VirtualRig> make(const Setup &setup);
    static std::vector<std::string_view> kinds();

    /// Facts and heading, as after "hello"; empty for a rig that only prints numbers.
    [[nodiscard]] std::string greeting() const;
    /// What it does on a command, and its answer; nothing from a rig that takes none.
    std::string obey(std::string_view command);
    /// The lines that are due up to this time since it was switched on.
    std::string until(double now_s);
    /// False while a piece is being tested.
    [[nodiscard]] bool isIdle() const { return m_run.empty(); }

private:
    /// What the columns beside time read, at one moment.
    using Readings = std::vector<double>;

    VirtualRig() = default;
    void start();
    [[nodiscard]] std::vector<Readings> pulled();
    [[nodiscard]] std::vector<Readings> twisted();
    [[nodiscard]] std::vector<Readings> swung();
    [[nodiscard]] std::vector<Readings> warmed(double rate_K_per_s);
    [[nodiscard]] bool bendsInTheOven() const;
    [[nodiscard]] std::vector<Readings> bentAndWarmed() const;
    [[nodiscard]] std::vector<Readings> sagging();
    [[nodiscard]] std::vector<Readings> resampled(const ForceCurve &curve) const;
    [[nodiscard]] std::string line(double t_s, const Readings &readings) const;

    Setup m_setup;
    std::vector<std::string> m_columns; ///< with units, time among them; empty: numbers alone
    std::vector<std::string> m_facts;
    std::vector<int> m_decimals; ///< of the readings
    bool m_takesCommands = true;
    double m_rate_Hz = 10.0;
    double m_speed_mm_per_s = 0.083;
    std::uint64_t m_piece = 0;   ///< tested so far
    std::int64_t m_sample = 0;   ///< sent so far
    std::vector<Readings> m_run; ///< of the piece that is being tested, backwards
    Readings m_rest;             ///< what is read while nothing happens
    Readings m_zero;
};

} // namespace inchpeg::sim
