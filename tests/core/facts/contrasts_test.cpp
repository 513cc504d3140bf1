// SPDX-License-Identifier: GPL-3.0-or-later
// What else than the factors differed between rails: made logs with a known truth.
#include "core/base/random.h"
#include "core/facts/contrasts.h"
#include "core/logbook/logged_confounds.h"
#include "core/planning/plates.h"
#include "support/study_builder.h"

namespace inchpeg
{

namespace
{

bool anyHolds(const std::vector<Confound> &found, std::string_view part)
{
    return std::any_of(found.begin(), found.end(),
                       [&](const Confound &one) { return one.sentence.find(part) != std::string::npos; });
}

std::string all(const std::vector<Confound> &found)
{
    std::string text;
    for (const Confound &one : found)
        text += one.sentence + '\n';
    return text;
}

/// Rails of two plates each, two pieces on a plate; plates 1 and 2 of the first rail, 3 and 4 of the second …
struct Printed {
    test::StudyBuilder builder;

    Printed(const std::string &factor, const std::vector<std::string> &levels, const std::string &unit = "°C")
    {
        builder.study.factors.front().name = factor;
        builder.study.factors.front().unit = unit;
        for (const std::string &level : levels)
            builder.rail(level, {30.0, 31.0, 32.0, 33.0});
        int number = 0;
        for (std::size_t i = 0; i < builder.study.pieces.size(); i += 2) {
            PrintedPlate plate{++number, 1, "2026-06-01T10:00:00Z", {}};
            for (std::size_t k = i; k < i + 2; ++k)
                plate.pieces.push_back({builder.study.pieces[k].id, 0.0, 0.0, 0.0, 0.0, 0});
            builder.study.plan.print.printed.push_back(plate);
        }
    }
    Study &study() { return builder.study; }
    void log(int plate, const std::string &name, const std::string &value)
    {
        plateRecord(study().log, plate).settings.push_back({name, value, {}});
    }
    PieceReading &reading(std::size_t piece)
    {
        const PieceId id = study().pieces[piece].id;
        auto copy = std::make_shared<Result<PieceReading>>(**builder.readings[id]);
        builder.readings[id] = copy;
        return **copy;
    }
    std::vector<Confound> confounds() { return settingConfounds(study(), &builder.readings); }
};

} // namespace

TEST(Contrasts, AFanThatWentOffOnOneRailOfThreeIsNamedWithThatRail)
{
    Printed chamber("chamber temperature", {"25", "45", "60"});
    for (int plate = 1; plate <= 6; ++plate)
        chamber.log(plate, "auxiliary fan", plate <= 4 ? "70 %" : "0 %");
    const std::vector<Confound> found = chamber.confounds();
    ASSERT_EQ(found.size(), 1U) << all(found);
    EXPECT_EQ(found[0].weight, Confound::Weight::Aliased);
    EXPECT_TRUE(anyHolds(found, "Auxiliary fan was 0 % on 60 °C and 70 % on 25 °C: a difference between them "
                                "may come from either"))
        << all(found);
    EXPECT_FALSE(anyHolds(found, "45 °C"));
    EXPECT_FALSE(anyHolds(found, "adds to the scatter"));
}

TEST(Contrasts, WhatThePlanHeldAndOnePlateDidNotIsSeen)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    nozzle.study().plan.locked = {{"auxiliary fan", "40 %"}, {"walls", "4"}};
    EXPECT_TRUE(nozzle.confounds().empty()) << all(nozzle.confounds());
    nozzle.log(4, "auxiliary fan", "0 %"); // one of two plates of 250 °C; the others say nothing
    const std::vector<Confound> found = nozzle.confounds();
    ASSERT_EQ(found.size(), 1U) << all(found);
    EXPECT_TRUE(anyHolds(found, "Auxiliary fan was 0 %, 40 % on 250 °C and 40 % on 230 °C: part of what"))
        << all(found);
    const std::vector<std::string> held = heldSentences(nozzle.study());
    ASSERT_EQ(held.size(), 2U);
    EXPECT_EQ(held[0], "Held on all rails: walls 4.");
    EXPECT_EQ(held[1], "Auxiliary fan was meant to be held at 40 % and was not: 0 %, 40 %.");
    nozzle.log(3, "auxiliary fan", "0");
    EXPECT_TRUE(anyHolds(nozzle.confounds(), "may come from either")) << "the whole rail now";
}

TEST(Contrasts, WhatAllRailsHadAlikeOnlyScatters)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    for (const int plate : {1, 3})
        nozzle.log(plate, "walls", "3");
    for (const int plate : {2, 4})
        nozzle.log(plate, "walls", "4");
    const std::vector<Confound> found = nozzle.confounds();
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].weight, Confound::Weight::Mind);
    EXPECT_TRUE(anyHolds(found, "Walls were not the same throughout (3, 4)")) << all(found);
}

