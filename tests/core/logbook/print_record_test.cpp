// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/random.h"
#include "core/logbook/logged_confounds.h"
#include "core/logbook/measuring.h"
#include "core/logbook/print_record.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

/// Two rails of three pieces, nozzle temperature set per plate: two plates, both printed.
struct Prints {
    test::StudyBuilder builder;
    Workshop workshop = usualWorkshop();

    Prints()
    {
        builder.rail("230", {}, Orientation::Standing, 3).rail("250", {}, Orientation::Standing, 3);
        builder.study.plan.locked = {{"part cooling", "30 %"}, {"walls", "4"}};
        EXPECT_TRUE(
            markPrinted(builder.study, layout(), layout().plates.back().number, "2026-06-01T10:00:00Z"));
    }
    Study &study() { return builder.study; }
    PlateLayout layout() { return layOutPlates(builder.study, workshop); }
    /// The plate of a rail.
    Plate plateOf(std::size_t rail)
    {
        for (const Plate &plate : layout().plates) {
            if (findPiece(study(), plate.pieces.front().piece)->condition == study().conditions[rail].id)
                return plate;
        }
        throw ContractViolation("no plate");
    }
    ComparedSetting setting(std::size_t rail, const std::string &name)
    {
        for (const ComparedSetting &one : comparedSettings(study(), plateOf(rail))) {
            if (one.name == name)
                return one;
        }
        return {};
    }
    PieceId firstOn(std::size_t rail) { return plateOf(rail).pieces.front().piece; }
};

PrintFailure warp(bool again)
{
    return {0, PrintTrouble::Warp, "a corner came off", again, "me", "2026-06-01T11:00:00Z"};
}

} // namespace

TEST(PrintRecord, SettingsAreHeldAgainstThePlan)
{
    Prints prints;
    const int plate = prints.plateOf(1).number;
    EXPECT_EQ(prints.setting(1, "nozzle temperature").planned, "250");
    EXPECT_EQ(prints.setting(1, "part cooling").planned, "30 %");
    ASSERT_TRUE(logSetting(prints.study(), plate, "nozzle temperature", "250.0 °C"));
    ASSERT_TRUE(logSetting(prints.study(), plate, "part cooling", "40"));
    ASSERT_TRUE(logSetting(prints.study(), plate, "brim", "5 mm"));
    EXPECT_FALSE(prints.setting(1, "nozzle temperature").differs) << "the same number, written otherwise";
    EXPECT_TRUE(prints.setting(1, "part cooling").isOpen());
    EXPECT_FALSE(prints.setting(1, "brim").differs) << "the plan says nothing of it";
    EXPECT_TRUE(prints.setting(0, "part cooling").real.empty()) << "another plate's record";
}

TEST(PrintRecord, ADifferenceIsAskedAboutOnce)
{
    Prints prints;
    const int plate = prints.plateOf(1).number;
    ASSERT_TRUE(logSetting(prints.study(), plate, "part cooling", "40 %"));
    ASSERT_TRUE(answerDifference(prints.study(), plate, "part cooling", {false, "me", "now"}));
    EXPECT_TRUE(prints.setting(1, "part cooling").differs);
    EXPECT_FALSE(prints.setting(1, "part cooling").isOpen());
    ASSERT_TRUE(logSetting(prints.study(), plate, "part cooling", "50 %"));
    EXPECT_TRUE(prints.setting(1, "part cooling").isOpen()) << "another value is another question";
    ASSERT_TRUE(logSetting(prints.study(), plate, "part cooling", ""));
    EXPECT_TRUE(prints.setting(1, "part cooling").real.empty());
    EXPECT_FALSE(answerDifference(prints.study(), plate, "part cooling", {true, "me", "now"}));
    EXPECT_FALSE(logSetting(prints.study(), plate, " ", "5"));
}

