// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/log_summary.h"
#include "core/logbook/measuring.h"
#include "core/text/notation.h"
#include "support/log_places.h"
#include "support/study_builder.h"

#include <numbers>

namespace inchpeg
{

namespace
{

using test::kMass;
using test::kThickness;
using test::kWidth;

/// Twelve pieces of two rails whose drawn section is 10 × 4 mm.
struct MeasuringBench {
    test::StudyBuilder builder;
    Workshop workshop = usualWorkshop();

    MeasuringBench()
    {
        builder.rail("230", {}, Orientation::Flat, 6).rail("250", {}, Orientation::Flat, 6);
        firstTest(builder.study).method = Method::Tension;
        firstTest(builder.study).setup.shape = *findShape("dogbone-1a");
    }
    Study &study() { return builder.study; }
    Piece &piece(std::size_t i) { return builder.study.pieces[i]; }
    void put(std::size_t i, const LogPlace &place, double value)
    {
        const Status status = setLoggedValue(study(), piece(i), place, value);
        ASSERT_TRUE(status) << status.error().message;
    }
    std::vector<Doubt> doubts(std::size_t i)
    {
        return doubtsOf(study(), piece(i), Expectations(study(), workshop));
    }
};

double area_mm2(const Piece &piece)
{
    return in_mm2(*areaOf(*piece.section));
}

} // namespace

// Reference: R 4.2.2, mean(c(10.02, 10.04, 10.03)) = 10.03, mean(c(4.01, 4.03, 4.02)) = 4.02.
TEST(Measuring, ReadingsAreTakenTogetherByTheRule)
{
    MeasuringBench bench;
    bench.study().log.measuring.readings = 3;
    const double widths[] = {10.02, 10.04, 10.03};
    const double thicknesses[] = {4.01, 4.03, 4.02};
    for (int r = 0; r < 3; ++r) {
        bench.put(0, {LogField::Width, r}, widths[r]);
        bench.put(0, {LogField::Thickness, r}, thicknesses[r]);
    }
    EXPECT_NEAR(area_mm2(bench.piece(0)), 10.03 * 4.02, 1e-9);
    bench.study().log.measuring.rule = ReadingRule::Smallest;
    applyMeasuringRule(bench.study());
    EXPECT_NEAR(area_mm2(bench.piece(0)), 10.02 * 4.01, 1e-9);
}

TEST(Measuring, AReadingThatIsTakenAwayNoLongerCounts)
{
    MeasuringBench bench;
    bench.study().log.measuring.readings = 3;
    bench.put(0, {LogField::Width, 0}, 10.0);
    bench.put(0, {LogField::Width, 2}, 10.2);
    bench.put(0, kThickness, 4.0);
    EXPECT_NEAR(area_mm2(bench.piece(0)), 10.1 * 4.0, 1e-9) << "a reading that is skipped is none";
    ASSERT_TRUE(setLoggedValue(bench.study(), bench.piece(0), {LogField::Width, 2}, std::nullopt));
    EXPECT_NEAR(area_mm2(bench.piece(0)), 10.0 * 4.0, 1e-9);
    EXPECT_EQ(bench.piece(0).log.sizes.width_mm.size(), 1U);
}

TEST(Measuring, ASectionTypedBeforeThereWereReadingsStands)
{
    MeasuringBench bench;
    bench.piece(0).section = RectangularSection{millimetres(9.9), millimetres(3.9)};
    EXPECT_EQ(loggedValue(bench.study(), bench.piece(0), kWidth), 9.9);
    bench.put(0, kThickness, 4.1);
    EXPECT_NEAR(area_mm2(bench.piece(0)), 9.9 * 4.1, 1e-9);
}

TEST(Measuring, RefusesWhatCannotBe)
{
    MeasuringBench bench;
    for (const double value : {0.0, -4.0, std::numeric_limits<double>::quiet_NaN()})
        EXPECT_FALSE(setLoggedValue(bench.study(), bench.piece(0), kWidth, value)) << value;
    EXPECT_FALSE(setLoggedValue(bench.study(), bench.piece(0), {LogField::Width, 1}, 4.0))
        << "one reading is taken";
    EXPECT_FALSE(setLoggedValue(bench.study(), bench.piece(0), {LogField::Length, 0}, 80.0))
        << "no known length";
    EXPECT_FALSE(bench.piece(0).section);
}

TEST(Measuring, DigitsWithoutAMarkGetOneWhereNothingElseCanBeMeant)
{
    const Expected four{4.0, true};
    EXPECT_DOUBLE_EQ(withTheMark("402", 402.0, four), 4.02);
    EXPECT_DOUBLE_EQ(withTheMark("1003", 1003.0, Expected{10.0, true}), 10.03);
    EXPECT_DOUBLE_EQ(withTheMark("4.02", 4.02, four), 4.02);
    EXPECT_DOUBLE_EQ(withTheMark("402", 402.0, Expected{400.0, true}), 402.0);
    EXPECT_DOUBLE_EQ(withTheMark("40", 40.0, four), 40.0) << "two digits are no calliper reading";
    EXPECT_DOUBLE_EQ(withTheMark("402", 402.0, std::nullopt), 402.0);
    EXPECT_DOUBLE_EQ(withTheMark("900", 900.0, four), 900.0) << "9 would be as wrong";
}

TEST(Measuring, UnlikelyValuesAreAskedAboutNotRefused)
{
    MeasuringBench bench;
    bench.put(0, kWidth, 100.4);
    ASSERT_EQ(bench.doubts(0).size(), 1U);
    EXPECT_NE(bench.doubts(0)[0].sentence.find("decimal mark"), std::string::npos);
    EXPECT_NEAR(*bench.doubts(0)[0].proposed, 10.04, 1e-9);

    bench.put(1, kWidth, 12.5);
    ASSERT_EQ(bench.doubts(1).size(), 1U);
    EXPECT_NE(bench.doubts(1)[0].sentence.find("25 % above"), std::string::npos)
        << bench.doubts(1)[0].sentence;
    EXPECT_FALSE(bench.doubts(1)[0].proposed);

    bench.put(2, kWidth, 4.02);
    bench.put(2, kThickness, 10.03);
    ASSERT_EQ(bench.doubts(2).size(), 1U) << "one question, not two";
    EXPECT_TRUE(bench.doubts(2)[0].swapped);

    bench.put(3, kWidth, 10.3);
    bench.put(3, kThickness, 4.05);
    EXPECT_TRUE(bench.doubts(3).empty()) << "within the tolerance";
}

TEST(Measuring, AnAnswerSettlesADoubt)
{
    MeasuringBench bench;
    bench.put(0, kWidth, 100.4);
    ASSERT_TRUE(takeProposal(bench.study(), bench.piece(0), bench.doubts(0)[0]));
    EXPECT_NEAR(*loggedValue(bench.study(), bench.piece(0), kWidth), 10.04, 1e-9);
    EXPECT_TRUE(bench.doubts(0).empty());

    bench.put(1, kWidth, 12.5);
    confirmReading(bench.study(), bench.piece(1), bench.doubts(1)[0], "me", "now");
    EXPECT_TRUE(bench.doubts(1).empty());
    bench.put(1, kWidth, 13.0);
    EXPECT_EQ(bench.doubts(1).size(), 1U) << "another value is another question";

    bench.put(2, kWidth, 4.02);
    bench.put(2, kThickness, 10.03);
    ASSERT_TRUE(takeProposal(bench.study(), bench.piece(2), bench.doubts(2)[0]));
    EXPECT_EQ(loggedValue(bench.study(), bench.piece(2), kWidth), 10.03);
    EXPECT_TRUE(bench.doubts(2).empty());
}

TEST(Measuring, WithoutADrawnShapeTheOtherPiecesTell)
{
    MeasuringBench bench;
    firstTest(bench.study()).setup.shape = {};
    bench.put(0, kWidth, 60.0);
    EXPECT_TRUE(bench.doubts(0).empty()) << "nothing is known yet";
    for (std::size_t i = 1; i < 5; ++i)
        bench.put(i, kWidth, 6.0);
    ASSERT_EQ(bench.doubts(0).size(), 1U);
    EXPECT_NEAR(*bench.doubts(0)[0].proposed, 6.0, 1e-9);
}

TEST(Measuring, AMassIsHeldAgainstItsRail)
{
    MeasuringBench bench;
    for (std::size_t i = 0; i < 5; ++i)
        bench.put(i, kMass, 9.30 + 0.01 * static_cast<double>(i));
    bench.put(5, kMass, 93.2);
    bench.put(6, kMass, 9.9);
    ASSERT_EQ(bench.doubts(5).size(), 1U);
    EXPECT_NEAR(*bench.doubts(5)[0].proposed, 9.32, 1e-9);
    EXPECT_TRUE(bench.doubts(0).empty());
}

// Hand calculation by JCGM 100:2008, equations 13 and 16 and 4.3.7: readings 10.02, 10.04, 10.03
// and 4.01, 4.03, 4.02 (s = 0.01 each), callipers U = 0.03 mm (k = 2), steps of 0.01 mm: independent parts
// (0.01²/3 + 0.005²/3)(4.02² + 10.03²) = 0.0048651, the shared error (0.015 · 14.05)² = 0.0444156, together u
// = 0.221992 mm². A simulation with NumPy 1.24.2 (4,000,000 draws, seed 20261125) gave 0.22193.
TEST(Measuring, UncertaintyOfAnAreaFromItsCallipers)
{
    MeasuringBench bench;
    bench.study().log.measuring.readings = 3;
    const double widths[] = {10.02, 10.04, 10.03};
    const double thicknesses[] = {4.01, 4.03, 4.02};
    for (int r = 0; r < 3; ++r) {
        bench.put(0, {LogField::Width, r}, widths[r]);
        bench.put(0, {LogField::Thickness, r}, thicknesses[r]);
    }
    const GaugeCard callipers{"callipers", GaugeKind::Calliper, 150.0, 0.01, 0.03, {}, {}};
    const auto area = areaUncertainty(bench.piece(0), &callipers);
    ASSERT_TRUE(area);
    EXPECT_NEAR(area->area_mm2, 40.3206, 1e-9);
    EXPECT_NEAR(area->standard_mm2, 0.221992, 1e-6);
    EXPECT_NEAR(area->standard_mm2, 0.22193, 2e-4) << "by simulation";
    EXPECT_NEAR(area->expandedShare(), 0.0110114, 1e-6);
}

// Round: c = π d/2, one reading: u = c sqrt(0.005²/3 + 0.015²) with d = 5.02.
TEST(Measuring, UncertaintyOfARoundArea)
{
    MeasuringBench bench;
    bench.study().sectionShape = SectionShape::Round;
    bench.put(0, {LogField::Diameter, 0}, 5.02);
    const GaugeCard callipers{"callipers", GaugeKind::Calliper, 150.0, 0.01, 0.03, {}, {}};
    const auto area = areaUncertainty(bench.piece(0), &callipers);
    ASSERT_TRUE(area);
    EXPECT_NEAR(area->standard_mm2,
                0.5 * 3.14159265358979 * 5.02 * std::sqrt(0.005 * 0.005 / 3.0 + 0.015 * 0.015), 1e-9);
    EXPECT_FALSE(areaUncertainty(bench.piece(1), &callipers)) << "not measured";
    // Callipers that nobody named are taken for usual ones: 0.02 mm, k = 2, times π d / 2.
    EXPECT_FALSE(areaUncertainty(bench.piece(0), nullptr))
        << "one reading, and nothing known of the callipers";
    bench.study().log.measuring.readings = 3;
    for (const int reading : {1, 2})
        bench.put(0, {LogField::Diameter, reading}, 5.02);
    ASSERT_TRUE(areaUncertainty(bench.piece(0), nullptr));
    EXPECT_GE(areaUncertainty(bench.piece(0), nullptr)->standard_mm2, 0.01 * 0.5 * std::numbers::pi * 5.0);
}

// ISO 294-4:2018, equation 1: S = 100 (l_c - l_1)/l_c; 80 mm drawn and 79.6 mm measured are 0.5 %.
TEST(Measuring, Shrinkage)
{
    EXPECT_NEAR(shrinkage({PrintAxis::X, 80.0, 79.6}), 0.005, 1e-12);
    EXPECT_NEAR(shrinkage({PrintAxis::Z, 60.0, 60.3}), -0.005, 1e-12) << "a swollen length is below zero";
}

TEST(Measuring, AKnownLengthIsKeptByItsAxis)
{
    MeasuringBench bench;
    bench.study().log.measuring.lengthAxis = PrintAxis::X;
    bench.study().log.measuring.length_mm = 80.0;
    bench.put(0, {LogField::Length, 0}, 79.6);
    bench.study().log.measuring.lengthAxis = PrintAxis::Y;
    bench.put(0, {LogField::Length, 0}, 79.7);
    ASSERT_EQ(bench.piece(0).log.lengths.size(), 2U);
    EXPECT_EQ(loggedValue(bench.study(), bench.piece(0), {LogField::Length, 0}), 79.7);
}

// Reference: R 4.2.2, x <- 100*(80-c(79.5, 79.6, 79.7))/80: mean(x) = 0.5, sd(x) = 0.125.
TEST(LogSummary, CountsPiecesAndSumsUpTheShrinkage)
{
    MeasuringBench bench;
    Study &study = bench.study();
    EXPECT_FALSE(shrinkageSummary_percent(study).mean) << "nothing is measured";
    study.log.measuring.lengthAxis = PrintAxis::X;
    study.log.measuring.length_mm = 80.0;
    for (std::size_t i = 0; i < 3; ++i)
        bench.put(i, {LogField::Length, 0}, 79.5 + 0.1 * static_cast<double>(i));
    bench.put(0, kWidth, 10.0);
    bench.put(0, kThickness, 4.0);
    bench.put(1, kWidth, 10.0); // half a section is none
    bench.put(1, kMass, 9.3);
    const Summary summary = shrinkageSummary_percent(study);
    EXPECT_NEAR(*summary.mean, 0.5, 1e-12);
    EXPECT_NEAR(*summary.sd, 0.125, 1e-12);
    const LogCounts counts = logCounts(study);
    EXPECT_EQ(counts.measured, 1U);
    EXPECT_EQ(counts.weighed, 1U);
    EXPECT_EQ(counts.recorded + counts.pictured, 0U);
    study.log.measuring.lengthAxis = PrintAxis::Z;
    EXPECT_FALSE(shrinkageSummary_percent(study).mean) << "the lengths are of another axis";
}

} // namespace inchpeg
