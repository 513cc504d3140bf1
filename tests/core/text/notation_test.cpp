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
