// SPDX-License-Identifier: GPL-3.0-or-later
// Markers placed by hand and rules that differ from the usual ones, on records whose truth is a formula.
#include "core/model/study_edit.h"
#include "core/reading/piece_reading.h"
#include "core/reading/reading_text.h"
#include "support/matching_digits.h"
#include "support/read_value.h"
#include "support/study_builder.h"
#include "support/tensile_order.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

using test::matchingDigits;

/// 2000 MPa to a strain of 0.01, then 200 MPa to 0.05, then the force is gone; area 1 mm², gauge length 100
/// mm.
ForceCurve hardening()
{
    ForceCurve curve;
    for (int i = 0; i <= 500; ++i) {
        const double strain = 1e-4 * i;
        curve.force_N.push_back(strain < 0.01 ? 2000.0 * strain : 20.0 + 200.0 * (strain - 0.01));
        curve.extension_mm.push_back(100.0 * strain);
    }
    curve.force_N.push_back(0.0);
    curve.extension_mm.push_back(5.01);
    return curve;
}

TensileParameters handMarkedUsual()
{
    TensileParameters parameters;
    parameters.area = squareMillimetres(1.0);
    parameters.gaugeLength = millimetres(100.0);
    return parameters;
}

TensileResult reduced(const TensileParameters &parameters)
{
    const Result<TensileResult> result = reduceTensile(hardening(), parameters);
    EXPECT_TRUE(result) << (result ? "" : result.error().message);
    return *result;
}

} // namespace

TEST(HandMarkers, AModulusRangeByHandMovesOnlyTheModulusAndWhatFollowsFromIt)
{
    TensileParameters parameters = handMarkedUsual();
    const TensileResult found = reduced(parameters);
    EXPECT_GE(matchingDigits(*found.tensileModulus_MPa, 2000.0), 9);
    parameters.markers.modulusFrom = 0.02;
    parameters.markers.modulusTo = 0.04;
    const TensileResult placed = reduced(parameters);
    EXPECT_GE(matchingDigits(*placed.tensileModulus_MPa, 200.0), 9) << "the slope of the second part";
    EXPECT_EQ(placed.tensileStrength_MPa, found.tensileStrength_MPa);
    EXPECT_EQ(placed.energyToBreak_J, found.energyToBreak_J);
}

TEST(HandMarkers, StrengthYieldAndBreakAreReadAtTheirSamples)
{
    TensileParameters parameters = handMarkedUsual();
    parameters.markers.strength = 300;
    parameters.markers.yield = 100;
    parameters.markers.lastBeforeBreak = 400;
    const TensileResult result = reduced(parameters);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 24.0), 12) << "20 + 200 (0.03 - 0.01)";
    EXPECT_GE(matchingDigits(*result.strainAtStrength, 0.03), 12);
    EXPECT_GE(matchingDigits(*result.yieldStress_MPa, 20.0), 12);
    EXPECT_GE(matchingDigits(*result.yieldStrain, 0.01), 12);
    EXPECT_GE(matchingDigits(*result.stressAtBreak_MPa, 26.0), 12);
    // ½·20·0.01 + (20 + 26)/2·0.03, in MPa = MJ/m³.
    EXPECT_GE(matchingDigits(*result.toughness_MJ_per_m3, 0.1 + 0.69), 9);
    EXPECT_TRUE(result.markers.broke);
}

TEST(HandMarkers, AToeByHandIsTakenOffEveryStrain)
{
    TensileParameters parameters = handMarkedUsual();
    parameters.markers.toeStrain = 0.001;
    const TensileResult result = reduced(parameters);
    EXPECT_EQ(result.toeStrain, 0.001);
    EXPECT_GE(matchingDigits(*result.strainAtBreak, 0.049), 12);
    EXPECT_GE(matchingDigits(*result.tensileModulus_MPa, 2000.0), 9) << "a shift changes no slope";
}

TEST(HandMarkers, APersonMaySayThatThereIsNoYield)
{
    ForceCurve curve = hardening();
    for (double &force : curve.force_N)
        force = std::min(force, 22.0); // a plateau: found as a yield
    const TensileParameters parameters = handMarkedUsual();
    EXPECT_TRUE(reduceTensile(curve, parameters)->yieldStress_MPa);
    TensileParameters without = parameters;
    without.markers.noYield = true;
    EXPECT_FALSE(reduceTensile(curve, without)->yieldStress_MPa);
}

