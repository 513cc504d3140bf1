// SPDX-License-Identifier: GPL-3.0-or-later
// Every kind of bad file gets a sentence that says what, where and what would be right.
#include "core/curve/force_curve.h"
#include "core/reading/piece_reading.h"
#include "support/tensile_order.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

struct BadCase {
    const char *name;
    std::string bytes;
    const char *says;
    std::optional<TextPosition> position;
};

std::ostream &operator<<(std::ostream &out, const BadCase &tested)
{
    return out << tested.name;
}

std::vector<BadCase> badFiles()
{
    const std::string good = "force_N,extension_mm\n0,0\n1,0.1\n2,0.2\n";
    return {
        {"empty", "", "empty", {}},
        {"only blank lines", "\n \r\n\t\n", "blank", {}},
        {"header only", "force_N,extension_mm\n", "no data row", {}},
        {"no force column", "time_s,extension_mm\n0,0\n1,0.1\n2,0.2\n", "no force column",
         TextPosition{1, {}}},
        {"unknown unit", "force [stone],extension [mm]\n0,0\n1,0.1\n2,0.2\n", "\"stone\"",
         TextPosition{1, 1}},
        {"mass for a force", "force [kg],extension [mm]\n0,0\n1,0.1\n2,0.2\n", "kgf", TextPosition{1, 1}},
        {"row too long", good + "3,0.3,9\n4,0.4\n", "3 cells", TextPosition{5, 3}},
        {"text among numbers", good + "three,0.3\n4,0.4\n", "\"three\" is not a number", TextPosition{5, 1}},
        {"NaN", good + "NaN,0.3\n4,0.4\n", "not a finite number", TextPosition{5, 1}},
        {"overflow", good + "3,1e999\n4,0.4\n", "not a finite number", TextPosition{5, 2}},
        {"mixed decimal marks", "force [N];extension [mm]\n0,5;0,1\n1,5;0,2\n2,5;0,3\n3.5;0.4\n4,5;0,5\n",
         "decimal mark", TextPosition{5, 1}},
        {"binary",
         std::string("\x7F\x45LF\x02\x01\x00\x00\x00\x13\xFF\xD8", 12).append(50, '\0'),
         "not text",
         {}},
        {"prose", "this is a letter\nabout something else\nand no table\n", "no data row", {}},
        {"same name twice", "force_N,force_N,extension_mm\n0,0,0\n1,1,0.1\n2,2,0.2\n",
         "two columns are named", TextPosition{1, 2}},
    };
}

class BadFiles : public testing::TestWithParam<BadCase>
{
};

} // namespace

TEST_P(BadFiles, AreRefusedWithASentence)
{
    const BadCase &bad = GetParam();
    const Result<ImportedCurve> imported = importForceCurve(bad.bytes);
    ASSERT_FALSE(imported);
    EXPECT_EQ(imported.error().code, ErrorCode::BadInput);
    EXPECT_NE(imported.error().message.find(bad.says), std::string::npos) << imported.error().message;
    EXPECT_EQ(imported.error().position.has_value(), bad.position.has_value()) << imported.error().message;
    if (bad.position && imported.error().position) {
        EXPECT_EQ(*imported.error().position, *bad.position) << errorSentence(imported.error());
    }
}

INSTANTIATE_TEST_SUITE_P(All, BadFiles, testing::ValuesIn(badFiles()),
                         [](const auto &tested) { return std::to_string(tested.index); });

TEST(BadFiles, LastLineCutOffIsLeftOutWithAWarning)
{
    const Result<ImportedCurve> imported = importForceCurve("force_N,extension_mm\n0,0\n1,0.1\n2,0.2\n3");
    ASSERT_TRUE(imported);
    EXPECT_EQ(imported->curve.force_N.size(), 3U);
    EXPECT_EQ(imported->skippedLines, 1U);
    ASSERT_EQ(imported->warnings.size(), 1U);
    EXPECT_NE(imported->warnings[0].find("line 5"), std::string::npos) << imported->warnings[0];
}

TEST(BadFiles, RaggedShortRowsAreNamed)
{
    const Result<ImportedCurve> imported = importForceCurve("force_N,extension_mm\n0,0\n1\n2,0.2\n3,0.3\n");
    ASSERT_TRUE(imported);
    EXPECT_EQ(imported->curve.force_N.size(), 3U);
    EXPECT_NE(imported->warnings[0].find("line 3"), std::string::npos);
}

namespace
{

Result<PieceReading> readWith(const std::string &bytes, double area_mm2 = 10.0)
{
    TensileParameters parameters;
    parameters.area = squareMillimetres(area_mm2);
    parameters.gaugeLength = millimetres(50.0);
    return readPiece(
        {PieceId{1}, std::make_shared<const std::string>(bytes), {}, test::tensileOrder(parameters)});
}

} // namespace

TEST(BadRecords, OneSampleIsTooFew)
{
    const Result<PieceReading> reading = readWith("force_N,extension_mm\n5,0.1\n");
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, ErrorCode::TooFewPoints);
    EXPECT_NE(reading.error().message.find("1 sample"), std::string::npos);
}

TEST(BadRecords, ForceOfZeroThroughoutIsTold)
{
    const Result<PieceReading> reading = readWith("force_N,extension_mm\n0,0\n0,0.1\n0,0.2\n");
    ASSERT_FALSE(reading);
    EXPECT_NE(reading.error().message.find("zero in every sample"), std::string::npos);
}

TEST(BadRecords, AreaOfZeroIsRefused)
{
    const Result<PieceReading> reading = readWith("force_N,extension_mm\n0,0\n1,0.1\n2,0.2\n", 0.0);
    ASSERT_FALSE(reading);
    EXPECT_EQ(reading.error().code, ErrorCode::InvalidArgument);
    EXPECT_NE(reading.error().message.find("area"), std::string::npos);
}

TEST(BadRecords, AMissingSectionIsNamedAndOneOfNoWidthRefused)
{
    Study study;
    Piece piece;
    piece.code = "B3";
    const Result<ReadingOrder> order = readingOrder(study, piece, usualWorkshop());
    ASSERT_TRUE(order) << "what needs no section is read";
    EXPECT_EQ(order->missing, std::vector<std::string>{"the cross-section"});
    piece.section = RectangularSection{millimetres(0.0), millimetres(4.0)};
    const Result<ReadingOrder> zero = readingOrder(study, piece, usualWorkshop());
    ASSERT_FALSE(zero);
    EXPECT_NE(zero.error().message.find("width"), std::string::npos);
}

} // namespace inchpeg