TEST(Contrasts, WhatFollowsFromTheFactorIsPartOfIt)
{
    Printed mode("chamber mode", {"open", "heated"}, "");
    for (int plate = 1; plate <= 4; ++plate)
        plateRecord(mode.study().log, plate).chamber_C = plate <= 2 ? 26.0 : 61.0;
    std::vector<Confound> found = mode.confounds();
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].weight, Confound::Weight::Mind);
    EXPECT_TRUE(anyHolds(found, "follows from chamber mode")) << all(found);

    Printed material("material", {"polyester", "nylon"}, "");
    for (int plate = 1; plate <= 4; ++plate)
        plateRecord(material.study().log, plate).spool = plate <= 2 ? "polyester lot 7" : "nylon lot 2";
    found = material.confounds();
    ASSERT_EQ(found.size(), 1U);
    EXPECT_TRUE(anyHolds(found, "follows from material")) << all(found);
    EXPECT_FALSE(anyHolds(found, "Print "))
        << "a rail with the one material and the other spool there is not";
}

TEST(Contrasts, DryingDayGaugeRateAndTimeMoveTogetherToo)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    TimedStep drying;
    drying.kind = StepKind::Drying;
    drying.plates = {3, 4};
    drying.wanted_h = 6.0;
    drying.temperature_C = 65.0;
    nozzle.study().log.steps.push_back(drying);
    EXPECT_TRUE(anyHolds(nozzle.confounds(), "Drying was 6 h at 65 °C on 250 °C and not logged on 230 °C"))
        << all(nozzle.confounds());

    for (const int plate : {3, 4})
        plateRecord(nozzle.study().log, plate).startedAt = "2026-06-09T08:00";
    EXPECT_TRUE(anyHolds(nozzle.confounds(), "250 °C was printed on 2026-06-09, 230 °C on 2026-06-01"))
        << all(nozzle.confounds());

    for (std::size_t i = 0; i < 8; ++i) {
        UsedGauge gauge;
        gauge.name = i < 4 ? "load cell 500 N" : "hand gauge";
        nozzle.study().pieces[i].recording->gauge = gauge;
        nozzle.reading(i).result.values.push_back(
            {"heating_rate", i < 4 ? 118.0 + static_cast<double>(i) : 51.0});
    }
    EXPECT_TRUE(anyHolds(nozzle.confounds(), "Gauge was hand gauge on 250 °C")) << all(nozzle.confounds());
    EXPECT_TRUE(anyHolds(nozzle.confounds(), "Heating rate was 51 K/h on 250 °C")) << all(nozzle.confounds());
}

TEST(Contrasts, RecordsUnderLoadOfOtherLengthsAreNotAlike)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    firstTest(nozzle.study()).method = Method::Creep;
    for (std::size_t i = 0; i < 8; ++i) {
        nozzle.study().pieces[i].test = Method::Creep;
        CurveOutline &outline = nozzle.reading(i).outline;
        outline.x = {0.0, (i < 4 ? 120.0 : 24.0) * 3600.0};
        outline.y = {0.0, 0.01};
        outline.breakAt = 1;
    }
    const std::vector<Confound> found = nozzle.confounds();
    ASSERT_EQ(found.size(), 1U) << all(found);
    EXPECT_TRUE(anyHolds(found, "The records of 250 °C end after 24 h, those of 230 °C after 120 h"))
        << all(found);
}

TEST(Contrasts, WhatWasLookedAtIsListed)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    EXPECT_EQ(lookedAtSentence(nozzle.study()),
              "Looked at: day of printing. What is not listed could not be looked at.");
    nozzle.study().plan.locked = {{"walls", "4"}};
    nozzle.log(2, "brim", "5 mm");
    EXPECT_EQ(lookedAtSentence(nozzle.study()),
              "Looked at: day of printing and walls. Known of some pieces alone: brim. What is not listed "
              "could not be looked at.");
    nozzle.study().plan.print.printed.clear();
    nozzle.study().plan.locked.clear();
    EXPECT_NE(lookedAtSentence(nozzle.study()).find("Nothing is known"), std::string::npos);
}

TEST(Contrasts, PiecesLeftOutOrOfAnotherTestSayNothing)
{
    Printed nozzle("nozzle temperature", {"230", "250"});
    nozzle.log(4, "walls", "2");
    for (int plate = 1; plate <= 3; ++plate)
        nozzle.log(plate, "walls", "4");
    EXPECT_FALSE(nozzle.confounds().empty());
    for (const std::size_t i : {6U, 7U})
        nozzle.study().pieces[i].exclusion = Exclusion{"two walls", "me", "2026-06-02T10:00:00Z"};
    EXPECT_TRUE(nozzle.confounds().empty()) << all(nozzle.confounds());
}

// A bed that is typed as its thermometer shows it, ± 0.3 K: nothing moved.
TEST(Contrasts, NumbersReadOffADisplayScatterWithoutBeingAConfound)
{
    Random random(7);
    for (int run = 0; run < 200; ++run) {
        Printed nozzle("nozzle temperature", {"230", "250"});
        for (int plate = 1; plate <= 4; ++plate)
            nozzle.log(plate, "bed temperature", std::to_string(60.0 + 0.3 * (2.0 * random.uniform() - 1.0)));
        EXPECT_TRUE(nozzle.confounds().empty()) << all(nozzle.confounds());
    }
}

} // namespace inchpeg
