// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/force_curve.h"
#include "core/import/cells.h"
#include "core/import/column.h"
#include "core/import/text.h"
#include "support/sanitized.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

std::vector<std::string> split(std::string_view line, char delimiter)
{
    std::vector<std::string_view> cells;
    splitCells(line, delimiter, cells);
    std::vector<std::string> out;
    for (std::string_view cell : cells)
        out.push_back(unquoted(cell));
    return out;
}

using Cells = std::vector<std::string>;

} // namespace

TEST(SplitCells, AtTheDelimiterOnly)
{
    EXPECT_EQ(split("a,b,,c", ','), (Cells{"a", "b", "", "c"}));
    EXPECT_EQ(split("a;b,c", ';'), (Cells{"a", "b,c"}));
    EXPECT_EQ(split("a\tb", '\t'), (Cells{"a", "b"}));
    EXPECT_EQ(split("one cell, all of it", kNoDelimiter), (Cells{"one cell, all of it"}));
    EXPECT_EQ(split("", ','), (Cells{""}));
    EXPECT_EQ(split("a,", ','), (Cells{"a", ""}));
}

TEST(SplitCells, RunsOfBlanksAreOneDelimiter)
{
    EXPECT_EQ(split("  1.0   2.0\t3.0  ", ' '), (Cells{"1.0", "2.0", "3.0"}));
    EXPECT_EQ(split("", ' '), Cells{});
}

