// SPDX-License-Identifier: GPL-3.0-or-later
// Virtual bars of known truth, written down and read again: two hundred of each test.
#include "core/method/creep/creep.h"
#include "core/reading/piece_reading.h"
#include "sim/record_writer.h"
#include "sim/virtual_bars.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

#include <array>
#include <cmath>
#include <functional>

namespace inchpeg
{

namespace
{

constexpr std::uint64_t kCases = 200;
const sim::Polymer *const kPolymers[] = {&sim::lowHeatPolyester(), &sim::glycolPolyester(), &sim::styrenic(),
                                         &sim::polyamide()};

/// A polymer and a bar, drawn by the number of the case.
struct Drawn {
    const sim::Polymer &polymer;
    sim::Bar bar;
    std::uint64_t seed;
};

void forEachCase(const std::function<void(const Drawn &)> &look)
{
    for (std::uint64_t seed = 1; seed <= kCases; ++seed) {
        sim::Random random(seed);
        const double thickness_mm = 3.0 + 2.0 * random.uniform();
        const Drawn drawn{*kPolymers[seed % std::size(kPolymers)],
                          {8.0 + 6.0 * random.uniform(), thickness_mm, 16.0 * thickness_mm},
                          seed};
        SCOPED_TRACE(seed);
        look(drawn);
    }
}

MethodSettings settingsOf(const sim::Bar &bar)
{
    return {{{"width", bar.width_mm}, {"thickness", bar.thickness_mm}, {"span", bar.span_mm}}, {}};
}

Reading read(const std::string &bytes, Method method, MethodSettings settings)
{
    const Result<PieceReading> reading = readPiece({PieceId{1},
                                                    std::make_shared<const std::string>(bytes),
                                                    {},
                                                    {reductionOf(method), std::move(settings), {}, "A1"}});
    EXPECT_TRUE(reading) << (reading ? "" : reading.error().message) << "\n" << bytes.substr(0, 200);
    return reading ? reading->result : Reading{};
}

} // namespace

TEST(VirtualBars, BentOnesAreReadInEveryDialect)
{
    forEachCase([](const Drawn &drawn) {
        const sim::Rig rig{.slack_mm = 0.1,
                           .forceNoise_N = 0.05,
                           .resolution_N = 0.01,
                           .speed_mm_per_s = 2.0 / 60.0,
                           .rate_Hz = 10.0};
        const auto dialect = static_cast<sim::Dialect>(drawn.seed % 4); // the others have no deflection
        const Reading reading =
            read(sim::recordBytes(sim::bend(drawn.polymer, drawn.bar, rig, drawn.seed), dialect, "A1"),
                 Method::Bending, settingsOf(drawn.bar));
        // Modulus within its scatter between pieces, 2 %, and the reading's own.
        EXPECT_NEAR(test::readValue(reading, "flexural_modulus") / drawn.polymer.modulus_MPa, 1.0, 0.12);
        const double strength = sim::barFacts(drawn.polymer).flexuralOverTensile * drawn.polymer.strength_MPa;
        EXPECT_LT(test::readValue(reading, "flexural_strength"), 1.25 * strength);
        EXPECT_GT(test::readValue(reading, "flexural_strength"), 0.5 * strength);
        EXPECT_NEAR(test::readValue(reading, "toe_strain"),
                    6.0 * 0.1 * drawn.bar.thickness_mm / (drawn.bar.span_mm * drawn.bar.span_mm), 2e-4);
        const double breakStrain = sim::barFacts(drawn.polymer).breakStrain;
        const bool broke = valueOf(reading.values, "strain_at_break")->bound == BoundReason::None;
        EXPECT_TRUE(broke || breakStrain > 0.045) << "far within the stroke of the rig";
        EXPECT_TRUE(!broke || breakStrain < 0.075) << "far beyond it";
    });
}

TEST(VirtualBars, DeadWeightsGiveTheModulusAndTheGrowth)
{
    forEachCase([](const Drawn &drawn) {
        const std::array masses_kg{1.0, 2.0, 4.0};
        const Reading reading = read(sim::deadWeightTable(drawn.polymer, drawn.bar, masses_kg, drawn.seed),
                                     Method::BendSteps, settingsOf(drawn.bar));
        // Less than the modulus by what a minute lets it give way; a dial of 0.01 mm reads the rest.
        const double modulus = test::readValue(reading, "apparent_modulus");
        EXPECT_LT(modulus, 1.15 * drawn.polymer.modulus_MPa);
        EXPECT_GT(modulus, 0.75 * drawn.polymer.modulus_MPa);
        std::size_t loads = 0;
        for (const ReadValue &value : reading.values)
            loads += value.property == "time_ratio" ? 1U : 0U;
        EXPECT_EQ(loads, masses_kg.size());
    });
}

TEST(VirtualBars, SwingsGiveTheEnergyBackToHalfADegree)
{
    const PendulumRig rig{0.5, 0.225, 150.0, 149.0};
    std::size_t bounds = 0;
    forEachCase([&](const Drawn &drawn) {
        const double left_mm = drawn.bar.width_mm - 2.0;
        MethodSettings settings = settingsOf(drawn.bar);
        settings.numbers.merge(std::map<std::string, double, std::less<>>{{"mass", rig.mass_kg},
                                                                          {"arm", 1e3 * rig.arm_m},
                                                                          {"release", rig.release_deg},
                                                                          {"free_swing", rig.freeSwing_deg}});
        const Reading reading = read(sim::swingTable(drawn.polymer, drawn.bar, left_mm, rig, drawn.seed),
                                     Method::Impact, settings);
        const double usual = sim::barFacts(drawn.polymer).impact_kJ_per_m2;
        const ReadValue *strength = valueOf(reading.values, "impact_strength");
        ASSERT_NE(strength, nullptr);
        EXPECT_GT(strength->number, 0.1 * usual);
        EXPECT_LT(strength->number, 2.6 * usual);
        bounds += strength->bound == BoundReason::NoBreak ? 1U : 0U;
        EXPECT_EQ(strength->bound == BoundReason::NoBreak, reading.kind == "no break");
    });
    EXPECT_GT(bounds, 10U) << "some polyamides bend and do not break";
}

TEST(VirtualBars, CreepGivesItsLawBack)
{
    const std::array times_h{0.02, 1.0, 24.0, 48.0, 72.0, 96.0, 120.0};
    forEachCase([&](const Drawn &drawn) {
        MethodSettings settings = settingsOf(drawn.bar);
        settings.numbers["stress"] = 10.0;
        const Reading reading = read(sim::creepTable(drawn.polymer, drawn.bar, 10.0, times_h, drawn.seed),
                                     Method::Creep, settings);
        EXPECT_NEAR(test::readValue(reading, "findley_n"), sim::barFacts(drawn.polymer).creepExponent, 0.25);
        EXPECT_NEAR(test::readValue(reading, "initial_strain") * drawn.polymer.modulus_MPa / 10.0, 1.0, 0.15);
        EXPECT_GT(test::readValue(reading, "growth"), 1.0);
        EXPECT_EQ(valueOf(reading.values, "recovered_fraction"), nullptr) << "the run still goes on";
    });
}

TEST(VirtualBars, WarmedOnesSoftenWhereTheyShould)
{
    forEachCase([](const Drawn &drawn) {
        const double end_C = drawn.seed % 10 == 0 ? 45.0 : 190.0; // some records end before anything gives
        const WarmingRecord record = sim::warm(drawn.polymer, drawn.bar, 1.8, end_C, drawn.seed);
        MethodSettings settings = settingsOf(drawn.bar);
        settings.numbers["stress"] = 1.8;
        const Reading heat = read(sim::warmingTable(record), Method::HeatDeflection, settings);
        const Reading soft = read(sim::warmingTable(record), Method::Softening, {{{"threshold", 1.0}}, {}});
        EXPECT_NEAR(test::readValue(heat, "heating_rate"), 120.0, 1.0);
        if (end_C < 50.0) {
            EXPECT_EQ(valueOf(heat.values, "heat_deflection_temperature"), nullptr);
            EXPECT_EQ(valueOf(soft.values, "softening_temperature"), nullptr);
            return;
        }
        const double softens_C = sim::barFacts(drawn.polymer).softens_C;
        const double width_K = sim::barFacts(drawn.polymer).softeningWidth_K;
        EXPECT_NEAR(test::readValue(heat, "heat_deflection_temperature"), softens_C, 3.0 + 2.0 * width_K);
        EXPECT_GT(test::readValue(soft, "softening_temperature"),
                  test::readValue(heat, "heat_deflection_temperature"))
            << "a millimetre is more than the standard deflection";
    });
}

} // namespace inchpeg
