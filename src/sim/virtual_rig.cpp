// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_rig.h"

#include "core/units/gravity.h"
#include "core/units/number.h"
#include "core/units/unit.h"
#include "sim/virtual_bars.h"
#include "sim/virtual_load.h"
#include "sim/virtual_specimen.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace inchpeg::sim
{

namespace
{

constexpr double kRadiansPerDegree = std::numbers::pi / 180.0;
constexpr double kReleaseAngle_deg = 150.0;
constexpr double kHammer_kg = 1.5;
constexpr double kArm_m = 0.3;
constexpr double kFriction = 0.004; ///< of the swing, a share of the energy each half
constexpr int kFreeSwings = 3;      ///< before the first piece hangs there
constexpr double kHandRest_s = 1.5; ///< between two pulls by hand
constexpr double kRoom_C = 23.0;
constexpr double kOvenEnd_C = 160.0;

struct Kind {
    std::string_view name;
    std::vector<std::string> columns;
    std::vector<int> decimals;
    std::vector<std::string> facts;
    double rate_Hz;
    bool takesCommands;
};

const std::vector<Kind> &allKinds()
{
    static const std::vector<Kind> kKinds = {
        {"frame",
         {"t[s]", "force[N]", "travel[mm]"},
         {2, 4},
         {"kind = frame", "range = 5 kN", "resolution = 0.2 N"},
         20.0,
         true},
        {"hand-gauge", {}, {1}, {}, 10.0, false},
        {"pendulum",
         {"t[s]", "angle[deg]"},
         {2},
         {"kind = pendulum", "range = 6.6 J", "mass = 1.5 kg", "arm = 0.3 m"},
         200.0,
         true},
        {"torque",
         {"t[s]", "torque[N·m]", "angle[deg]"},
         {3, 2},
         {"kind = torque gauge", "range = 10 N·m"},
         20.0,
         true},
        {"oven", {"t[s]", "temperature[°C]"}, {1}, {"kind = oven"}, 1.0, true},
        {"dial",
         {"deflection[mm]"},
         {3},
         {"kind = dial gauge", "range = 10 mm", "resolution = 0.001 mm"},
         2.0,
         false},
        {"weights", {"t[s]", "force[N]", "deflection[mm]"}, {2, 3}, {"kind = dead weights"}, 2.0, true},
    };
    return kKinds;
}

const Polymer *polymerNamed(std::string_view name)
{
    for (const Polymer *polymer : {&lowHeatPolyester(), &glycolPolyester(), &styrenic(), &polyamide()}) {
        if (polymer->name == name)
            return polymer;
    }
    return nullptr;
}

} // namespace

std::vector<std::string_view> VirtualRig::kinds()
{
    std::vector<std::string_view> names;
    for (const Kind &kind : allKinds())
        names.push_back(kind.name);
    return names;
}

Result<VirtualRig> VirtualRig::make(const Setup &setup)
{
    const auto kind = std::find_if(allKinds().begin(), allKinds().end(),
                                   [&](const Kind &one) { return one.name == setup.kind; });
    if (kind == allKinds().end())
        return invalidArgument(
            fmt::format("there is no rig \"{}\"; {} are played", setup.kind, fmt::join(kinds(), ", ")));
    if (polymerNamed(setup.polymer) == nullptr)
        return invalidArgument(fmt::format("there is no polymer \"{}\"; {}, {}, {} and {} are", setup.polymer,
                                           lowHeatPolyester().name, glycolPolyester().name, styrenic().name,
                                           polyamide().name));
    VirtualRig rig;
    rig.m_setup = setup;
    rig.m_columns = kind->columns;
    rig.m_facts = kind->facts;
    if (!setup.method.empty())
        rig.m_facts.push_back("method = " + setup.method);
    rig.m_decimals = kind->decimals;
    if (rig.bendsInTheOven()) {
        rig.m_columns.emplace_back("deflection[mm]");
        rig.m_decimals.push_back(3);
    }
    rig.m_takesCommands = kind->takesCommands;
    rig.m_rate_Hz = setup.rate_Hz > 0.0 ? setup.rate_Hz : kind->rate_Hz;
    rig.m_zero.assign(rig.m_decimals.size(), 0.0);
    if (setup.kind == "oven")
        rig.m_zero.front() = kRoom_C;
    if (setup.kind == "pendulum")
        rig.m_zero = {-kReleaseAngle_deg};
    rig.m_rest = rig.m_zero;
    return rig;
}

std::string VirtualRig::greeting() const
{
    std::string text;
    for (const std::string &fact : m_facts)
        text += "# " + fact + "\n";
    return m_columns.empty() ? text : fmt::format("{}{}\n", text, fmt::join(m_columns, ";"));
}

std::string VirtualRig::obey(std::string_view command)
{
    if (!m_takesCommands)
        return {};
    command = trimmed(command);
    if (command == "hello")
        return greeting() + "= ok\n";
    if (command.starts_with("zero") || command == "stop") {
        if (command == "stop")
            m_run.clear();
        return "= ok\n";
    }
    if (command == "return") {
        m_run.clear();
        m_rest = m_zero;
        return "= ok\n";
    }
    if (command == "start" || command == "release") {
        start();
        return "= ok\n";
    }
    const auto blank = command.find(' ');
    const std::string_view rest =
        blank == std::string_view::npos ? std::string_view() : trimmed(command.substr(blank));
    const std::optional<double> number = parseTypedNumber(rest.substr(0, numberPrefixLength(rest)));
    if (command.starts_with("strength") && number && *number > 0.0) {
        m_setup.strength = *number; // of the next piece, exactly
        m_setup.scatter = 0.0;
        return "= ok\n";
    }
    if (command.starts_with("speed") && number && *number > 0.0) {
        m_speed_mm_per_s = *number / 60.0;
        return "= ok\n";
    }
    if (command.starts_with("heat") && number && *number > 0.0 && m_setup.kind == "oven") {
        m_run = warmed(*number / 3600.0);
        return "= ok\n";
    }
    return fmt::format("= error {} is not known here\n", command);
}

void VirtualRig::start()
{
    if (m_setup.kind == "pendulum")
        m_run = swung();
    else if (m_setup.kind == "torque")
        m_run = twisted();
    else if (m_setup.kind == "oven")
        m_run = warmed(120.0 / 3600.0);
    else if (m_setup.kind == "weights" || m_setup.kind == "dial")
        m_run = sagging();
    else
        m_run = pulled();
    ++m_piece;
}

/// The curve at the rig's rate, backwards; force and way.
std::vector<VirtualRig::Readings> VirtualRig::resampled(const ForceCurve &curve) const
{
    std::vector<Readings> run;
    for (std::size_t i = 0; i < curve.force_N.size(); ++i)
        run.push_back(m_zero.size() == 1 ? Readings{curve.force_N[i]}
                                         : Readings{curve.force_N[i], curve.extension_mm[i]});
    std::reverse(run.begin(), run.end());
    return run;
}

std::vector<VirtualRig::Readings> VirtualRig::pulled()
{
    Polymer polymer = *polymerNamed(m_setup.polymer);
    constexpr double kArea_mm2 = 40.0;
    if (m_setup.strength > 0.0)
        polymer.strength_MPa = m_setup.strength / kArea_mm2;
    polymer.scatter = m_setup.scatter;
    Rig rig;
    rig.rate_Hz = m_rate_Hz;
    rig.speed_mm_per_s = m_setup.kind == "hand-gauge" ? 1.0 : m_speed_mm_per_s;
    rig.forceNoise_N = 0.4;
    rig.resolution_N = m_setup.kind == "hand-gauge" ? 0.5 : 0.2;
    rig.slack_mm = 0.15;
    return resampled(pull(polymer, {}, squareMillimetres(kArea_mm2), rig, m_setup.seed * 1000 + m_piece));
}

std::vector<VirtualRig::Readings> VirtualRig::twisted()
{
    Random random(m_setup.seed * 1000 + m_piece);
    LoadedPiece piece;
    piece.peak = drawnStrength(m_setup.strength > 0.0 ? m_setup.strength : 3.2, m_setup.scatter, random);
    piece.stiffness = piece.peak / 60.0; // degrees
    piece.isSudden = false;
    Rig rig;
    rig.rate_Hz = m_rate_Hz;
    rig.speed_mm_per_s = 6.0; // degrees a second
    rig.forceNoise_N = 0.004;
    rig.resolution_N = 0.001;
    return resampled(loadUntilItLetsGo(piece, rig, m_setup.seed * 1000 + m_piece));
}

/// Down, through or up to where the piece stops it, and to and fro until a hand catches it.
std::vector<VirtualRig::Readings> VirtualRig::swung()
{
    Random random(m_setup.seed * 1000 + m_piece);
    const bool isFree = m_piece < kFreeSwings;
    const double usual_J = 0.1 * barFacts(*polymerNamed(m_setup.polymer)).impact_kJ_per_m2;
    const double taken_J =
        isFree ? 0.0
               : drawnStrength(m_setup.strength > 0.0 ? m_setup.strength : usual_J, m_setup.scatter, random);
    double energy_J = kHammer_kg * kStandardGravity_m_per_s2 * kArm_m *
                      (1.0 - std::cos(kReleaseAngle_deg * kRadiansPerDegree));
    double angle = -kReleaseAngle_deg * kRadiansPerDegree;
    double speed = 0.0;
    bool isBroken = false;
    std::vector<Readings> run;
    constexpr double kStep_s = 1e-3;
    constexpr double kCaught_s = 4.0;
    double next_s = 0.0;
    for (double t = 0.0; t < kCaught_s; t += kStep_s) {
        if (!isBroken && angle >= 0.0) {
            isBroken = true;
            energy_J = 0.5 * kHammer_kg * kArm_m * kArm_m * speed * speed - taken_J;
            speed = std::sqrt(std::max(0.0, 2.0 * energy_J / (kHammer_kg * kArm_m * kArm_m)));
        }
        speed += kStep_s * (-kStandardGravity_m_per_s2 / kArm_m * std::sin(angle) - kFriction * 10.0 * speed);
        angle += kStep_s * speed;
        if (t + 1e-9 < next_s)
            continue;
        next_s += 1.0 / m_rate_Hz;
        run.push_back({angle / kRadiansPerDegree + 0.05 * random.normal()});
    }
    run.push_back(m_zero);
    std::reverse(run.begin(), run.end());
    return run;
}

bool VirtualRig::bendsInTheOven() const
{
    return m_setup.kind == "oven" && m_setup.method == "heat-deflection";
}

/// A bar on its supports under 0.45 MPa, as a heat-deflection bath has it: 120 K/h.
std::vector<VirtualRig::Readings> VirtualRig::bentAndWarmed() const
{
    const WarmingRecord record =
        warm(*polymerNamed(m_setup.polymer), Bar{}, 0.45, kOvenEnd_C, m_setup.seed * 1000 + m_piece);
    std::vector<Readings> run;
    for (std::size_t i = 0; i < record.temperature_C.size(); ++i) {
        const double from_s = i == 0 ? 0.0 : record.time_s[i - 1];
        const auto repeats = static_cast<int>(std::max(1.0, (record.time_s[i] - from_s) * m_rate_Hz));
        for (int k = 0; k < repeats; ++k) // its samples are further apart than the logger's lines
            run.push_back({record.temperature_C[i], record.deflection_mm[i]});
    }
    std::reverse(run.begin(), run.end());
    return run;
}

std::vector<VirtualRig::Readings> VirtualRig::warmed(double rate_K_per_s)
{
    if (bendsInTheOven())
        return bentAndWarmed();
    Random random(m_setup.seed);
    std::vector<Readings> run;
    for (double t_s = 0.0; kRoom_C + rate_K_per_s * t_s < kOvenEnd_C; t_s += 1.0 / m_rate_Hz)
        run.push_back({kRoom_C + rate_K_per_s * t_s + 0.1 * random.normal()});
    std::reverse(run.begin(), run.end());
    return run;
}

/// Under a constant load, by Findley's law, for an hour.
std::vector<VirtualRig::Readings> VirtualRig::sagging()
{
    const BarFacts &facts = barFacts(*polymerNamed(m_setup.polymer));
    Random random(m_setup.seed * 1000 + m_piece);
    const double force_N = m_setup.strength > 0.0 ? m_setup.strength : 12.26;
    const double first_mm = drawnStrength(1.2, m_setup.scatter, random);
    constexpr double kHour_s = 3600.0;
    std::vector<Readings> run;
    for (double t_s = 0.0; t_s < kHour_s; t_s += 1.0 / m_rate_Hz) {
        const double sag_mm =
            first_mm * (1.0 + facts.creepShare * std::pow(t_s / kHour_s, facts.creepExponent));
        run.push_back(m_zero.size() == 1 ? Readings{sag_mm} : Readings{force_N, sag_mm});
    }
    std::reverse(run.begin(), run.end());
    return run;
}

std::string VirtualRig::line(double t_s, const Readings &readings) const
{
    std::string cells;
    if (!m_columns.empty() && m_columns.front().starts_with("t["))
        cells = fmt::format("{:.4f}", t_s);
    for (std::size_t i = 0; i < readings.size(); ++i)
        cells += fmt::format("{}{:.{}f}", cells.empty() ? "" : ";", readings[i], m_decimals[i]);
    return cells + "\n";
}

std::string VirtualRig::until(double now_s)
{
    std::string text;
    // Who pulls by hand takes the next piece without being asked; a dial is always read.
    const auto rest = static_cast<std::int64_t>(kHandRest_s * m_rate_Hz);
    for (; static_cast<double>(m_sample) / m_rate_Hz <= now_s; ++m_sample) {
        const bool isByHand = m_setup.kind == "hand-gauge" || m_setup.kind == "dial";
        if (isByHand && m_run.empty() && m_sample % (2 * rest) == rest)
            start();
        if (!m_run.empty()) {
            m_rest = std::move(m_run.back());
            m_run.pop_back();
            if (m_run.empty() && isByHand)
                m_rest = m_zero;
        }
        text += line(static_cast<double>(m_sample) / m_rate_Hz, m_rest);
    }
    return text;
}

} // namespace inchpeg::sim
