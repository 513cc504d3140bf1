// SPDX-License-Identifier: GPL-3.0-or-later
// What a data sheet says beside one's own result, and which setting is clean and strong at once.
#include "core/decide/clean_and_strong.h"
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

} // namespace inchpeg