TEST(SplitCells, QuotesHoldDelimitersAndDoubledQuotes)
{
    EXPECT_EQ(split(R"("a,b",c)", ','), (Cells{"a,b", "c"}));
    EXPECT_EQ(split(R"("say ""hm""",2)", ','), (Cells{R"(say "hm")", "2"}));
    EXPECT_EQ(split(R"( "a" , "b" )", ','), (Cells{"a", "b"}));
    EXPECT_EQ(split(R"("two words" 3)", ' '), (Cells{"two words", "3"}));
}

TEST(SplitCells, AnUnclosedQuoteIsAPlainCharacter)
{
    EXPECT_EQ(split(R"(5" pipe,3)", ','), (Cells{R"(5" pipe)", "3"}));
    EXPECT_EQ(split(R"("open,3)", ','), (Cells{R"("open)", "3"}));
}

TEST(TakeRecord, ALineEndInAQuotedCellBelongsToIt)
{
    const std::pair<std::string_view, Cells> cases[] = {
        {"a,b\nc,d", {"a,b", "c,d"}},
        {"a,\"two\nlines\",c\r\nnext", {"a,\"two\nlines\",c", "next"}},
        {"\"say \"\"a\nb\"\"\",1\n2", {"\"say \"\"a\nb\"\"\",1", "2"}},
        {"5\" pipe,3\nnext", {"5\" pipe,3", "next"}},
        {"\"open,3\nnext", {"\"open,3", "next"}},
        {"a,  \"x\n\ny\"\n", {"a,  \"x\n\ny\""}},
        {"\"a\"\n\"b\"", {"\"a\"", "\"b\""}},
    };
    for (const auto &[whole, records] : cases) {
        Cells found;
        for (std::string_view text = whole; !text.empty();)
            found.emplace_back(takeRecord(text, ','));
        EXPECT_EQ(found, records) << whole;
    }
}

TEST(TakeRecord, ManyQuotesThatAreNeverClosedTakeNoTime)
{
    constexpr std::size_t kLines = test::kSanitized ? 10000 : 40000;
    std::string whole;
    for (std::size_t i = 0; i < kLines; ++i)
        whole += "\"x\"y,\"open\n";
    std::size_t records = 0;
    for (std::string_view text = whole; !text.empty(); ++records)
        takeRecord(text, ',');
    EXPECT_EQ(records, kLines) << "an open quote stands for itself, and each line is a record";
}

TEST(CellText, IsWhatStoodThereBeforeItWasWritten)
{
    EXPECT_EQ(cellText("  a  "), "a");
    EXPECT_EQ(cellText("say \"\"hm\"\""), "say \"hm\"");
    EXPECT_EQ(cellText("'=1+1"), "=1+1");
    EXPECT_EQ(cellText("'-0.2 of it"), "-0.2 of it");
    EXPECT_EQ(cellText("'tis"), "'tis") << "an apostrophe of its own";
    EXPECT_EQ(cellText("'"), "'");
    EXPECT_EQ(cellText(""), "");
}

TEST(DelimiterOf, TabBeforeSemicolonBeforeComma)
{
    EXPECT_EQ(delimiterOf("a\tb;c,d"), '\t');
    EXPECT_EQ(delimiterOf("a;b,c"), ';');
    EXPECT_EQ(delimiterOf("a,b"), ',');
    EXPECT_EQ(delimiterOf("a"), kNoDelimiter);
}

TEST(TakeLine, KnowsEveryLineEnd)
{
    std::string_view text = "a\nb\r\nc\rd\n\ne";
    std::vector<std::string> lines;
    while (!text.empty())
        lines.emplace_back(takeLine(text));
    EXPECT_EQ(lines, (Cells{"a", "b", "c", "d", "", "e"}));
}

TEST(DecodeText, TellsEncodingsApart)
{
    EXPECT_EQ(decodeText("plain")->encoding, Encoding::Utf8);
    EXPECT_EQ(decodeText("\xEF\xBB\xBFmarked")->utf8, "marked");
    EXPECT_EQ(decodeText("gr\xC3\xBC\xC3\x9F")->encoding, Encoding::Utf8);
    const Result<DecodedText> latin = decodeText("gr\xFC\xDF");
    EXPECT_EQ(latin->encoding, Encoding::Latin1);
    EXPECT_EQ(latin->utf8, "gr\xC3\xBC\xC3\x9F");
    const Result<DecodedText> wide =
        decodeText(std::string_view("\xFF\xFE\x3D\xD8\x00\xDE", 6)); // a surrogate pair
    EXPECT_EQ(wide->encoding, Encoding::Utf16LittleEndian);
    EXPECT_EQ(wide->utf8, "\xF0\x9F\x98\x80");
}

TEST(DecodeText, LongAsciiWithOneOddByteAtTheEndIsNotUtf8)
{
    // The short way over eight characters at a time must still see the last ones.
    for (std::size_t n = 0; n < 20; ++n) {
        EXPECT_EQ(decodeText(std::string(n, 'a') + "\xE9")->encoding, Encoding::Latin1) << n;
        EXPECT_EQ(decodeText(std::string(n, 'a') + "\xC3\xA9" + std::string(n, 'b'))->encoding,
                  Encoding::Utf8)
            << n;
    }
}

namespace
{

struct HeadingCase {
    const char *heading;
    const char *unitCell;
    const char *name;
    std::optional<ColumnQuantity> quantity;
    const char *unit;
    bool crosshead = false;
};

} // namespace

TEST(Columns, AreUnderstoodFromTheirHeadings)
{
    const HeadingCase cases[] = {
        {"Force [N]", "", "Force", ColumnQuantity::Force, "N"},
        {"Force (kN)", "", "Force", ColumnQuantity::Force, "kN"},
        {"force_N", "", "force", ColumnQuantity::Force, "N"},
        {"Force / N", "", "Force", ColumnQuantity::Force, "N"},
        {"Load, lbf", "", "Load", ColumnQuantity::Force, "lbf"},
        {"Kraft", "N", "Kraft", ColumnQuantity::Force, "N"},
        {"Standard force", "[N]", "Standard force", ColumnQuantity::Force, "N"},
        {"extension_mm", "", "extension", ColumnQuantity::Extension, "mm"},
        {"Elongation [%]", "", "Elongation", ColumnQuantity::Strain, "%"},
        {"strain_mm/mm", "", "strain", ColumnQuantity::Strain, "mm/mm"},
        {"Strain [mm]", "", "Strain", ColumnQuantity::Extension, "mm"},
        {"Crosshead position (mm)", "", "Crosshead position", ColumnQuantity::Extension, "mm", true},
        {"stroke", "um", "stroke", ColumnQuantity::Extension, "µm", true},
        {"t [ms]", "", "t", ColumnQuantity::Time, "ms"},
        {"elapsed time min", "", "elapsed time", ColumnQuantity::Time, "min"},
        {"load cell temperature (°C)", "", "load cell temperature", ColumnQuantity::Temperature, "°C"},
        {"Torque [N·m]", "", "Torque", ColumnQuantity::Torque, "N·m"},
        {"twist_deg", "", "twist", ColumnQuantity::Angle, "deg"},
        {"remark", "", "remark", std::nullopt, ""},
        {"sample no", "", "sample no", std::nullopt, ""},
    };
    for (const HeadingCase &wanted : cases) {
        const Column column = understandColumn(wanted.heading, wanted.unitCell);
        EXPECT_EQ(column.name, wanted.name) << wanted.heading;
        EXPECT_EQ(column.quantity, wanted.quantity) << wanted.heading;
        EXPECT_EQ(column.unit ? std::string(column.unit->symbol) : std::string(), wanted.unit)
            << wanted.heading;
        EXPECT_EQ(column.isCrosshead, wanted.crosshead) << wanted.heading;
        EXPECT_FALSE(column.unitAssumed && !column.unit) << wanted.heading;
    }
}

TEST(Columns, AnUnknownUnitIsKeptForTheMessage)
{
    const Column column = understandColumn("Force [stone]", "");
    EXPECT_EQ(column.unknownUnitText, "stone");
    const std::string message = unknownUnitMessage(column);
    EXPECT_NE(message.find("known are N, kN"), std::string::npos) << message;
    EXPECT_NE(unknownUnitMessage(understandColumn("Load [kg]", "")).find("write kgf"), std::string::npos);
}

// The first 400 lines are of one day; read in the wrong order the next one lies a month on.
TEST(Clock, DaysThatMayBeReadBothWaysAreNotGuessedBeyondTheFirstRows)
{
    const auto record = [](const char *first, const char *next) {
        std::string text = "time,force (N)\n";
        for (int i = 0; i < 500; ++i)
            text += fmt::format("{} 23:{:02}:{:02},{}\n", first, i / 60, i % 60, i);
        return text + next + " 00:00:00,501\n";
    };
    const Result<ImportedCurve> open = importForceCurve(record("03/05/2026", "03/06/2026"));
    ASSERT_FALSE(open);
    EXPECT_NE(open.error().message.find("day and month"), std::string::npos) << open.error().message;
    const Result<ImportedCurve> told = importForceCurve(record("2026-03-05", "2026-05-05"));
    ASSERT_TRUE(told) << told.error().message;
    EXPECT_DOUBLE_EQ(told->curve.time_s.back(), 60.0 * 86400.0 + 3600.0); // 61 days from midnight, less 23 h
}

} // namespace inchpeg
