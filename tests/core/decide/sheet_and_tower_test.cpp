// SPDX-License-Identifier: GPL-3.0-or-later
// What a data sheet says beside one's own result, and which setting is clean and strong at once.
#include "core/decide/clean_and_strong.h"
#include "core/decide/joined_studies.h"
#include "core/decide/needs.h"
#include "core/decide/own_averages.h"
#include "core/decide/service_ties.h"
#include "core/decide/sheet_values.h"
#include "core/model/study_edit.h"
#include "core/reading/reading_settings.h"
#include "sim/virtual_judgement.h"
#include "support/study_builder.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <algorithm>

namespace inchpeg
{

namespace
{

Workshop withSheet(const std::string &material, std::vector<SheetValue> sheet)
{
    Workshop workshop = usualWorkshop();
    SpoolCard spool;
    spool.material = material;
    spool.sheet = std::move(sheet);
    workshop.spools = {spool};
    return workshop;
}

} // namespace

TEST(SheetValues, NamesOfSheetsMeanPropertiesOfTests)
{
    const Property strength = *findProperty(*reductionOf(Method::Tension), "tensile_strength");
    const Property modulus = *findProperty(*reductionOf(Method::Tension), "tensile_modulus");
    const Property heat = usualProperty(Method::HeatDeflection);
    EXPECT_TRUE(isSheetNameOf("Tensile strength", strength));
    EXPECT_FALSE(isSheetNameOf("Tensile strength", modulus));
    EXPECT_TRUE(isSheetNameOf("Young's modulus", modulus));
    EXPECT_TRUE(isSheetNameOf("heat deflection", heat));
    EXPECT_FALSE(isSheetNameOf("strength", strength)) << "of what?";
    EXPECT_FALSE(isSheetNameOf("", strength));
}

// 30.5 MPa of 3 flat pieces beside 47 MPa: 35.1 % below. The sheet's annealed value is another thing.
TEST(SheetValues, StandBesideTheOwnResultOrSayWhyNot)
{
    test::StudyBuilder builder;
    builder.rail("230", {30.0, 31.0, 30.5});
    const std::string material = builder.study.conditions[0].material;
    const Orientation orientation = builder.study.conditions[0].orientation;
    const std::string lies(orientationName(orientation));
    const std::string other(
        orientationName(orientation == Orientation::Flat ? Orientation::Standing : Orientation::Flat));
    const Workshop workshop = withSheet(material.empty() ? "polyester" : material,
                                        {{"tensile strength", 47.0, "MPa", "ISO 527", {}, lies, false},
                                         {"tensile strength", 50.0, "N/mm²", "ISO 527", {}, lies, true},
                                         {"tensile strength", 20.0, "MPa", "ISO 527", {}, other, false},
                                         {"impact strength", 5.0, "kJ/m²", "ISO 179", {}, lies, false}});
    builder.study.conditions[0].material = workshop.spools[0].material;
    const Property property = *findProperty(*reductionOf(Method::Tension), "tensile_strength");
    const StudyComparison comparison = compareStudy(builder.study, builder.readings, property);
    const Method test = methodOf(builder.study);
    const std::vector<SheetBeside> beside = sheetsBeside(builder.study, test, property, workshop);
    ASSERT_EQ(beside.size(), 3U) << "impact is another property";
    EXPECT_TRUE(beside[0].whyNot.empty()) << beside[0].whyNot;
    EXPECT_NE(beside[1].whyNot.find("annealed"), std::string::npos);
    EXPECT_NE(beside[2].whyNot.find(other), std::string::npos);
    const std::vector<std::string> sentences = sheetSentences(builder.study, comparison, test, workshop, {});
    ASSERT_EQ(sentences.size(), 3U);
    EXPECT_NE(sentences[0].find("data sheet: 47.0 MPa (ISO 527, " + lies +
                                "); here 30.5 MPa (3 pieces), 35 % below it."),
              std::string::npos)
        << sentences[0];
    EXPECT_NE(sentences[1].find("not compared"), std::string::npos);
}

TEST(SheetValues, AHeatValueUnderAnotherLoadIsNotCompared)
{
    Study study;
    study.id = StudyId{1};
    firstTest(study).method = Method::HeatDeflection;
    firstTest(study).setup.stress_MPa = 0.45;
    std::int64_t id = 1;
    ASSERT_TRUE(addCondition(study, {{}, {"a"}, Orientation::Flat, "polyester"}, [&] { return ++id; }));
    const Workshop workshop =
        withSheet("polyester", {{"heat deflection", 70.0, "°C", "ISO 75", "0.45 MPa", "flat", false},
                                {"heat deflection", 64.0, "°C", "ISO 75", "1.80 MPa", "flat", false},
                                {"heat deflection", 60.0, "°C", "ISO 75", {}, "flat", false}});
    const std::vector<SheetBeside> beside =
        sheetsBeside(study, Method::HeatDeflection, usualProperty(Method::HeatDeflection), workshop);
    ASSERT_EQ(beside.size(), 3U);
    EXPECT_TRUE(beside[0].whyNot.empty()) << beside[0].whyNot;
    EXPECT_NE(beside[1].whyNot.find("1.80 MPa"), std::string::npos);
    EXPECT_NE(beside[2].whyNot.find("does not say its load"), std::string::npos);
}

TEST(CleanAndStrong, TheSettingThatIsBothIsFound)
{
    Study study;
    study.id = StudyId{1};
    study.factors.front() = {"nozzle temperature", "°C", ChangedPer::Plate};
    study.tests = {{Method::ByFeel, 6, {}}, {Method::PrintOutcome, 4, {}}};
    PieceReadings readings;
    std::int64_t id = 1;
    const auto rail = [&](const char *level, double feel, double stringing) {
        ASSERT_TRUE(addCondition(study, {{}, {level}, Orientation::Flat, "polyester"}, [&] { return ++id; }));
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id)
                continue;
            piece.recording = Recording{RawFileId{++id}, {}};
            const std::string table = piece.test == Method::ByFeel
                                          ? sim::feelTable(feel, static_cast<std::uint64_t>(id))
                                          : fmt::format("stringing,surface\n{:g},5\n", stringing);
            readings[piece.id] = std::make_shared<const Result<PieceReading>>(readPiece(
                {piece.id, std::make_shared<const std::string>(table), {}, *readingOrder(study, piece, {})}));
            ASSERT_TRUE(*readings[piece.id]);
        }
    };
    rail("225", 1.2, 5.0);
    rail("245", 4.1, 5.0);
    rail("265", 4.2, 2.0);
    const Workshop workshop = usualWorkshop();
    const std::string both = cleanAndStrongAnswer(study, readings, workshop, {});
    EXPECT_TRUE(both.ends_with("): 245 °C.")) << both;
    for (const Piece &piece : study.pieces) { // nothing is clean any more
        if (piece.test == Method::PrintOutcome)
            readings.erase(piece.id);
    }
    EXPECT_EQ(cleanAndStrongAnswer(study, readings, workshop, {}),
              "No rail is clean: none has a median outcome of 4 or "
              "better.");
    study.tests.pop_back();
    EXPECT_TRUE(cleanAndStrongAnswer(study, readings, workshop, {}).empty());
}

