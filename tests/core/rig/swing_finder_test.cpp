// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/rig/live_trace.h"
#include "core/rig/rig_lines.h"
#include "core/rig/swing_finder.h"
#include "sim/virtual_rig.h"

#include <gtest/gtest.h>

#include <cmath>
#include <numbers>

namespace inchpeg
{

namespace
{

/// The swings that the virtual pendulum makes when it is let go so often.
std::vector<FoundSwing> swings(sim::VirtualRig &rig, int releases)
{
    RigLines lines;
    SwingFinder finder;
    std::vector<FoundSwing> found;
    lines.take(rig.greeting());
    double now_s = 0.5;
    const auto hear = [&] {
        for (const RigLine &line : lines.take(rig.until(now_s))) {
            const auto *row = std::get_if<RigRow>(&line);
            const std::optional<FoundSwing> swing =
                row == nullptr ? std::nullopt : finder.add(*row->values[0], *row->values[1]);
            if (swing)
                found.push_back(*swing);
        }
    };
    hear();
    for (int i = 0; i < releases; ++i) {
        rig.obey("release");
        now_s += 6.0;
        hear();
    }
    return found;
}

} // namespace

TEST(SwingFinder, FindsFreeSwingsAndThoseThatAPieceStops)
{
    sim::VirtualRig rig = *sim::VirtualRig::make({.kind = "pendulum", .strength = 1.5, .scatter = 0.001});
    const std::vector<FoundSwing> found = swings(rig, 5);
    ASSERT_EQ(found.size(), 5U) << "to and fro afterwards is none";
    for (const FoundSwing &swing : found)
        EXPECT_NEAR(swing.release_deg, 150.0, 0.5);
    for (int free = 0; free < 3; ++free)
        EXPECT_NEAR(found[static_cast<std::size_t>(free)].through_deg, found[0].through_deg, 0.4);
    // By hand: 1.5 kg, 0.3 m; a free swing keeps m g l (1 - cos), 1.5 J less stays below it.
    const double whole_J = 1.5 * 9.80665 * 0.3;
    const auto risen_J = [&](double deg) {
        return whole_J * (1.0 - std::cos(deg * std::numbers::pi / 180.0));
    };
    EXPECT_NEAR(risen_J(found[0].through_deg) - risen_J(found[3].through_deg), 1.5, 0.12);
    EXPECT_NEAR(found[3].through_deg, found[4].through_deg, 0.8);
}

TEST(SwingFinder, SwayingIsNone)
{
    SwingFinder finder;
    for (int i = 0; i < 2000; ++i)
        EXPECT_FALSE(finder.add(0.005 * i, 20.0 * std::sin(0.05 * i)));
}

TEST(LiveTrace, KeepsItsMemoryAndItsExtremes)
{
    LiveTrace trace;
    constexpr int kPoints = 1000000;
    for (int i = 0; i < kPoints; ++i)
        trace.add(i, i == 777777 ? 1000.0 : std::sin(1e-4 * i));
    EXPECT_EQ(trace.points(), static_cast<std::size_t>(kPoints));
    EXPECT_LE(trace.stretches().size(), LiveTrace::kMostStretches);
    double highest = 0.0;
    double before = -1.0;
    for (const LiveTrace::Stretch &stretch : trace.stretches()) {
        EXPECT_GT(stretch.x, before);
        before = stretch.x;
        highest = std::max(highest, stretch.high);
    }
    EXPECT_EQ(highest, 1000.0) << "a lone peak is not lost";
    trace.clear();
    EXPECT_TRUE(trace.stretches().empty());
}

} // namespace inchpeg
