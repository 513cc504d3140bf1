// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/specimen/section.h"
#include "core/units/number.h"
#include "core/units/quantity.h"
#include "core/units/unit.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

#include <numbers>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

double working(std::string_view text, const Unit &unit)
{
    const Result<double> value = parseQuantity(text, unit);
    EXPECT_TRUE(value) << text;
    return value ? *value : -1.0;
}

double working(std::string_view text, std::string_view unit)
{
    return working(text, *findUnit(unit));
}

} // namespace

TEST(Units, FactorsAreThoseOfTheStandard)
{
    // Reference: NIST SP 811 (2008), appendix B.8.
    EXPECT_GE(matchingDigits(findUnit("lbf")->toWorking(1.0), 4.4482216152605), 14);
    EXPECT_GE(matchingDigits(findUnit("kgf")->toWorking(1.0), 9.80665), 15);
    EXPECT_GE(matchingDigits(findUnit("in")->toWorking(1.0), 25.4), 15);
    EXPECT_GE(matchingDigits(findUnit("psi")->toWorking(1.0), 6.894757293168e-3), 12);
    EXPECT_GE(matchingDigits(findUnit("lbf·ft")->toWorking(1.0), 1.3558179483314004), 14);
    EXPECT_GE(matchingDigits(findUnit("ft·lbf")->toWorking(1.0), 1.3558179483314004), 14);
    EXPECT_GE(matchingDigits(findUnit("rad")->toWorking(std::numbers::pi), 180.0), 15);
}

TEST(Units, TemperaturesHaveAnOffset)
{
    EXPECT_NEAR(findUnit("°F")->toWorking(212.0), 100.0, 1e-12);
    EXPECT_NEAR(findUnit("°F")->toWorking(-40.0), -40.0, 1e-12);
    EXPECT_NEAR(findUnit("K")->toWorking(273.15), 0.0, 1e-12);
}

TEST(Units, EveryUnitComesBack)
{
    for (const Unit &unit : allUnits()) {
        EXPECT_GE(matchingDigits(unit.fromWorking(unit.toWorking(12.5)), 12.5), 13) << unit.symbol;
        const std::optional<Unit> found = findUnit(unit.symbol);
        ASSERT_TRUE(found) << unit.symbol;
        EXPECT_EQ(found->symbol, unit.symbol);
        // A typed value with its unit is read in the dimension that is asked for, shared symbols too.
        EXPECT_GE(matchingDigits(working("12.5 " + std::string(unit.symbol), unit), unit.toWorking(12.5)), 14)
            << unit.symbol << " of " << dimensionName(unit.dimension);
    }
}

TEST(Units, EveryDimensionHasAWorkingUnitAndAName)
{
    for (int i = 0; i <= static_cast<int>(kLastDimension); ++i) {
        const auto dimension = static_cast<Dimension>(i);
        EXPECT_DOUBLE_EQ(workingUnit(dimension).factor, 1.0) << i;
        EXPECT_FALSE(dimensionName(dimension).empty()) << i;
    }
}

TEST(Units, ANumberOrAFactorIsNoPercentage)
{
    EXPECT_EQ(withUnit("0.35", workingUnit(Dimension::Number)), "0.35");
    EXPECT_EQ(withUnit("1.20", workingUnit(Dimension::Factor)), "× 1.20");
    EXPECT_EQ(withUnit("0.50", workingUnit(Dimension::Percent)), "0.50 %");
    EXPECT_EQ(headingIn("Static friction", workingUnit(Dimension::Number)), "Static friction");
    EXPECT_EQ(headingIn("Shrinkage", workingUnit(Dimension::Percent)), "Shrinkage in %");
}

TEST(Units, KnowsTheUnitsOfTheContract)
{
    for (std::string_view symbol : {"N",   "kN",   "lbf",    "kgf",    "gf",  "mm",  "cm",  "m",   "in", "µm",
                                    "um",  "%",    "mm/mm",  "s",      "ms",  "min", "h",   "°C",  "°F", "K",
                                    "N·m", "N·cm", "lbf·ft", "lbf·in", "deg", "rad", "MPa", "mm²", "kg"})
        EXPECT_TRUE(findUnit(symbol)) << symbol;
    EXPECT_FALSE(findUnit("stone"));
    EXPECT_FALSE(findUnit(""));
}