// 30.5 MPa here, 40 and 42 in two other studies of 3 pieces each: 41 MPa, 26 % below it (10.5/41). A third
// study of another polymer says nothing.
TEST(OwnAverages, OfAllOtherStudiesOfThePolymer)
{
    const auto studyOf = [](std::int64_t id, const char *material, std::vector<double> values) {
        test::StudyBuilder builder;
        builder.rail("230", values);
        builder.study.id = StudyId{id};
        builder.study.conditions[0].material = material;
        return builder;
    };
    const test::StudyBuilder here = studyOf(1, "glycol-modified polyester, lot A", {30.0, 31.0, 30.5});
    const test::StudyBuilder first = studyOf(2, "glycol-modified polyester, lot B", {39.0, 40.0, 41.0});
    const test::StudyBuilder second = studyOf(3, "glycol-modified polyester", {42.0, 41.0, 43.0});
    const test::StudyBuilder other = studyOf(4, "styrenic", {90.0, 91.0, 92.0});
    std::vector<StudyResults> all;
    for (const test::StudyBuilder *one : {&here, &first, &second, &other})
        all.push_back({&one->study, &one->readings});
    const Property property = *findProperty(*reductionOf(Method::Tension), "tensile_strength");
    const Method test = methodOf(here.study);
    const std::vector<OwnAverage> averages = ownAverages(here.study, test, property, all);
    ASSERT_EQ(averages.size(), 1U);
    EXPECT_EQ(averages[0].pieces, 6U);
    EXPECT_EQ(averages[0].studies, 2U);
    EXPECT_DOUBLE_EQ(averages[0].mean, 41.0);
    EXPECT_DOUBLE_EQ(averages[0].sd, std::sqrt(10.0 / 5.0)) << "of 39, 40, 41, 42, 41, 43";
    // Their pieces are not needed: what the rails came to is enough, also as it is kept.
    std::vector<StudyValues> kept;
    std::vector<StudyResults> withoutPieces = all;
    for (const test::StudyBuilder *one : {&here, &first, &second, &other})
        kept.push_back(*studyValuesFromText(studyValuesText(studyValuesOf(one->study, one->readings))));
    for (std::size_t i = 0; i < all.size(); ++i)
        withoutPieces[i] = {all[i].study, nullptr, false, &kept[i]};
    EXPECT_EQ(ownAverages(here.study, test, property, withoutPieces), averages);
    const std::vector<std::string> sentences =
        ownAverageSentences(here.study, compareStudy(here.study, here.readings, property), test, all, {});
    ASSERT_EQ(sentences.size(), 1U);
    EXPECT_NE(sentences[0].find("41.0 MPa (6 pieces of 2 rails in 2 studies, scatter"), std::string::npos)
        << sentences[0];
    EXPECT_TRUE(sentences[0].ends_with("here 30.5 MPa, 26 % below it.")) << sentences[0];
    const std::map<ConditionId, OwnAverage> marks = averageOfRails(here.study, averages);
    ASSERT_EQ(marks.size(), 1U);
    EXPECT_EQ(marks.at(here.study.conditions.front().id).mean, 41.0);
    // Another project counts its ids from 1 as well: its study 1 is not this one.
    const test::StudyBuilder library = studyOf(1, "glycol-modified polyester", {50.0, 50.0, 50.0});
    all.push_back({&library.study, &library.readings, true});
    const std::vector<OwnAverage> wider = ownAverages(here.study, test, property, all);
    ASSERT_EQ(wider.size(), 1U);
    EXPECT_EQ(wider[0].pieces, 9U);
    EXPECT_DOUBLE_EQ(wider[0].mean, 44.0);
    EXPECT_NE(
        ownAverageSentences(here.study, compareStudy(here.study, here.readings, property), test, all, {})[0]
            .find("in all other studies and the library: 44.0 MPa"),
        std::string::npos);
}

