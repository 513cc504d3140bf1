// SPDX-License-Identifier: GPL-3.0-or-later
// What a data sheet says beside one's own result, and which setting is clean and strong at once.
#include "core/decide/clean_and_strong.h"
#include "core/decide/own_averages.h"
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
    const std::vector<std::string> sentences =
        ownAverageSentences(here.study, compareStudy(here.study, here.readings, property), test, all, {});
    ASSERT_EQ(sentences.size(), 1U);
    EXPECT_NE(sentences[0].find("41.0 MPa (6 pieces of 2 rails in 2 studies, scatter"), std::string::npos)
        << sentences[0];
    EXPECT_TRUE(sentences[0].ends_with("here 30.5 MPa, 26 % below it.")) << sentences[0];
}

} // namespace inchpeg
