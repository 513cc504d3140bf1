// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/virtual_judgement.h"

#include "sim/random.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace inchpeg::sim
{

namespace
{

constexpr double kGradeScatter = 0.45; ///< of a hand or an eye, in grades

int graded(double quality, Random &random)
{
    return static_cast<int>(std::clamp(std::round(quality + kGradeScatter * random.normal()), 1.0, 5.0));
}

double rounded(double value, double step)
{
    return std::max(0.0, std::round(value / step) * step);
}

} // namespace

std::string feelTable(double quality, std::uint64_t seed)
{
    Random random(seed);
    const int first = graded(quality, random);
    return fmt::format("grade,again\n{},{}\n", first, graded(quality, random));
}

std::string pairsTable(double quality, std::uint64_t seed)
{
    constexpr int kPairs = 8;
    constexpr double kOther = 3.0;
    Random random(seed);
    int counts[3] = {};
    int changed = 0;
    for (int pair = 0; pair < kPairs; ++pair) {
        const auto felt = [&] {
            const int own = graded(quality, random);
            const int other = graded(kOther, random);
            return own > other ? 0 : own < other ? 2 : 1;
        };
        const int first = felt();
        const int again = felt();
        ++counts[first];
        ++counts[again];
        changed += first == again ? 0 : 1;
    }
    return fmt::format("won,even,lost,asked_again,changed\n{},{},{},{},{}\n", counts[0], counts[1], counts[2],
                       kPairs, changed);
}

std::string outcomeTable(const PrintQuality &quality, std::uint64_t seed)
{
    Random random(seed);
    std::string row;
    for (const double aspect :
         {quality.stringing, quality.overhang, quality.bridge, quality.surface, quality.bedAdhesion})
        row += fmt::format("{},", graded(aspect, random));
    const double lift_mm = rounded(quality.cornerLift_mm * (1.0 + 0.25 * random.normal()), 0.05);
    return fmt::format("stringing,overhang,bridge,surface,bed_adhesion,corner_lift\n{}{:.2f}\n", row,
                       lift_mm);
}

std::string hardnessTable(double hardness, std::uint64_t seed)
{
    Random random(seed);
    const double piece = hardness + 0.8 * random.normal();
    std::string table = "hardness\n";
    for (int i = 0; i < 5; ++i)
        table += fmt::format("{:.1f}\n", rounded(piece + 0.7 * random.normal(), 0.5));
    return table;
}

std::string cornerTable(double lift_mm, std::uint64_t seed)
{
    Random random(seed);
    std::string table = "lift_mm\n";
    for (int i = 0; i < 4; ++i)
        table += fmt::format("{:.2f}\n", rounded(lift_mm * (0.8 + 0.25 * random.normal()), 0.05));
    return table;
}

std::string weighedTable(double volume_mm3, double density_g_per_cm3, std::uint64_t seed)
{
    Random random(seed);
    const double mass_g = volume_mm3 * 1e-3 * density_g_per_cm3 * (1.0 + 0.008 * random.normal());
    return fmt::format("mass_g\n{:.2f}\n", mass_g);
}

std::string steppedTorqueTable(double failsAbove_Nm, const TorqueLadder &ladder)
{
    double torque_Nm = ladder.start_Nm;
    double held_Nm = 0.0;
    while (torque_Nm <= failsAbove_Nm && torque_Nm + ladder.step_Nm <= ladder.top_Nm) {
        held_Nm = torque_Nm;
        torque_Nm += ladder.step_Nm;
    }
    return fmt::format("torque,outcome,held_torque\n{:g},{},{:g}\n", torque_Nm,
                       torque_Nm > failsAbove_Nm ? "failed" : "held", held_Nm);
}

std::string serviceTable(double failsAfter_h, double lookedAt_h, double quality, std::uint64_t seed)
{
    Random random(seed);
    const bool serves = lookedAt_h < failsAfter_h;
    const int stiffness = graded(quality, random);
    const int confidence = graded(serves ? quality : quality - 1.5, random);
    const auto cracks = static_cast<int>(std::max(0.0, std::round(3.5 - quality + 0.7 * random.normal())));
    return fmt::format("hours,outcome,stiffness,confidence,cracks\n{:.0f},{},{},{},{}\n",
                       serves ? lookedAt_h : failsAfter_h, serves ? "serves" : "failed", stiffness,
                       confidence, cracks);
}

} // namespace inchpeg::sim