// A bracket in three materials and a bought one, in service; coupons of two of the very materials, of the
// third only of its polymer.
TEST(ServiceTies, CouponsAndPricesStandBesideTheTrial)
{
    Study study;
    study.id = StudyId{100};
    study.tests.front().method = Method::ServiceTrial;
    study.tests.front().piecesPerCondition = 2;
    study.factors.front() = {"bracket", "", ChangedPer::Plate};
    std::int64_t id = 200;
    PieceReadings readings;
    const auto rail = [&](const char *material, const char *hours, const char *outcome, int cracks,
                          int confidence) {
        ASSERT_TRUE(
            addCondition(study, {{}, {material}, Orientation::Flat, material}, [&id] { return ++id; }));
        for (Piece &piece : study.pieces) {
            if (piece.condition != study.conditions.back().id)
                continue;
            piece.recording = Recording{RawFileId{++id}, {}};
            const std::string table = fmt::format("hours [h],outcome,cracks,confidence\n{},{},{},{}\n", hours,
                                                  outcome, cracks, confidence);
            readings[piece.id] = std::make_shared<const Result<PieceReading>>(readPiece(
                {piece.id, std::make_shared<const std::string>(table), {}, *readingOrder(study, piece, {})}));
            ASSERT_TRUE(*readings[piece.id]) << readings[piece.id]->error().message;
        }
    };
    rail("glycol-modified polyester, lot A", "900", "serves", 0, 4);
    rail("styrenic, lot B", "600", "failed", 1, 3);
    rail("low-heat polyester", "40", "failed", 2, 1);
    rail("steel bracket", "900", "serves", 0, 5);
    const auto coupons = [](std::int64_t number, const char *material, Orientation orientation, Method test,
                            std::vector<double> values) {
        test::StudyBuilder builder;
        builder.rail("1", values, orientation);
        builder.study.id = StudyId{number};
        firstTest(builder.study).method = test;
        for (Piece &piece : builder.study.pieces)
            piece.test = test;
        builder.study.conditions[0].material = material;
        return builder;
    };
    const test::StudyBuilder a =
        coupons(1, "glycol-modified polyester, lot A", Orientation::Flat, Method::Tension, {46.0, 48.0});
    const test::StudyBuilder b =
        coupons(2, "styrenic, lot C", Orientation::Flat, Method::Tension, {39.0, 41.0});
    const test::StudyBuilder c =
        coupons(3, "low-heat polyester", Orientation::Flat, Method::Tension, {54.0, 56.0});
    const test::StudyBuilder d = coupons(4, "glycol-modified polyester, lot A", Orientation::Standing,
                                         Method::LayerAdhesion, {25.0, 27.0});
    std::vector<StudyResults> all;
    for (const test::StudyBuilder *one : {&a, &b, &c, &d})
        all.push_back({&one->study, &one->readings});
    Workshop workshop = usualWorkshop();
    const std::vector<BoughtPart> bought{{"Steel bracket", 4.2}};
    const std::vector<std::string> told = serviceTies(study, readings, all, workshop, bought, {});
    ASSERT_EQ(told.size(), 5U);
    EXPECT_TRUE(told[0].starts_with(
        "glycol-modified polyester, lot A: 2 parts served 900 h or more (2 still do), no crack was heard; "
        "coupons hold 47.0 MPa flat (2 pieces) and 26.0 MPa across the layers (2 pieces); "))
        << told[0];
    EXPECT_TRUE(told[1].starts_with(
        "styrenic, lot B: 2 parts served 600 h, cracks were heard 2 times; coupons hold 40.0 MPa flat "
        "(2 pieces of the polymer)"))
        << told[1];
    EXPECT_EQ(told[3], "steel bracket: 2 parts served 900 h or more (2 still do), no crack was heard; no "
                       "coupon of it was tested; "
                       "one costs 4.20 EUR to buy.");
    // Coupons 47, 40, 55 against confidence 4, 3, 1: only glycol over styrenic agrees.
    EXPECT_EQ(told[4],
              "The order of the coupons and of the confidence in service agree in 1 of 3 pairs of rails.");
    EXPECT_TRUE(serviceTies(a.study, a.readings, all, workshop, bought, {}).empty());
}

