// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/text/notation.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

Notation with(std::initializer_list<std::string_view> symbols, char mark = '.')
{
    Notation notation;
    for (std::string_view symbol : symbols)
        EXPECT_TRUE(notation.choose(symbol)) << symbol;
    notation.setDecimalMark(mark);
    return notation;
}

} // namespace

// Reference: NIST SP 811 (2008), appendix B.8, seven digits as printed there: lbf to N 4.448222, kgf to N
// 9.80665 (exact), psi to Pa 6.894757e3, ft·lbf to J 1.355818, lbf·ft to N·m 1.355818, lbf·in to N·m
// 1.129848e-1, in to m 2.54e-2 (exact).
TEST(Notation, UnitsAreThoseOfThePublishedTable)
{
    struct Case {
        const char *symbol;
        double working; ///< one of it, in the working unit
    };
    for (const Case &c : {Case{"lbf", 4.448222}, Case{"kgf", 9.80665}, Case{"psi", 6.894757e-3},
                          Case{"ft·lbf", 1.355818}, Case{"lbf·ft", 1.355818}, Case{"lbf·in", 1.129848e-1},
                          Case{"in", 25.4}, Case{"N/mm²", 1.0}, Case{"mJ", 1e-3}, Case{"kN", 1e3}}) {
        const Notation notation = with({c.symbol});
        const Unit unit = notation.unitOf(findUnit(c.symbol)->dimension);
        EXPECT_EQ(unit.symbol, c.symbol);
        EXPECT_GE(matchingDigits(unit.fromWorking(c.working), 1.0), 6) << c.symbol;
    }
}

TEST(Notation, AnAreaFollowsTheLengthAndEnergyPerVolumeTheStress)
{
    const Notation inches = with({"in", "psi"});
    EXPECT_EQ(inches.unitOf(Dimension::Area).symbol, "in²");
    EXPECT_EQ(inches.unitOf(Dimension::EnergyDensity).symbol, "in·lbf/in³");
    EXPECT_EQ(inches.quantity(645.16, Dimension::Area, 3), "1.00 in²");
    // 1 in·lbf/in³ is 1 psi, so 1 MJ/m³ = 1 MPa is 145.04 of them.
    EXPECT_EQ(inches.quantity(1.0, Dimension::EnergyDensity, 5), "145.04 in·lbf/in³");
    EXPECT_EQ(Notation().unitOf(Dimension::Area).symbol, "mm²");
}

TEST(Notation, TemperaturesAreShiftedAsWellAsScaled)
{
    EXPECT_EQ(with({"°F"}).quantity(100.0, Dimension::Temperature, 4), "212.0 °F");
    EXPECT_EQ(with({"K"}).quantity(0.0, Dimension::Temperature, 5), "273.15 K");
}

// A spread of 2 K is 3.6 °F: the offset of the scale does not belong to a difference.
TEST(Notation, ADifferenceOfTemperaturesHasNoOffset)
{
    EXPECT_EQ(Notation().quantity(2.0, Dimension::TemperatureDifference, 2), "2.0 K");
    EXPECT_EQ(with({"°F"}).quantity(2.0, differenceOf(Dimension::Temperature), 2), "3.6 °F");
    EXPECT_EQ(with({"°F"}).quantity(120.0, Dimension::HeatingRate, 3), "216 °F/h");
    EXPECT_EQ(differenceOf(Dimension::Force), Dimension::Force);
}

// Friction of 0.35, a growth by a fifth and half a percent of shrinkage are not all percentages.
TEST(Notation, DimensionlessValuesAreShownAsWhatTheyAre)
{
    const Notation notation;
    EXPECT_EQ(notation.quantity(0.35, Dimension::Number, 2), "0.35");
    EXPECT_EQ(notation.quantity(1.2, Dimension::Factor, 3), "× 1.20");
    EXPECT_EQ(notation.quantity(0.5, Dimension::Percent, 2), "0.50 %");
    EXPECT_EQ(notation.quantity(0.012, Dimension::Ratio, 2), "1.2 %");
}

