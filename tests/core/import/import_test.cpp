// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/curve/force_curve.h"
#include "core/import/mapping.h"
#include "core/import/table.h"
#include "core/import/text.h"
#include "sim/record_writer.h"
#include "support/matching_digits.h"

#include <gtest/gtest.h>

namespace inchpeg
{

namespace
{

std::string utf16(std::string_view ascii, bool littleEndian, bool mark)
{
    std::string out = mark ? (littleEndian ? "\xFF\xFE" : "\xFE\xFF") : "";
    for (char c : ascii) {
        if (littleEndian)
            out += {c, '\0'};
        else
            out += {'\0', c};
    }
    return out;
}

struct DialectCase {
    const char *name;
    std::string bytes;
    Encoding encoding = Encoding::Utf8;
    char delimiter = ',';
    char decimal = '.';
    double secondForce_N = 12.5;
    double secondExtension_mm = 0.25;
    std::size_t headerLines = 1;
};

std::ostream &operator<<(std::ostream &out, const DialectCase &tested)
{
    return out << tested.name;
}

/// Each holds three rows; the second is 12.5 N at 0.25 mm unless said otherwise.
std::vector<DialectCase> dialects()
{
    const std::string plain = "force_N,extension_mm\n0.0,0.0\n12.5,0.25\n20.25,0.50\n";
    return {
        {"plain", plain},
        {"byte-order mark", "\xEF\xBB\xBF" + plain},
        {"CRLF", "force_N,extension_mm\r\n0.0,0.0\r\n12.5,0.25\r\n20.25,0.50\r\n"},
        {"CR", "force_N,extension_mm\r0.0,0.0\r12.5,0.25\r20.25,0.50\r"},
        {"UTF-16 little endian", utf16(plain, true, true), Encoding::Utf16LittleEndian},
        {"UTF-16 big endian", utf16(plain, false, true), Encoding::Utf16BigEndian},
        {"UTF-16 without mark", utf16(plain, true, false), Encoding::Utf16LittleEndian},
        {"Latin-1",
         "Pr\xFC"
         "fung;A\nKraft [N];Weg [mm]\n0,0;0,0\n12,5;0,25\n20,25;0,50\n",
         Encoding::Latin1, ';', ',', 12.5, 0.25, 2},
        {"semicolon and comma", "Kraft [N];Weg [mm]\n0,0;0,0\n12,5;0,25\n20,25;0,50\n", Encoding::Utf8, ';',
         ','},
        {"semicolon and point", "Force (N);Extension (mm)\n0.0;0.0\n12.5;0.25\n20.25;0.5\n", Encoding::Utf8,
         ';', '.'},
        {"tab and units row", "Load\tExtension\nN\tmm\n0.0\t0.0\n12.5\t0.25\n20.25\t0.50\n", Encoding::Utf8,
         '\t', '.', 12.5, 0.25, 2},
        {"bracketed units row", "Load,Extension\n[kN],[mm]\n0.0,0.0\n0.0125,0.25\n0.02,0.50\n",
         Encoding::Utf8, ',', '.', 12.5, 0.25, 2},
        {"blanks", "force[N]  extension[mm]\n   0.00     0.000\n  12.50     0.250\n  20.25     0.500\n",
         Encoding::Utf8, ' '},
        {"quoted",
         "\"Force (N)\",\"Extension (mm)\"\n\"0.0\",\"0.0\"\n\"12.5\",\"0.25\"\n\"20.25\",\"0.5\"\n"},
        {"pounds and inches", "Load (lbf),Extension (in)\n0.0,0.0\n12.5,0.25\n20.0,0.5\n", Encoding::Utf8,
         ',', '.', 12.5 * 4.4482216152605, 6.35},
        {"kilogram-force and micrometres", "load[kgf];travel[um]\n0;0\n1.25;250\n2.5;500\n", Encoding::Utf8,
         ';', '.', 12.2583125, 0.25},
        {"gram-force and centimetres", "load gf,displacement cm\n0,0\n500,0.025\n700,0.05\n", Encoding::Utf8,
         ',', '.', 4.903325, 0.25},
        {"header block",
         "Operator: none\nDate: "
         "2026-05-01\nSpeed,5\n\nforce_N,extension_mm\n0.0,0.0\n12.5,0.25\n20.25,0.50\n",
         Encoding::Utf8, ',', '.', 12.5, 0.25, 5},
        {"grouped thousands, English",
         "Force [mN],Extension [µm]\n0,0\n\"12,500\",250\n\"20,250\",500\n\"1,020,250\",600\n"},
        {"grouped thousands, German", "Kraft [mN];Weg [µm]\n0;0\n12.500;250\n20.250;500\n1.020.250;600\n",
         Encoding::Utf8, ';', ','},
        {"grouped by spaces", "Kraft [mN];Weg [µm]\n0;0\n12 500;250\n20 250;500\n1 020 250,5;600\n",
         Encoding::Utf8, ';', ','},
        {"text column beside", "state,force_N,extension_mm\nrun,0.0,0.0\nrun,12.5,0.25\nend,20.25,0.50\n"},
    };
}

class Dialects : public testing::TestWithParam<DialectCase>
{
};

} // namespace

TEST_P(Dialects, AreUnderstood)
{
    const DialectCase &wanted = GetParam();
    const Result<DecodedText> text = decodeText(wanted.bytes);
    ASSERT_TRUE(text) << text.error().message;
    EXPECT_EQ(text->encoding, wanted.encoding);
    const Result<ImportedCurve> imported = importForceCurve(wanted.bytes);
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_EQ(imported->layout.delimiter, wanted.delimiter);
    EXPECT_EQ(imported->layout.numbers.decimal, wanted.decimal);
    EXPECT_EQ(imported->layout.headerLines, wanted.headerLines);
    ASSERT_GE(imported->curve.force_N.size(), 3U);
    EXPECT_GE(test::matchingDigits(imported->curve.force_N[1], wanted.secondForce_N), 12);
    EXPECT_GE(test::matchingDigits(imported->curve.extension_mm[1], wanted.secondExtension_mm), 12);
}

INSTANTIATE_TEST_SUITE_P(All, Dialects, testing::ValuesIn(dialects()),
                         [](const auto &tested) { return std::to_string(tested.index); });

TEST(Import, ReadsEveryDialectThatTheVirtualRigsWrite)
{
    ForceCurve curve;
    for (int i = 0; i < 60; ++i) {
        curve.time_s.push_back(0.1 * i);
        curve.force_N.push_back(31.25 * i);
        curve.extension_mm.push_back(0.01 * i);
    }
    for (const sim::Dialect dialect :
         {sim::Dialect::CommaUtf8, sim::Dialect::SemicolonComma, sim::Dialect::TabUtf16,
          sim::Dialect::PoundsInches, sim::Dialect::KilogramForceSpaces, sim::Dialect::GroupedThousands}) {
        const Result<ImportedCurve> imported = importForceCurve(sim::recordBytes(curve, dialect, "A1"));
        ASSERT_TRUE(imported) << static_cast<int>(dialect) << ": " << imported.error().message;
        ASSERT_EQ(imported->curve.force_N.size(), curve.force_N.size()) << static_cast<int>(dialect);
        for (std::size_t i = 0; i < curve.force_N.size(); ++i) {
            // The files are written to 1 mN or better.
            EXPECT_NEAR(imported->curve.force_N[i], curve.force_N[i], 1e-3)
                << static_cast<int>(dialect) << " row " << i;
            EXPECT_NEAR(imported->curve.extension_mm[i], curve.extension_mm[i], 1e-5);
        }
    }
}

TEST(Import, TellsACrossheadFromAGauge)
{
    const Result<ImportedCurve> imported =
        importForceCurve("force_N,crosshead_mm,extension_mm\n0,0,0\n5,1,0.5\n9,2,1\n");
    ASSERT_TRUE(imported);
    EXPECT_FALSE(imported->curve.extensionIsCrosshead);
    EXPECT_DOUBLE_EQ(imported->curve.extension_mm[1], 0.5);
    const Result<ImportedCurve> only = importForceCurve("force_N,stroke_mm\n0,0\n5,1\n9,2\n");
    ASSERT_TRUE(only);
    EXPECT_TRUE(only->curve.extensionIsCrosshead);
}

TEST(Import, WarnsWhereAUnitIsTaken)
{
    const Result<ImportedCurve> imported = importForceCurve("force,extension\n0,0\n5,1\n9,2\n");
    ASSERT_TRUE(imported);
    ASSERT_EQ(imported->warnings.size(), 2U);
    EXPECT_NE(imported->warnings[0].find("N is taken"), std::string::npos);
}

TEST(Import, StrainInPercentIsAFraction)
{
    const Result<ImportedCurve> imported = importForceCurve("force_N,strain_%\n0,0\n5,0.5\n9,1\n");
    ASSERT_TRUE(imported) << imported.error().message;
    EXPECT_DOUBLE_EQ(imported->curve.strain[1], 0.005);
}

TEST(Mapping, ChangesHowColumnsAreRead)
{
    const std::string text = "a,b\n0,0\n5,1\n9,2\n";
    const Result<Layout> found = findLayout(text);
    ASSERT_TRUE(found);
    const ColumnMapping mapping{
        {}, {{ColumnQuantity::Force, "kgf", false}, {ColumnQuantity::Extension, "in", true}}};
    const Result<Layout> layout = withMapping(*found, mapping);
    ASSERT_TRUE(layout);
    const Result<ImportedRecord> imported = readRecordTable(text, *layout, kForceColumns);
    ASSERT_TRUE(imported);
    const ForceCurve curve = forceCurveOf(imported->table);
    EXPECT_DOUBLE_EQ(curve.force_N[1], 49.03325);
    EXPECT_DOUBLE_EQ(curve.extension_mm[1], 25.4);
    EXPECT_TRUE(curve.extensionIsCrosshead);
}

TEST(Mapping, KeepsItsTextForm)
{
    ColumnMapping mapping{{},
                          {{ColumnQuantity::Force, "kgf", false},
                           {},
                           {ColumnQuantity::Strain, "mm/mm", false},
                           {ColumnQuantity::Extension, "in", true}}};
    EXPECT_EQ(mappingText(mapping), "force[kgf];-;strain[mm/mm];extension[in]!");
    EXPECT_EQ(*mappingFromText(mappingText(mapping)), mapping);
    mapping.table = 2;
    EXPECT_EQ(mappingText(mapping), "table 2;force[kgf];-;strain[mm/mm];extension[in]!");
    EXPECT_EQ(*mappingFromText(mappingText(mapping)), mapping);
    EXPECT_EQ(mappingFromText("table 3;")->table, 3U);
    for (const char *wrong : {"table 0", "table x", "table", "table 2;table 3", "-;table 2"})
        EXPECT_FALSE(mappingFromText(wrong)) << wrong;
    EXPECT_TRUE(mappingFromText("")->empty());
    EXPECT_FALSE(mappingFromText("force"));
    EXPECT_FALSE(mappingFromText("weight[N]"));
}

TEST(Mapping, RefusesWhatDoesNotFit)
{
    const Result<Layout> found = findLayout("a,b\n0,0\n5,1\n9,2\n");
    EXPECT_FALSE(withMapping(*found, {{}, {{ColumnQuantity::Force, "N", false}}}));
    EXPECT_FALSE(withMapping(*found, {{}, {{ColumnQuantity::Force, "mm", false}, {}}}));
}

TEST(Mapping, SameShapeHasTheSameSignature)
{
    const auto signature = [](const std::string &text) { return layoutSignature(*findLayout(text)); };
    EXPECT_EQ(signature("f,x\n0,0\n5,1\n"), signature("f,x\n1,1\n5,1\n7,8\n"));
    EXPECT_NE(signature("f,x\n0,0\n5,1\n"), signature("f,y\n0,0\n5,1\n"));
    EXPECT_NE(signature("f,x\n0,0\n5,1\n"), signature("f;x\n0;0\n5;1\n"));
}

TEST(PlainRow, ReadsBitForBitWhatTheCarefulReaderReads)
{
    // Numbers of every length and size, against std::from_chars on the same text.
    std::uint64_t state = 88172645463325252ULL;
    const auto next = [&state] {
        state ^= state << 13U;
        state ^= state >> 7U;
        return state ^= state << 17U;
    };
    std::string text = "force_N;extension_mm\n0;0\n";
    std::vector<double> wanted;
    for (int i = 0; i < 20000; ++i) {
        const std::string digits = std::to_string(next() % (i % 3 == 0 ? 1000000ULL : 10000000000000ULL));
        const std::size_t point = next() % (digits.size() + 1);
        const std::string number = (i % 5 == 0 ? "-" : "") + digits.substr(0, point) + "." +
                                   digits.substr(point) + (point == digits.size() ? "0" : "");
        text += number + (i % 7 == 0 ? " ; 1.5\r\n" : ";1.5\n");
        wanted.push_back(std::stod(number));
    }
    const Result<ImportedCurve> imported = importForceCurve(text);
    ASSERT_TRUE(imported) << imported.error().message;
    ASSERT_EQ(imported->curve.force_N.size(), wanted.size() + 1);
    for (std::size_t i = 0; i < wanted.size(); ++i)
        ASSERT_EQ(imported->curve.force_N[i + 1], wanted[i]) << i;
}

TEST(PlainRow, LineNumbersOfWarningsCountPlainRowsToo)
{
    std::string text = "force_N,extension_mm\n";
    for (int i = 0; i < 500; ++i)
        text += i == 250 ? "\n" : i == 300 ? "7,\n" : "1.5,2.5\n";
    const Result<ImportedCurve> imported = importForceCurve(text);
    ASSERT_TRUE(imported);
    EXPECT_EQ(imported->rows, 498U);
    ASSERT_EQ(imported->warnings.size(), 1U);
    EXPECT_NE(imported->warnings[0].find("line 302"), std::string::npos) << imported->warnings[0];
}

} // namespace inchpeg
