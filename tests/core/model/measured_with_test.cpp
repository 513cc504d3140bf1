// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/compare/comparison.h"
#include "core/logbook/mass_check.h"
#include "core/logbook/measuring.h"
#include "core/logbook/piece_life.h"
#include "core/logbook/print_record.h"
#include "core/logbook/result_cautions.h"
#include "core/model/piece_log.h"
#include "support/log_places.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

using test::kMass;
using test::kThickness;
using test::kWidth;

Calibration byFactor(double factor, const std::string &due = "2027-01-01")
{
    return {"2026-01-01", due, {}, factor, false, {}, {}};
}

/// Two rails of four pieces, callipers that show 1 % too little and a scale that is right.
struct CalibratedBench {
    test::StudyBuilder builder;
    Workshop workshop = usualWorkshop();

    CalibratedBench()
    {
        builder.rail("230", {30.0, 31.0, 32.0, 33.0}).rail("250", {40.0, 41.0, 42.0, 43.0});
        study().log.measuring.calliper = "callipers";
        study().log.measuring.scale = "scale 200 g";
        workshop.gauges[0].calibrations = {byFactor(1.01)};
        workshop.gauges[1].calibrations = {byFactor(1.0)};
    }
    Study &study() { return builder.study; }
    Piece &piece(std::size_t i) { return builder.study.pieces[i]; }
    void put(std::size_t i, const LogPlace &place, double value, const char *day = "2026-06-01")
    {
        const Status status = setLoggedValue(study(), piece(i), place, value,
                                             measuringGauges(study().log.measuring, workshop, day));
        ASSERT_TRUE(status) << status.error().message;
    }
    double area_mm2(std::size_t i) { return in_mm2(*areaOf(*piece(i).section)); }
};

} // namespace

// By hand: 10.00 · 1.01 = 10.10 and 4.00 · 1.01 = 4.04 make 40.804 mm².
TEST(MeasuredWith, ASectionFollowsTheCalibrationOfItsCallipers)
{
    CalibratedBench bench;
    bench.put(0, kWidth, 10.0);
    bench.put(0, kThickness, 4.0);
    EXPECT_NEAR(bench.area_mm2(0), 40.804, 1e-9);
    EXPECT_EQ(loggedValue(bench.study(), bench.piece(0), kWidth), 10.0) << "what was shown is kept";
    applyMeasuringRule(bench.study());
    EXPECT_NEAR(bench.area_mm2(0), 40.804, 1e-9);
}

// By hand, along the points (shown, true) = (0, 0), (10, 10.05), (20, 20.00): 4 → 4.02, 12 → 12.04.
TEST(MeasuredWith, ACurveIsFollowedPointByPoint)
{
    CalibratedBench bench;
    Calibration curve = byFactor(1.0);
    curve.alongPoints = true;
    curve.points = {{0.0, 0.0}, {10.05, 10.0}, {20.0, 20.0}};
    bench.workshop.gauges[0].calibrations = {curve};
    bench.put(0, kWidth, 12.0);
    bench.put(0, kThickness, 4.0);
    EXPECT_NEAR(bench.area_mm2(0), 12.04 * 4.02, 1e-9);
}

TEST(MeasuredWith, AReadingKeepsTheGaugeThatItCameFrom)
{
    CalibratedBench bench;
    bench.put(0, kWidth, 10.0);
    bench.put(0, kThickness, 4.0);
    bench.put(0, kMass, 9.0);
    ASSERT_EQ(bench.piece(0).log.gauges.size(), 2U) << "one of the sizes, one of the mass";
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "thickness")->name, "callipers");
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "thickness")->usedAt, "2026-06-01");
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "mass")->name, "scale 200 g");

    // The card is edited, and later other callipers are chosen: what was read stays as it was read.
    bench.workshop.gauges[0].calibrations = {byFactor(1.5)};
    bench.study().log.measuring.calliper = "another";
    applyMeasuringRule(bench.study());
    EXPECT_NEAR(bench.area_mm2(0), 40.804, 1e-9);
    EXPECT_EQ(calliperOf(bench.study(), bench.piece(0), bench.workshop)->name, "callipers");
    EXPECT_EQ(calliperOf(bench.study(), bench.piece(1), bench.workshop), nullptr) << "there is no other";

    bench.put(0, kWidth, 10.2);
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "width"), nullptr) << "read anew, with what has no card";
    EXPECT_NE(gaugeOf(bench.piece(0).log, "thickness"), nullptr);
}

TEST(MeasuredWith, AValueThatIsTakenAwayTakesItsGaugeWithIt)
{
    CalibratedBench bench;
    bench.put(0, kWidth, 10.0);
    bench.put(0, kMass, 9.0);
    ASSERT_TRUE(setLoggedValue(bench.study(), bench.piece(0), kMass, std::nullopt,
                               measuringGauges(bench.study().log.measuring, bench.workshop, "2026-06-01")));
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "mass"), nullptr);
    ASSERT_TRUE(setLoggedValue(bench.study(), bench.piece(0), kWidth, std::nullopt));
    EXPECT_TRUE(bench.piece(0).log.gauges.empty());
}