// Reference: NIST SP 811 (2008), appendix B.8: lbf/in to N/m 1.751268e2, ft·lbf to J 1.355818, in to m
// 0.0254.
TEST(Notation, CompoundUnitsFollowThePersonsChoice)
{
    const Notation customary = with({"lbf", "ft·lbf", "psi"});
    EXPECT_NEAR(customary.unitOf(Dimension::ForcePerLength).toWorking(1.0), 0.1751268, 1e-7);
    EXPECT_NEAR(customary.unitOf(Dimension::EnergyPerLength).toWorking(1.0), 1.355818 / 0.0254, 1e-4);
    EXPECT_NEAR(customary.unitOf(Dimension::EnergyPerArea).toWorking(1.0), 1.355818 / 0.0254 / 0.0254 / 1e3,
                1e-6);
    EXPECT_EQ(customary.unitOf(Dimension::StressPerPercent).symbol, "psi/%");
    EXPECT_EQ(Notation().unitOf(Dimension::EnergyPerArea).symbol, "kJ/m²");
}

TEST(Notation, EveryDimensionCanBeShownInEverySystemAndMarked)
{
    for (const Notation &notation :
         {Notation(), with({"lbf", "psi", "ft·lbf", "in", "lbf·in", "°F"}), with({"kgf", "mJ", "K"})}) {
        for (int i = 0; i <= static_cast<int>(kLastDimension); ++i) {
            const auto dimension = static_cast<Dimension>(i);
            EXPECT_EQ(notation.unitOf(dimension).dimension, dimension);
            EXPECT_EQ(notation.expand(marked(1.5, dimension, 3)), notation.quantity(1.5, dimension, 3)) << i;
        }
    }
}

TEST(Notation, ADecimalCommaStandsInEveryForm)
{
    const Notation comma = with({}, ',');
    EXPECT_EQ(comma.fixed(-1.25, 1), "−1,2");
    EXPECT_EQ(comma.significant(1234.5, 5), "1234,5");
    EXPECT_EQ(comma.plain(0.25), "0,25");
    EXPECT_EQ(comma.signedPercent(-0.05), "−5,0 %");
    EXPECT_EQ(comma.percentRange({-0.04, 0.06}), "−4,0 to 6,0 %");
    EXPECT_EQ(comma.measuredLength(10.025), "10,025");
    EXPECT_EQ(comma.expand("peak " + marked(450.25, Dimension::Force)), "peak 450,2 N");
}

TEST(Notation, ACalliperReadingInInchesKeepsTenthsOfAMilOnlyWhereGiven)
{
    const Notation inches = with({"in"});
    EXPECT_EQ(inches.measuredLength(25.4 * 0.394), "0.394");
    EXPECT_EQ(inches.measuredLength(25.4 * 0.3945), "0.3945");
}

TEST(Notation, MarkedQuantitiesAreWrittenOutInTheChosenUnit)
{
    const std::string text = "the force starts at " + marked(9.80665, Dimension::Force, 3) + ", capacity " +
                             marked(1961.33, Dimension::Force);
    EXPECT_EQ(Notation().expand(text), "the force starts at 9.81 N, capacity 1961 N");
    EXPECT_EQ(with({"kgf"}).expand(text), "the force starts at 1.00 kgf, capacity 200.0 kgf");
}

TEST(Notation, ATextThatOnlyLooksMarkedIsLeftReadable)
{
    const Notation notation;
    EXPECT_EQ(notation.expand("a {b} c"), "a {b} c");
    EXPECT_EQ(notation.expand("a \x02nonsense\x03 c"), "a nonsense c");
    EXPECT_EQ(notation.expand("a \x02 open"), "a \x02 open");
    EXPECT_EQ(notation.expand(""), "");
}

TEST(Notation, WhatMayNotBeChosenIsRefused)
{
    Notation notation;
    EXPECT_FALSE(notation.choose("stone"));
    EXPECT_FALSE(notation.choose("gf")) << "known, but nothing that values are shown in";
    EXPECT_EQ(notation, Notation());
}

} // namespace inchpeg