TEST(HandMarkers, ABreakBeforeThePeakTakesTheStrengthFromWhatIsLeft)
{
    TensileParameters parameters = handMarkedUsual();
    parameters.markers.lastBeforeBreak = 50;
    const TensileResult result = reduced(parameters);
    EXPECT_GE(matchingDigits(*result.tensileStrength_MPa, 10.0), 12);
    EXPECT_GE(matchingDigits(*result.strainAtBreak, 0.005), 9);
}

TEST(HandMarkers, APlaceOutsideTheRecordIsRefusedWithAWayOut)
{
    TensileParameters parameters = handMarkedUsual();
    parameters.markers.strength = 5000;
    const Result<TensileResult> result = reduceTensile(hardening(), parameters);
    ASSERT_FALSE(result);
    EXPECT_EQ(result.error().message,
              "the strength was placed at sample 5001, but the record holds 502; place it "
              "again or set it back to automatic");
}

TEST(HandMarkers, OffsetAndBreakDropAreSaidForTheTest)
{
    TensileParameters parameters = handMarkedUsual();
    // The line 2000 (ε − 0.005) meets 20 + 200 (ε − 0.01) at ε = 28/1800.
    parameters.offsetStrain = 0.005;
    const TensileResult result = reduced(parameters);
    EXPECT_GE(matchingDigits(*result.offsetYieldStrain, 28.0 / 1800.0), 6) << "linear between samples";
    ForceCurve sag = hardening();
    sag.force_N[499] *= 0.6; // a fall of 40 %, then up again
    TensileParameters strict = handMarkedUsual();
    EXPECT_EQ(reduceTensile(sag, strict)->markers.lastBeforeBreak, 500U);
    strict.breakDrop = 0.3;
    EXPECT_EQ(reduceTensile(sag, strict)->markers.lastBeforeBreak, 498U);
}

TEST(PlaceMarker, NeedsARecordAReasonAndAPlaceThatMakesSense)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0});
    Piece &piece = builder.study.pieces[0];
    const auto refusal = [&](const char *marker, const HandMarker &placed) {
        const Status status = placeMarker(piece, Method::LayerAdhesion, marker, placed);
        return status ? std::string() : status.error().message;
    };
    EXPECT_NE(refusal("break", {10.0, " ", "me", ""}).find("say why"), std::string::npos);
    EXPECT_NE(refusal("break", {std::nullopt, "why", "me", ""}).find("needs a place"), std::string::npos);
    EXPECT_NE(refusal("break", {-1.0, "why", "me", ""}).find("before the record"), std::string::npos);
    EXPECT_EQ(refusal("yield", {std::nullopt, "none seen", "me", ""}), "");
    EXPECT_EQ(refusal("modulus_to", {0.002, "bent", "me", ""}), "");
    EXPECT_NE(refusal("modulus_from", {0.002, "bent", "me", ""}).find("start must lie before its end"),
              std::string::npos);
    clearMarker(piece, "yield");
    EXPECT_EQ(piece.markers.size(), 1U);
    setRecording(piece, Recording{RawFileId{77}, {}});
    EXPECT_TRUE(piece.markers.empty()) << "another record has other samples";
    piece.recording.reset();
    EXPECT_NE(refusal("toe", {0.001, "why", "me", ""}).find("no record"), std::string::npos);
    EXPECT_NE(refusal("sag", {0.001, "why", "me", ""}).find("has no marker"), std::string::npos);
}