namespace
{

test::StudyBuilder insertStudy(std::int64_t id, const char *factor, const char *unit, const char *held,
                               const char *value)
{
    test::StudyBuilder builder;
    builder.study.id = StudyId{id};
    builder.study.question = fmt::format("Which {}?", factor);
    builder.study.factors.front() = {factor, unit, ChangedPer::Plate};
    builder.study.plan.locked = {{held, value}};
    return builder;
}

} // namespace

// One study varied the setting temperature at 10 N, the other the setting load at 220 °C: they share 220 °C
// at 10 N.
TEST(JoinedStudies, AreJoinedByTheRailThatTheyShare)
{
    test::StudyBuilder here = insertStudy(1, "setting temperature", "°C", "setting load", "10 N");
    here.rail("220", {20.0, 21.0, 19.0, 20.0}).rail("240", {25.0, 26.0, 24.0, 25.0});
    test::StudyBuilder there = insertStudy(2, "setting load", "N", "setting temperature", "220 °C");
    there.rail("10", {20.5, 19.5, 20.0, 21.0}).rail("40", {15.0, 16.0, 14.0, 15.0});
    there.study.plan.locked.push_back({"depth", "6 mm"});
    const std::vector<StudyResults> all{{&here.study, &here.readings}, {&there.study, &there.readings}};
    const auto joined = [&] {
        return joinedStudies(here.study, test::strengthCompared(here), methodOf(here.study), all, {});
    };
    const std::vector<std::string> told = joined();
    ASSERT_EQ(told.size(), 1U);
    // By hand: here 20.0 (sd 0.8165), there 20.25 (0.6455), 15.0 (0.8165), n = 4. 20.25/20 = 1.0125; u
    // = 4.167e-4 and 2.540e-4, df = (6.707e-4)²/((4.167e-4)²/3 + (2.540e-4)²/3) = 5.67, t = 2.481, half
    // 0.0643. 15/20.25 = 0.7407; u = 7.407e-4 + 2.540e-4, df 4.84, t = 2.598, half 0.0819: 0.682 to 0.804.
    EXPECT_EQ(told[0],
              "Joined by 220 °C with \"Which setting load?\": there +1.3 % beside here (−5.1 to 8.0 %), "
              "4 and 4 pieces. Held "
              "otherwise: depth 6 mm there, not said here. By way of it, beside 220 °C, each by "
              "itself: 40 N −26 % (−32 to −20 %).");
    const StudyValues kept =
        *studyValuesFromText(studyValuesText(studyValuesOf(there.study, there.readings)));
    EXPECT_EQ(kept, studyValuesOf(there.study, there.readings)) << "bit for bit";
    const std::vector<StudyResults> withoutPieces{{&there.study, nullptr, false, &kept}};
    EXPECT_EQ(
        joinedStudies(here.study, test::strengthCompared(here), methodOf(here.study), withoutPieces, {}),
        told);
    EXPECT_FALSE(studyValuesFromText("[{\"test\": \"tension\"}]"));
    EXPECT_FALSE(
        studyValuesFromText("[{\"test\": \"shouting\", \"property\": \"loudness\", \"rails\": []}]"));
    // Another setting that differs is said; a rail that came out otherwise joins nothing.
    here.study.plan.locked.push_back({"depth", "8 mm"});
    EXPECT_NE(joined()[0].find("depth 8 mm here, 6 mm there"), std::string::npos) << joined()[0];
    test::StudyBuilder stronger = insertStudy(3, "setting load", "N", "setting temperature", "220 °C");
    stronger.rail("10", {30.5, 29.5, 30.0, 31.0}).rail("40", {15.0, 16.0, 14.0, 15.0});
    const std::vector<StudyResults> apart{{&here.study, &here.readings},
                                          {&stronger.study, &stronger.readings}};
    const std::vector<std::string> refused =
        joinedStudies(here.study, test::strengthCompared(here), methodOf(here.study), apart, {});
    ASSERT_EQ(refused.size(), 1U);
    EXPECT_NE(refused[0].find("they are told apart"), std::string::npos);
    EXPECT_EQ(refused[0].find("By way of it"), std::string::npos);
    // At another temperature nothing is shared.
    there.study.plan.locked[0].value = "260 °C";
    EXPECT_TRUE(joined().empty());
}

TEST(Needs, AGradeComesFromATestThatGivesOne)
{
    const auto needs = [](const char *test) {
        return needsFromText(
            fmt::format(R"({{"needs":[{{"name":"clean","kind":"grade","limit":4,"test":"{}"}}]}})", test));
    };
    EXPECT_TRUE(needs("by feel")) << needs("by feel").error().message;
    EXPECT_TRUE(needs("print outcome"));
    for (const char *test : {"pairs by feel", "tension", "service trial"}) {
        const auto refused = needs(test);
        ASSERT_FALSE(refused) << test;
        EXPECT_NE(refused.error().message.find("gives no grades"), std::string::npos)
            << refused.error().message;
    }
}

} // namespace inchpeg