TEST(PrintRecord, AFailedPieceIsPrintedAgainOnAPlateOfItsOwn)
{
    Prints prints;
    const PieceId piece = prints.firstOn(1);
    const int first = prints.plateOf(1).number;
    const std::size_t plates = prints.layout().plates.size();
    ASSERT_TRUE(setLoggedValue(prints.study(), *findPiece(prints.study(), piece), {LogField::Mass, 0}, 1.5));
    ASSERT_TRUE(markFailed(prints.study(), piece, warp(true)));
    EXPECT_EQ(printState(prints.study(), *findPiece(prints.study(), piece)), PrintState::AwaitsReprint);
    EXPECT_FALSE(findPiece(prints.study(), piece)->log.mass_g) << "the mass was of the piece that failed";

    const PlateLayout again = prints.layout();
    ASSERT_EQ(again.plates.size(), plates + 1);
    EXPECT_EQ(again.plates.back().pieces.size(), 1U);
    EXPECT_EQ(again.plates.back().pieces.front().piece, piece);
    EXPECT_EQ(std::count(again.testOrder.begin(), again.testOrder.end(), piece), 1) << "tested once";
    ASSERT_TRUE(markPrinted(prints.study(), again, again.plates.back().number, "2026-06-02T10:00:00Z"));
    const Piece &printed = *findPiece(prints.study(), piece);
    EXPECT_EQ(printState(prints.study(), printed), PrintState::Printed);
    EXPECT_EQ(platesOf(prints.study(), piece), (std::vector<int>{first, again.plates.back().number}));
    ASSERT_EQ(printed.log.failures.size(), 1U) << "its history stays";
    EXPECT_EQ(printed.log.failures[0].plate, first);
    EXPECT_EQ(prints.layout().plates.size(), plates + 1) << "and it is not laid out a third time";
    EXPECT_FALSE(unmarkFailed(prints.study(), piece)) << "it is printed again by now";
}

TEST(PrintRecord, AFailureThatIsNotPrintedAgainStays)
{
    Prints prints;
    const PieceId piece = prints.firstOn(0);
    const std::size_t plates = prints.layout().plates.size();
    ASSERT_TRUE(markFailed(prints.study(), piece, warp(false)));
    EXPECT_EQ(printState(prints.study(), *findPiece(prints.study(), piece)), PrintState::Failed);
    EXPECT_EQ(prints.layout().plates.size(), plates);
    const std::vector<PieceId> order = prints.layout().testOrder;
    EXPECT_EQ(std::count(order.begin(), order.end(), piece), 0) << "it is not tested";
    EXPECT_FALSE(markFailed(prints.study(), piece, warp(true))) << "it failed already";
    ASSERT_TRUE(unmarkFailed(prints.study(), piece));
    EXPECT_EQ(printState(prints.study(), *findPiece(prints.study(), piece)), PrintState::Printed);
}

TEST(PrintRecord, APieceThatWasTestedDidNotFailInPrint)
{
    Prints prints;
    Piece &piece = *findPiece(prints.study(), prints.firstOn(0));
    piece.recording = Recording{RawFileId{5}, {}};
    EXPECT_FALSE(markFailed(prints.study(), piece.id, warp(true)));
}

TEST(PrintRecord, TimesMustBeTimes)
{
    PlateRecord record;
    record.startedAt = "2026-06-01T10:00";
    record.endedAt = "2026-06-01T09:00";
    EXPECT_FALSE(checkPlateRecord(record)) << "it would end before it begins";
    record.endedAt = "noon";
    EXPECT_NE(checkPlateRecord(record).error().message.find("noon"), std::string::npos);
    record.endedAt = "2026-06-01T12:00";
    EXPECT_TRUE(checkPlateRecord(record));
}

TEST(PrintRecord, ReadsTheHeaderOfAPrintFile)
{
    const char *text = "; made by a slicer\n"
                       "; Layer Height = 0.2\n"
                       "; nozzle_temperature = 250,250\n"
                       ";nozzle_temperature_initial_layer = 255\n"
                       "; wall-count = 4\n"
                       "; fan speed: 30%\n"
                       "; filament used [g] = 31.25\n"
                       "; estimated printing time = 1h 20m 30s\n"
                       "G28 ; home\nG1 X10\n";
    const Result<HeaderSettings> header = settingsFromHeader(text);
    ASSERT_TRUE(header) << header.error().message;
    std::map<std::string, std::string> settings;
    for (const RealSetting &setting : header->settings)
        settings[setting.name] = setting.value;
    EXPECT_EQ(settings["layer height"], "0.2");
    EXPECT_EQ(settings["walls"], "4");
    EXPECT_EQ(settings["part cooling"], "30%");
    EXPECT_EQ(settings["nozzle temperature"].substr(0, 3), "250");
    EXPECT_EQ(header->grams, 31.25);
    ASSERT_TRUE(header->minutes);
    EXPECT_NEAR(*header->minutes, 80.5, 1e-9);
    EXPECT_FALSE(settingsFromHeader("G28\nG1 X10\n")) << "no comment, no settings";
}

TEST(PrintRecord, ReadsTimesAsSlicersWriteThem)
{
    EXPECT_NEAR(*minutesFrom("1:20"), 80.0, 1e-12);
    EXPECT_NEAR(*minutesFrom("1:20:30"), 80.5, 1e-12);
    EXPECT_NEAR(*minutesFrom("2h 5m"), 125.0, 1e-12);
    EXPECT_NEAR(*minutesFrom("95 min"), 95.0, 1e-12);
    EXPECT_NEAR(*minutesFrom("1d 2h"), 1560.0, 1e-12);
    for (const char *text : {"", "soon", "5", "1h -3m", "1:x"})
        EXPECT_FALSE(minutesFrom(text)) << text;
}

