// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/logbook/typed_record.h"
#include "core/reading/piece_reading.h"
#include "support/read_value.h"

#include <gtest/gtest.h>

#include <cctype>

namespace inchpeg
{

namespace
{

std::vector<Unit> workingUnits(const Reduction &reduction)
{
    std::vector<Unit> units;
    for (const TypedColumn &column : typedColumns(reduction))
        units.push_back(workingUnit(column.dimension.value_or(Dimension::Number)));
    return units;
}

std::string textOf(const TypedRecord &record, Method method)
{
    const Reduction &reduction = *reductionOf(method);
    const Result<std::string> text = typedRecordText(record, reduction, workingUnits(reduction));
    EXPECT_TRUE(text) << (text ? "" : text.error().message);
    return *text;
}

/// Read as a piece's record would be.
Result<PieceReading> readTyped(const TypedRecord &record, Method method, MethodSettings settings)
{
    return readPiece({PieceId{1},
                      std::make_shared<const std::string>(textOf(record, method)),
                      {},
                      {reductionOf(method), std::move(settings), {}, record.code}});
}

} // namespace

// "failed" was made FAILED and refused: each test takes each of its own words, however it is written.
TEST(TypedRecord, EveryTestTakesItsOwnWords)
{
    std::size_t words = 0;
    for (const MethodFacts &test : allMethods()) {
        for (const TypedColumn &column : typedColumns(*test.reduction)) {
            for (const std::string_view word : column.choices) {
                std::string capitals(word);
                for (char &c : capitals)
                    c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
                EXPECT_EQ(choiceFrom(word, column.choices), word) << test.name;
                EXPECT_EQ(choiceFrom(" " + capitals + " ", column.choices), word) << test.name;
                ++words;
            }
        }
    }
    EXPECT_GT(words, 20U);
}

TEST(TypedRecord, AServiceTrialIsTypedInHours)
{
    const Reduction &service = *reductionOf(Method::ServiceTrial);
    std::vector<Unit> units = workingUnits(service);
    const std::vector<TypedColumn> columns = typedColumns(service);
    ASSERT_TRUE(columns[0].isInHours) << "nobody counts a bracket's service in seconds";
    units[0] = *findUnit("h");
    TypedRecord record;
    record.code = "A1";
    record.rows = {{{"380", "Fail", "2", "1", "0"}, "2026-06-01T08:00:00Z"}};
    const Result<std::string> text = typedRecordText(record, service, units);
    ASSERT_TRUE(text) << text.error().message;
    const Result<PieceReading> reading = readPiece(
        {PieceId{1}, std::make_shared<const std::string>(*text), {}, {&service, {}, {}, record.code}});
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_NEAR(test::readValue(reading->result, "service_hours"), 380.0, 1e-9);
}

TEST(TypedRecord, ThePeakOfAHandScaleIsARecord)
{
    const TypedRecord record{"A1", "me", "luggage scale", {{{"23.4 kgf"}, "2026-06-01T10:00:00Z"}}};
    const Result<PieceReading> reading = readTyped(record, Method::Tension, {{{"area", 20.0}}, {}});
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_NEAR(test::readValue(reading->result, "peak_force"), 23.4 * 9.80665, 1e-9);
    EXPECT_NEAR(test::readValue(reading->result, "tensile_strength"), 23.4 * 9.80665 / 20.0, 1e-9);
    EXPECT_EQ(valueOf(reading->result.values, "tensile_modulus"), nullptr);
    EXPECT_FALSE(reading->result.warnings.empty());
}

TEST(TypedRecord, ASwingAndItsKindOfBreakAreARecord)
{
    const MethodSettings rig{{{"mass", 0.5},
                              {"arm", 300.0},
                              {"release", 150.0},
                              {"free_swing", 148.0},
                              {"width", 10.0},
                              {"thickness", 4.0}},
                             {}};
    const TypedRecord record{"B2", "me", "pointer", {{{"120", "8", "N"}, "2026-06-01T10:00:00Z"}}};
    const Result<PieceReading> reading = readTyped(record, Method::Impact, rig);
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(reading->result.kind, "no break");
    EXPECT_EQ(valueOf(reading->result.values, "impact_strength")->bound, BoundReason::NoBreak);
}

TEST(TypedRecord, CreepTimesFollowFromWhenTheRowsWereTyped)
{
    TypedRecord record{"A1", "me", "", {}};
    for (int day = 1; day <= 6; ++day)
        record.rows.push_back(
            {{"", std::to_string(1.0 + 0.1 * day)}, "2026-06-0" + std::to_string(day) + "T10:00:00Z"});
    const Result<PieceReading> reading =
        readTyped(record, Method::Creep, {{{"thickness", 4.0}, {"span", 64.0}, {"stress", 10.0}}, {}});
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_EQ(reading->outline.x.front(), 0.0);
    EXPECT_EQ(reading->outline.x.back(), 5.0 * 86400.0);
    EXPECT_TRUE(reading->outline.isPoints);
}

TEST(TypedRecord, MassesThatHangThereAreLoads)
{
    const TypedRecord record{"A1",
                             "me",
                             "dial",
                             {{{"2.5 kg", "1", "0.52"}, "2026-06-01T10:00:00Z"},
                              {{"2.5 kg", "60", "0.53"}, "2026-06-01T10:01:00Z"}}};
    const Result<PieceReading> reading =
        readTyped(record, Method::BendSteps, {{{"width", 10.0}, {"thickness", 4.0}, {"span", 50.0}}, {}});
    ASSERT_TRUE(reading) << reading.error().message;
    EXPECT_NEAR(test::readValue(reading->result, "steady_load"), 2.5 * 9.80665, 1e-9);
}

TEST(TypedRecord, WhatWasTypedComesBack)
{
    const TypedRecord record{"A1",
                             "T. Ester",
                             "dial gauge",
                             {{{"2.5 kg", "1", "0,52 mm"}, "2026-06-01T10:00:00Z"},
                              {{"24.5", "", "0.53"}, "2026-06-01T10:01:00Z"}}};
    const std::string text = textOf(record, Method::BendSteps);
    const std::optional<TypedRecord> back = typedRecordFrom(text, *reductionOf(Method::BendSteps));
    ASSERT_TRUE(back);
    EXPECT_EQ(*back, record) << text;
    EXPECT_FALSE(typedRecordFrom(text, *reductionOf(Method::Creep)));
    EXPECT_FALSE(typedRecordFrom("force_N\n1\n", *reductionOf(Method::BendSteps)));
    EXPECT_FALSE(typedRecordFrom("", *reductionOf(Method::BendSteps)));
}

// A reading that was typed in hours and inches is gone on with by somebody who is shown seconds and
// millimetres.
TEST(TypedRecord, IsGoneOnWithInWhateverUnitsAreShown)
{
    const Reduction &creep = *reductionOf(Method::Creep);
    std::vector<Unit> units = workingUnits(creep);
    const std::vector<TypedColumn> columns = typedColumns(creep);
    for (std::size_t c = 0; c < columns.size(); ++c) {
        if (columns[c].name == "time")
            units[c] = *findUnit("h");
        if (columns[c].name == "deflection")
            units[c] = *findUnit("in");
    }
    const TypedRecord record{"A1", "me", "dial", {{{"24", "0.1", "", "1.25 kg"}, "2026-06-01T10:00:00Z"}}};
    const Result<std::string> text = typedRecordText(record, creep, units);
    ASSERT_TRUE(text) << text.error().message;
    const std::optional<TypedRecord> back = typedRecordWithUnits(*text, creep);
    ASSERT_TRUE(back);
    EXPECT_EQ(back->rows.front().cells[0], "86400 s");
    EXPECT_EQ(back->rows.front().cells[1], "2.54 mm");
    EXPECT_EQ(back->rows.front().cells[2], "");
    const Result<std::string> again = typedRecordText(*back, creep, workingUnits(creep));
    ASSERT_TRUE(again) << again.error().message;
    const std::string values = text->substr(0, text->find('"'));
    EXPECT_EQ(again->substr(0, again->find('"')), values) << "the same values";
}

TEST(TypedRecord, WhatCannotBeIsToldWithItsPlace)
{
    const Reduction &reduction = *reductionOf(Method::BendSteps);
    const auto refused = [&](std::vector<std::string> cells) {
        const TypedRecord record{"A1", "me", "", {{std::move(cells), "2026-06-01T10:00:00Z"}}};
        const Result<std::string> text = typedRecordText(record, reduction, workingUnits(reduction));
        return text ? std::optional<TextPosition>() : text.error().position;
    };
    EXPECT_EQ(refused({"much", "1", "0.5"}), (TextPosition{1, 1}));
    EXPECT_EQ(refused({"2.5 kg", "1", ""}), (TextPosition{1, 3}));
    EXPECT_EQ(refused({"2.5 kg", "1", "0.5 s"}), (TextPosition{1, 3}));
    const Reduction &pendulum = *reductionOf(Method::Impact);
    const TypedRecord oddBreak{"A1", "me", "", {{{"120", "", "Q"}, "2026-06-01T10:00:00Z"}}};
    EXPECT_FALSE(typedRecordText(oddBreak, pendulum, workingUnits(pendulum)));
    EXPECT_FALSE(typedRecordText({"A1", "me", "", {{{}, ""}}}, reduction, workingUnits(reduction)));
}

} // namespace inchpeg
