// SPDX-License-Identifier: GPL-3.0-or-later
// Curves that rise again: elastomers, and plastics that are drawn.
#include "core/method/method.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

#include <cmath>

namespace inchpeg
{

namespace
{

constexpr double kShear_MPa = 2.0;

/// Engineering stress of a neo-Hookean piece at a stretch λ: G (λ - 1/λ²); its slope at λ = 1 is 3 G.
/// Source: Treloar, The Physics of Rubber Elasticity, equation 4.24 for simple extension (from memory).
double neoHookean_MPa(double stretch)
{
    return kShear_MPa * (stretch - 1.0 / (stretch * stretch));
}

/// A piece of 10 mm² with a gauge length of 50 mm, pulled up to a strain, with what follows after it.
RecordTable pulled(double toStrain, bool breaks)
{
    RecordTable table;
    table.columns.resize(4);
    table.isCrosshead.assign(4, false);
    for (double strain = 0.0; strain <= toStrain + 1e-9; strain += 0.0005) {
        table.columns[0].push_back(10.0 * neoHookean_MPa(1.0 + strain));
        table.columns[1].push_back(50.0 * strain);
    }
    if (breaks) {
        table.columns[0].push_back(0.0);
        table.columns[1].push_back(table.columns[1].back() + 0.01);
    }
    table.rows = table.columns[0].size();
    return table;
}

Reading read(RecordTable table, std::string_view strengthAt)
{
    const MethodSettings settings{{{"area", 10.0}, {"gauge_length", 50.0}},
                                  {{"strength_at", std::string(strengthAt)}, {"toe", "off"}}};
    const Result<Reading> reading =
        reductionOf(Method::Tension)->read(std::move(table), settings, {}, inOrder);
    EXPECT_TRUE(reading) << (reading ? "" : reading.error().message);
    return reading ? *reading : Reading{};
}

BoundReason boundOf(const Reading &reading, std::string_view property)
{
    return valueOf(reading.values, property)->bound;
}

} // namespace

TEST(Elastomer, ABrokenPieceHasItsLargestStressAndTheModulusOfItsStart)
{
    const Reading reading = read(pulled(4.0, true), "largest stress");
    EXPECT_NEAR(test::readValue(reading, "tensile_strength"), neoHookean_MPa(5.0), 1e-6);
    EXPECT_NEAR(test::readValue(reading, "strain_at_break"), 4.0, 1e-6);
    // The chord between strains 0.0005 and 0.0025 lies 0.5 % under the slope at the start.
    EXPECT_NEAR(test::readValue(reading, "tensile_modulus"), 3.0 * kShear_MPa, 0.03);
    EXPECT_EQ(boundOf(reading, "tensile_strength"), BoundReason::None);
}

TEST(Elastomer, OneThatDoesNotBreakWithinTheStrokeHoldsAtLeastThat)
{
    const Reading reading = read(pulled(4.0, false), "largest stress");
    for (const char *property : {"tensile_strength", "strain_at_strength", "strain_at_break", "toughness"})
        EXPECT_EQ(boundOf(reading, property), BoundReason::RecordEnds) << property;
    EXPECT_EQ(boundOf(reading, "tensile_modulus"), BoundReason::None);
}

TEST(Elastomer, APlasticThatRisesAgainHasItsYieldAndItsLargestStress)
{
    RecordTable table = pulled(0.0, false);
    table.columns[0] = {};
    table.columns[1] = {};
    // Up to 30 MPa at 2 %, down to 20 MPa at 10 %, drawn, and up to 40 MPa at 300 %.
    const auto line = [&](double from, double to, double stressFrom, double stressTo) {
        for (double strain = from; strain < to - 1e-9; strain += 0.0005) {
            const double share = (strain - from) / (to - from);
            table.columns[0].push_back(10.0 * std::lerp(stressFrom, stressTo, share));
            table.columns[1].push_back(50.0 * strain);
        }
    };
    line(0.0, 0.02, 0.0, 30.0);
    line(0.02, 0.10, 30.0, 20.0);
    line(0.10, 3.0, 20.0, 40.0);
    table.columns[0].push_back(400.0);
    table.columns[1].push_back(150.0);
    table.columns[0].push_back(0.0);
    table.columns[1].push_back(150.05);
    table.rows = table.columns[0].size();
    const Reading first = read(table, "first maximum");
    EXPECT_NEAR(test::readValue(first, "tensile_strength"), 30.0, 1e-9);
    const Reading largest = read(table, "largest stress");
    EXPECT_NEAR(test::readValue(largest, "tensile_strength"), 40.0, 1e-9);
    EXPECT_NEAR(test::readValue(largest, "yield_stress"), 30.0, 1e-9) << "the yield stays where it was";
    EXPECT_EQ(test::readValue(largest, "tensile_modulus"), test::readValue(first, "tensile_modulus"));
}

// Gent's limiting chain extensibility (Gent 1996, Rubber Chemistry and Technology 69, 59): σ = G (λ − λ⁻²) ·
// Jm/(Jm − I₁ + 3), I₁ = λ² + 2/λ: stiff, soft, and stiff again, without a maximum. Its slope at λ = 1 is 3
// G.
TEST(Elastomer, OneThatStiffensAgainIsReadFromItsStart)
{
    RecordTable table;
    table.columns.resize(4);
    table.isCrosshead.assign(4, false);
    constexpr double kMostStretching = 40.0;
    for (int i = 0; i <= 10000; ++i) {
        const double strain = 0.0005 * i;
        const double stretch = 1.0 + strain;
        const double first = stretch * stretch + 2.0 / stretch;
        table.columns[0].push_back(10.0 * neoHookean_MPa(stretch) * kMostStretching /
                                   (kMostStretching - first + 3.0));
        table.columns[1].push_back(50.0 * strain);
    }
    table.rows = table.columns[0].size();
    const MethodSettings settings{{{"area", 10.0}, {"gauge_length", 50.0}}, {}}; // with its toe taken off
    const Result<Reading> reading = reductionOf(Method::Tension)->read(table, settings, {}, inOrder);
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_NEAR(test::readValue(*reading, "toe_strain"), 0.0, 0.02);
    EXPECT_NEAR(test::readValue(*reading, "strain_at_strength"), 5.0, 0.03);
    ASSERT_NE(valueOf(reading->values, "tensile_modulus"), nullptr);
    EXPECT_NEAR(test::readValue(*reading, "tensile_modulus"), 3.0 * kShear_MPa, 0.3);
}

} // namespace inchpeg