TEST(LoggedConfounds, ASettingThatMovedWithTheFactorIsNamed)
{
    Prints prints;
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(0).number, "part cooling", "30 %"));
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(1).number, "part cooling", "30 %"));
    EXPECT_TRUE(loggedConfounds(prints.study(), prints.workshop).empty());
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(1).number, "part cooling", "40 %"));
    const std::vector<Confound> found = loggedConfounds(prints.study(), prints.workshop);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].weight, Confound::Weight::Aliased);
    EXPECT_NE(found[0].sentence.find("Part cooling was 40 % on 250 °C and 30 % on 230 °C"), std::string::npos)
        << found[0].sentence;
    EXPECT_NE(found[0].sentence.find("Print 250 °C once more with part cooling as on 230 °C"),
              std::string::npos)
        << "the control that separates them: " << found[0].sentence;
}

TEST(LoggedConfounds, AHeatedChamberThatWasNotPlannedIsSeen)
{
    Prints prints;
    plateRecord(prints.study().log, prints.plateOf(0).number).chamber_C = 31.0;
    plateRecord(prints.study().log, prints.plateOf(1).number).chamber_C = 52.0;
    const std::vector<Confound> found = loggedConfounds(prints.study(), prints.workshop);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_NE(found[0].sentence.find("Chamber temperature"), std::string::npos) << found[0].sentence;
}

// Chambers of N(25 °C, 1 K) differ between plates as thermometers and days do; nothing moved with the factor.
TEST(LoggedConfounds, ScatteredChamberReadingsAreNoConfound)
{
    Random random(5);
    int told = 0;
    for (int run = 0; run < 300; ++run) {
        Prints prints;
        for (const std::size_t rail : {0U, 1U})
            plateRecord(prints.study().log, prints.plateOf(rail).number).chamber_C = 25.0 + random.normal();
        told += loggedConfounds(prints.study(), prints.workshop).empty() ? 0 : 1;
    }
    EXPECT_LE(told, 3) << "of 300 studies in which nothing moved";
}

TEST(LoggedConfounds, OneSettingWrittenInTwoWaysIsOneSetting)
{
    Prints prints;
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(0).number, "bed temperature", "60"));
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(1).number, "bed temperature", "60.0 °C"));
    EXPECT_TRUE(loggedConfounds(prints.study(), prints.workshop).empty());
    ASSERT_TRUE(logSetting(prints.study(), prints.plateOf(1).number, "bed temperature", "75 °C"));
    EXPECT_FALSE(loggedConfounds(prints.study(), prints.workshop).empty());
}

TEST(PrintRecord, ListsOfEqualNumbersAreTheNumber)
{
    Prints prints;
    const int plate = prints.plateOf(1).number;
    ASSERT_TRUE(logSetting(prints.study(), plate, "nozzle temperature", "250,250"));
    EXPECT_FALSE(prints.setting(1, "nozzle temperature").differs);
    ASSERT_TRUE(logSetting(prints.study(), plate, "nozzle temperature", "250,240"));
    EXPECT_TRUE(prints.setting(1, "nozzle temperature").differs);
}

TEST(PrintRecord, MassAndTimeOfAHeaderAreThoseOfTheWholePrint)
{
    const struct {
        const char *text;
        std::optional<double> grams, minutes;
    } cases[] = {
        {"; spool weight [g] = 1000\n; filament used [g] = 31.25\n", 31.25, {}},
        {"; filament used [g] = 31.25\n; filament_spool_weight (g) = 250\n", 31.25, {}},
        {"; filament used [g] = 20.5, 10.25\n", 30.75, {}},
        {"; filament used [g] = 20.5\n; filament used [g] = 10.25\n", 30.75, {}},
        {"; filament used [g] = 20.5, 10.25\n; total filament used [g] = 33\n", 33.0, {}},
        {"; total filament used [g] = 33\n; total filament used for wipe tower [g] = 2.5\n", 33.0, {}},
        {"; estimated first layer printing time = 2m 5s\n; estimated printing time = 1h 20m\n", {}, 80.0},
        {";TIME:4800\n", {}, 80.0},
    };
    for (const auto &one : cases) {
        const Result<HeaderSettings> header = settingsFromHeader(one.text);
        ASSERT_TRUE(header) << one.text;
        EXPECT_EQ(header->grams, one.grams) << one.text;
        EXPECT_EQ(header->minutes.has_value(), one.minutes.has_value()) << one.text;
        if (header->minutes && one.minutes) {
            EXPECT_NEAR(*header->minutes, *one.minutes, 1e-9) << one.text;
        }
    }
}

} // namespace inchpeg