TEST(MeasuredWith, AProposalKeepsTheGauge)
{
    CalibratedBench bench;
    firstTest(bench.study()).setup.shape = *findShape("dogbone-1a");
    bench.put(0, kWidth, 100.3);
    const std::vector<Doubt> doubts =
        doubtsOf(bench.study(), bench.piece(0), Expectations(bench.study(), bench.workshop));
    ASSERT_FALSE(doubts.empty());
    ASSERT_TRUE(takeProposal(bench.study(), bench.piece(0), doubts.front()));
    EXPECT_NEAR(*loggedValue(bench.study(), bench.piece(0), kWidth), 10.03, 1e-9);
    ASSERT_NE(gaugeOf(bench.piece(0).log, "width"), nullptr);
    EXPECT_EQ(gaugeOf(bench.piece(0).log, "width")->name, "callipers");
}

// A scale that shows half: all masses double, strength per gram halves; the spread stays.
TEST(MeasuredWith, MassesFollowTheCalibrationOfTheirScale)
{
    CalibratedBench right;
    CalibratedBench half;
    half.workshop.gauges[1].calibrations = {byFactor(2.0)};
    for (std::size_t i = 0; i < 8; ++i) {
        right.put(i, kMass, 9.0 + 0.01 * static_cast<double>(i));
        half.put(i, kMass, 9.0 + 0.01 * static_cast<double>(i));
    }
    EXPECT_EQ(*correctedMass_g(half.piece(3).log), 2.0 * *correctedMass_g(right.piece(3).log));
    const MassCheck one = checkMass(right.study(), right.workshop);
    const MassCheck two = checkMass(half.study(), half.workshop);
    EXPECT_NEAR(*two.rails[0].mass_g.mean, 2.0 * *one.rails[0].mass_g.mean, 1e-12);
    EXPECT_NEAR(*two.rails[0].mass_g.cv, *one.rails[0].mass_g.cv, 1e-12);
    EXPECT_FALSE(correctedMass_g(PieceLog{})) << "not weighed";
}

TEST(MeasuredWith, AnEndedCalibrationStaysACautionOfTheResult)
{
    CalibratedBench bench;
    bench.workshop.gauges[0].calibrations = {byFactor(1.0, "2026-03-01")};
    bench.workshop.gauges[1].calibrations = {byFactor(1.0, "2026-04-01")};
    bench.put(0, kWidth, 10.0);
    bench.put(1, kWidth, 10.0);
    bench.put(1, kMass, 9.0);
    bench.put(2, kWidth, 10.0, "2026-02-01");
    // A new calibration of the card does not make the earlier readings good.
    bench.workshop.gauges[0].calibrations = {byFactor(1.0, "2028-03-01")};
    EXPECT_EQ(resultCautions(bench.study(), bench.workshop),
              (std::vector<std::string>{
                  "2 pieces were measured with callipers after its calibration had ended on 2026-03-01.",
                  "1 piece was weighed with scale 200 g after its calibration had ended on 2026-04-01.",
                  "Nothing was logged of the prints: confounds could not be looked for."}));

    const std::vector<LifeLine> life =
        pieceLife(bench.study(), bench.piece(1), layOutPlates(bench.study(), bench.workshop), bench.workshop,
                  nullptr, {}, *momentFrom("2026-06-05T10:00"));
    int warnings = 0;
    for (const LifeLine &line : life)
        warnings += line.station == "Calibration" && line.isWarning ? 1 : 0;
    EXPECT_EQ(warnings, 2);
}

TEST(MeasuredWith, ComesBackFromTheText)
{
    CalibratedBench bench;
    bench.put(0, kWidth, 10.0);
    bench.put(0, kMass, 9.0);
    const Result<PieceLog> read = pieceLogFromText(pieceLogText(bench.piece(0).log));
    ASSERT_TRUE(read) << read.error().message;
    EXPECT_EQ(*read, bench.piece(0).log);
    const Result<PieceLog> bad = pieceLogFromText(
        R"({"measured_with":[{"fields":["width"],"gauge":{"name":"c","used_at":"2026-06-01",
            "calibration":{"on":"2026-01-01","factor":0}}}]})");
    ASSERT_FALSE(bad);
    EXPECT_NE(bad.error().message.find("measured_with"), std::string::npos) << bad.error().message;
}

TEST(MeasuredWith, AFailedPrintForgetsTheGaugesOfThePieceThatFailed)
{
    CalibratedBench bench;
    Piece &piece = bench.piece(0);
    piece.recording.reset();
    bench.study().plan.print.printed = {
        {1, 1, "2026-06-01T10:00:00Z", {{piece.id, 5.0, 5.0, 10.0, 10.0, 1}}}};
    bench.put(0, kWidth, 10.0);
    ASSERT_TRUE(markFailed(bench.study(), piece.id, {0, PrintTrouble::Warp, "", true, "me", "now"}));
    EXPECT_TRUE(piece.log.gauges.empty());
}

} // namespace inchpeg