TEST(PieceReading, KeepsTheAutomaticValuesBesideThoseByHand)
{
    std::string text = "force_N,extension_mm\n";
    const ForceCurve curve = hardening();
    for (std::size_t i = 0; i < curve.force_N.size(); ++i)
        text += fmt::format("{},{}\n", curve.force_N[i], curve.extension_mm[i]);
    ReadingJob job{
        PieceId{1}, std::make_shared<const std::string>(text), {}, test::tensileOrder(handMarkedUsual())};
    const Result<PieceReading> automatic = readPiece(job);
    ASSERT_TRUE(automatic) << automatic.error().message;
    EXPECT_FALSE(automatic->automatic);
    EXPECT_EQ(automatic->outline.x.size(), curve.force_N.size()) << "a short record is its own outline";
    EXPECT_TRUE(automatic->result.columns.empty()) << "the samples are not kept";
    job.order.placed["strength"] = 300.0;
    const Result<PieceReading> placed = readPiece(job);
    ASSERT_TRUE(placed && placed->automatic);
    EXPECT_EQ(placed->automatic->values, automatic->result.values);
    EXPECT_EQ(placed->automatic->marks, automatic->result.marks);
    EXPECT_GE(matchingDigits(test::readValue(placed->result, "tensile_strength"), 24.0), 9);
    const std::vector<Mark> &marks = placed->result.marks;
    const auto point =
        std::find_if(marks.begin(), marks.end(), [](const Mark &mark) { return mark.name == "strength"; });
    ASSERT_NE(point, marks.end());
    EXPECT_EQ(point->place, 300.0);
    EXPECT_GE(matchingDigits(point->x, 0.03), 9);

    Result<PieceReading> back = readingFromText(readingText(*placed));
    ASSERT_TRUE(back) << back.error().message;
    back->outline.x = placed->outline.x; // kept apart, as bytes
    back->outline.y = placed->outline.y;
    EXPECT_EQ(*back, *placed);
}

TEST(PieceReading, ALongRecordIsKeptAsAThinOutlineWithTheSameNumbers)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i <= 50000; ++i)
        text += fmt::format("{},{}\n", 0.001 * i, 0.0001 * i);
    text += "0,5.0001\n";
    const Result<PieceReading> reading = readPiece(
        {PieceId{1}, std::make_shared<const std::string>(text), {}, test::tensileOrder(handMarkedUsual())});
    ASSERT_TRUE(reading);
    EXPECT_EQ(reading->samples, 50002U);
    EXPECT_LT(reading->outline.x.size(), 5000U);
    EXPECT_EQ(reading->outline.y[reading->outline.breakAt], 50.0);
}

TEST(ReadingText, GarbageIsRefused)
{
    for (const char *text : {"", "{", "[]", "{}", R"({"result":3})", "\xFF\xFE"})
        EXPECT_FALSE(readingFromText(text)) << text;
}

TEST(ReadingText, InputsDifferWhereverAReadingWould)
{
    std::set<std::string> seen;
    const Recording recording{RawFileId{3}, {}};
    const auto add = [&](const TensileParameters &parameters, const Recording &from) {
        const std::string inputs = readingInputs(from, test::tensileOrder(parameters));
        EXPECT_TRUE(seen.insert(inputs).second) << inputs;
    };
    TensileParameters p = handMarkedUsual();
    add(p, recording);
    add(p, {RawFileId{4}, {}});
    add(p, {RawFileId{3}, {{}, {{ColumnQuantity::Force, "kgf", false}}}});
    add(p, {RawFileId{3}, {2, {}}});
    const std::function<void(TensileParameters &)> changes[] = {
        [](auto &q) { q.area = squareMillimetres(1.0 + 1e-15); },
        [](auto &q) { q.gaugeLength.reset(); },
        [](auto &q) { q.gripDistance = millimetres(3); },
        [](auto &q) { q.capacity = newtons(5); },
        [](auto &q) { q.toeCorrection = false; },
        [](auto &q) { q.lowStrain = 0.0006; },
        [](auto &q) { q.highStrain = 0.003; },
        [](auto &q) { q.offsetStrain = 0.001; },
        [](auto &q) { q.breakDrop = 0.4; },
        [](auto &q) { q.markers.toeStrain = 0.0; },
        [](auto &q) { q.markers.modulusFrom = 0.0; },
        [](auto &q) { q.markers.modulusTo = 0.0; },
        [](auto &q) { q.markers.strength = 0; },
        [](auto &q) { q.markers.yield = 0; },
        [](auto &q) { q.markers.noYield = true; },
        [](auto &q) { q.markers.lastBeforeBreak = 0; }};
    for (const auto &change : changes) {
        TensileParameters q = handMarkedUsual();
        change(q);
        add(q, recording);
    }
}

} // namespace inchpeg