TEST(Units, MilliAndMegaAreNotConfused)
{
    EXPECT_EQ(findUnit("mN")->symbol, "mN");
    EXPECT_FALSE(findUnit("MN"));
}

TEST(TypedQuantity, TakesPointCommaAndUnit)
{
    EXPECT_DOUBLE_EQ(working("10", "mm"), 10.0);
    EXPECT_DOUBLE_EQ(working("0,4in", "mm"), 10.16);
    EXPECT_DOUBLE_EQ(working(" 1.25 kgf ", "N"), 12.2583125);
    EXPECT_DOUBLE_EQ(working("1e3 µm", "mm"), 1.0);
    EXPECT_DOUBLE_EQ(working("\xE2\x88\x92"
                             "5 °C",
                             "°C"),
                     -5.0);
}

TEST(TypedQuantity, SaysWhatIsWrong)
{
    const Unit mm = *findUnit("mm");
    EXPECT_NE(parseQuantity("wide", mm).error().message.find("is not a number"), std::string::npos);
    EXPECT_NE(parseQuantity("10 parsec", mm).error().message.find("not known"), std::string::npos);
    EXPECT_NE(parseQuantity("10 N", mm).error().message.find("is a force, but a length is wanted"),
              std::string::npos);
    EXPECT_FALSE(parseQuantity("", mm));
    EXPECT_FALSE(parseQuantity("1e999 mm", mm));
}

TEST(Cells, ReadNumbersAsTheyAreWritten)
{
    const NumberFormat point{'.', false, false};
    const NumberFormat commaGrouped{',', true, true};
    EXPECT_DOUBLE_EQ(readCell("1.5", point).value, 1.5);
    EXPECT_DOUBLE_EQ(readCell("+1.5e-3", point).value, 1.5e-3);
    EXPECT_DOUBLE_EQ(readCell(".5", point).value, 0.5);
    EXPECT_DOUBLE_EQ(readCell("1.234.567,5", commaGrouped).value, 1234567.5);
    EXPECT_DOUBLE_EQ(readCell("1 234,5", commaGrouped).value, 1234.5);
    EXPECT_DOUBLE_EQ(readCell("12'345,5", commaGrouped).value, 12345.5);
    EXPECT_EQ(readCell("1.23.456", commaGrouped).kind, CellKind::Text);
    EXPECT_EQ(readCell("1,5", point).kind, CellKind::Text);
    EXPECT_EQ(readCell("  ", point).kind, CellKind::Empty);
}

TEST(Cells, TellWhatIsNoFiniteNumber)
{
    const NumberFormat point{'.', false, false};
    for (std::string_view text : {"NaN", "nan", "NA", "inf", "-Inf", "1e999", "#N/A"})
        EXPECT_EQ(readCell(text, point).kind, CellKind::NotFinite) << text;
    EXPECT_EQ(readCell("1e-999", point).kind, CellKind::Number);
    EXPECT_EQ(readCell("12abc", point).kind, CellKind::Text);
}

TEST(Quantity, DimensionsFollowTheArithmetic)
{
    const Stress stress = newtons(100.0) / (millimetres(10.0) * millimetres(4.0));
    EXPECT_GE(matchingDigits(in_MPa(stress), 2.5), 14);
}

TEST(Section, AreaOfEachShape)
{
    EXPECT_GE(matchingDigits(in_mm2(*areaOf(RectangularSection{millimetres(10), millimetres(4)})), 40.0), 14);
    EXPECT_GE(matchingDigits(in_mm2(*areaOf(RoundSection{millimetres(4)})), 4.0 * std::numbers::pi), 14);
    EXPECT_GE(matchingDigits(in_mm2(*areaOf(PlainArea{squareMillimetres(12.5)})), 12.5), 14);
}

TEST(Section, RefusesWhatIsNotPositive)
{
    EXPECT_NE(areaOf(RectangularSection{millimetres(0), millimetres(4)}).error().message.find("width"),
              std::string::npos);
    EXPECT_NE(areaOf(RectangularSection{millimetres(10), millimetres(-1)}).error().message.find("thickness"),
              std::string::npos);
    EXPECT_FALSE(areaOf(RoundSection{}));
    EXPECT_FALSE(areaOf(PlainArea{}));
}

} // namespace inchpeg
